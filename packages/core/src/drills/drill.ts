import { type LayoutSpec } from '../layouts/layout.ts';
import { type Option } from '../kinds/option.ts';
import { type KindOf, type Spec } from '../kinds/spec.ts';
import { type Neck } from '../neck.ts';
import { type Position } from '../position.ts';
import { ok, type Refusal, refuse, type Result } from '../result.ts';
import { type Route, type RouteNote } from '../run/run.ts';
import { type Key } from '../scale.ts';

/** What is drilled. */
export interface Drilling {
  readonly neck: Neck;
  readonly key: Key;
  /** The notes in their order: of a position from its first to its last, of a climb its way up. */
  readonly notes: Route;
  /** The same notes in the same order, as they are taken coming down. */
  readonly back: Route;
  readonly layout: LayoutSpec;
  /** Of the layout, in neck order. */
  readonly positions: readonly Position[];
  /** The position that is drilled, or that a climb sets out from. */
  readonly front: Position;
}

/** The notes of a drill in the order of play. */
export interface Drilled {
  readonly notes: Route;
  /** How many notes make a group, whose first one is heard as such; 1 where there are no groups. */
  readonly group: number;
  /** What the player is told of it, where it could not be played as its rule says. */
  readonly remark: Refusal | null;
}

/** Codes: `drill.root` (no root among the notes), `drill.notes` (too few of them), `drill.other` (nothing to come back in), `drill.option`. */
export type DrillResult = Result<Drilled>;

/** A way to practise notes, with everything that the rest of the application needs to know of it. */
export interface DrillOf<O> extends KindOf<O> {
  /** What it is good for. */
  readonly goodFor: string;
  /** The option that belongs into its sentence, and the word before it: "groups", "of", "three". */
  readonly joined?: { readonly by: string; readonly option: keyof O & string };
  readonly usual: (drilling: Drilling) => O;
  readonly play: (drilling: Drilling, options: O) => DrillResult;
}

/** A drill with its options, as an address and the log of practice keep it. */
export type DrillSpec = Spec;
/** A drill whose options are known by its own file alone. */
export type Drill = DrillOf<DrillSpec>;
/**
 * Takes a drill's own options out of the sight of everybody else.
 *
 * @example defineDrill(DRILLS.of('groups')).kind // "groups"
 */
export const defineDrill = <O>(drill: DrillOf<O>): Drill => drill as unknown as Drill;

/**
 * A drill with what belongs into its sentence: "groups of three".
 *
 * @example drillTitle(DRILLS.of('groups'), { kind: 'groups', length: 3, topTwice: false }) // "groups of three"
 */
export function drillTitle({ name, joined, options }: Drill, spec: DrillSpec): string {
  const option = joined && options[joined.option];
  const chosen =
    option?.type === 'choice' ? option.values.find((v) => v.id === spec[joined!.option]) : undefined;
  return chosen ? `${name}${joined!.by} ${chosen.name}` : name;
}

export const played = (notes: Route, group = 1, remark: Refusal | null = null): DrillResult =>
  ok({ notes, group, remark });

/** Whether the note on which a drill turns is struck once, or twice as the other school has it. */
export const turnOption: Option = {
  type: 'switch',
  words: ['once', 'twice'],
  label: 'Strike the note on which it turns twice',
};

/** Where the lowest root stands among notes, and the root an octave above it, if there is one after it. */
export interface Octave {
  readonly root: number;
  readonly octave: number | null;
}

/** Finds the lowest root; code `drill.root` where there is none. */
export function octaveIn(notes: Route): Result<Octave> {
  let root = -1;
  notes.forEach(({ degree, midi }, i) => {
    if (degree === 0 && (root < 0 || midi < notes[root]!.midi)) root = i;
  });
  if (root < 0) return refuse('drill.root', 'There is no root among these notes: choose another position.');
  const octave = notes.findIndex((n, i) => i > root && n.midi === notes[root]!.midi + 12);
  return ok({ root, octave: octave < 0 ? null : octave });
}

/** What is said where a drill would go to the next root and there is none. */
export const NO_OCTAVE: Refusal = {
  code: 'drill.octave',
  message: 'There is no octave of the root here, so it goes as far as the notes do.',
};

/** From where to where a drill goes that leads from the lowest root to its octave, or to the last note where there is none. */
export function upToOctave(
  notes: Route,
): Result<{ readonly root: number; readonly end: number; readonly remark: Refusal | null }> {
  const found = octaveIn(notes);
  if (!found.ok) return found;
  const { root, octave } = found.value;
  return ok({ root, end: octave ?? notes.length - 1, remark: octave === null ? NO_OCTAVE : null });
}

/** What a line is made of: notes as they are taken going up, and coming down. */
type Ways = Pick<Drilling, 'notes' | 'back'>;
/** Notes from one place among them to another, either way, both ends included. */
export const between = ({ notes, back }: Ways, from: number, to: number): readonly RouteNote[] =>
  from <= to ? notes.slice(from, to + 1) : back.slice(to, from + 1).reverse();
/** Notes from one place among them to another and back; the one on which it turns is struck once unless asked for twice. */
export const outAndBack = (ways: Ways, from: number, to: number, topTwice: boolean): readonly RouteNote[] => [
  ...between(ways, from, to),
  ...between(ways, to, from).slice(topTwice ? 0 : 1),
];
