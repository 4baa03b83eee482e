import {
  degreeIndex,
  lazily,
  ok,
  placeId,
  plural,
  type Result,
  type Spot,
  spotSaid,
  spotsOf,
} from '@crow-ladder/core';
import {
  type Arrive,
  type Fingered,
  type Fingering,
  heldSaid,
  inTime,
  moveTo,
  type NotesPerBeat,
  widestHand,
  type Route,
  type Run,
  signatureOf,
  type Strike,
  strikeAs,
  type Stroke,
  tablature,
} from '@crow-ladder/core/run';
import { type Layers, type Mark, type MarkKind } from '@crow-ladder/picture';
import { aboveRoot, beside } from './added.ts';
import { spotHead } from './describe.ts';
import { labelOf, marksOf, type Shown } from './marks.ts';
import { type Model, pitchName } from './model.ts';
import { FINGERS, handSaid, moveWord } from './wording.ts';

/** Scale notes marked as `kindOf` says, the others faded; `told` is said of a mark after what it is. */
export function marked(
  model: Model,
  { labels }: Shown,
  kindOf: (spot: Spot) => MarkKind | null,
  told: (spot: Spot) => string = () => '',
): readonly Mark[] {
  return spotsOf(model.neck, model.key).map((s): Mark => {
    const root = s.degree === 0;
    const kind = kindOf(s);
    return {
      string: s.string,
      fret: s.fret,
      kind: kind ?? (root ? 'outsideRoot' : 'outside'),
      ...(root && kind !== 'root' && kind !== null ? { root } : {}),
      label: labelOf(model, labels, s),
      name: () => `${spotHead(model, s)}${told(s)}`,
    };
  });
}

const kindOfNote = ({ added, degree }: Spot, altered: boolean): MarkKind => {
  if (added) return added === 'passing' ? 'passing' : 'added';
  return altered ? 'altered' : degree === 0 ? 'root' : 'note';
};
/** What a note of a run says; an added one has a degree of its own. */
const noteLabel = (
  model: Model,
  labels: Shown['labels'],
  it: Parameters<typeof labelOf>[2] & Spot,
): string =>
  it.added && labels === 'degree'
    ? beside(model, aboveRoot(model, it.midi)).degree
    : labelOf(model, labels, it);

/** The way of a run through its notes, and the note that is looked at; `what` is what the run is called. */
export function wayLayers(
  model: Model,
  step: number,
  shown: Shown,
  steps: readonly Fingered[] | undefined,
  what: string,
): Partial<Layers> {
  if (!steps) return { marks: marksOf(model, shown) };
  const first = new Map<number, number>();
  steps.forEach(({ spot }, i) => {
    const id = placeId(spot);
    if (!first.has(id)) first.set(id, i);
  });
  const notes = [...first].map(([, i]): Mark => {
    const { spot, finger } = steps[i]!;
    const altered = degreeIndex(model.key, spot.midi) < 0;
    return {
      string: spot.string,
      fret: spot.fret,
      kind: kindOfNote(spot, altered),
      label: noteLabel(model, shown.labels, {
        ...spot,
        degree: altered ? -1 : spot.degree,
        order: i,
        finger,
      }),
      name: () => `${spotHead(model, spot, () => null)}, ${FINGERS[finger]}, note ${i + 1} of the ${what}`,
    };
  });
  const at = Math.min(step, steps.length - 1);
  const [before, here, next] = [steps[at - 1]?.spot, steps[at]!.spot, steps[at + 1]?.spot];
  return {
    marks: [...marked(model, shown, () => null).filter((m) => !first.has(placeId(m))), ...notes],
    path: steps.map(({ spot }) => spot),
    links: before ? [{ from: before, to: here, kind: 'move', label: '' }] : [],
    cursor: { at: here, next: next ?? null },
  };
}

/** How a note is struck that takes no stroke; a slide is said by what the hand does. */
const STRUCK: Readonly<Record<Arrive, string | null>> = {
  pick: null,
  slide: null,
  hammer: 'hammered on',
  pull: 'pulled off',
  tap: 'tapped',
};

/**
 * A note of a run as it is read: "string 6 fret 5, index finger, A, down stroke", what the hand does to get there, and how it is held.
 */
function stepSaid(model: Model, run: Run, i: number, stroke: Stroke | null): string {
  const step = run[i]!;
  const { spot, finger, hand, arrive } = step;
  const to = moveTo(run, i);
  // A finger that goes along its string unheard is a shift to whoever listens.
  const move = moveWord(to === 'slide' && arrive === 'pick' ? 'shift' : to);
  const struck = stroke ? `${stroke} stroke` : STRUCK[arrive];
  const held = heldSaid(step);
  const degree = degreeIndex(model.key, spot.midi);
  const note = degree < 0 ? pitchName(model, spot.midi) : model.notes[degree]!;
  return [
    ...(move ? [`${move} to fret ${hand}`] : []),
    spotSaid(spot),
    ...(finger ? [FINGERS[finger]] : []),
    note,
    ...(struck ? [struck] : []),
    ...(held ? [held] : []),
    ...(step.accent ? ['accented'] : []),
  ].join(', ');
}

/** What a run asks of the hand. */
function effortSaid({ neck }: Model, { steps, shifts }: Fingering): string {
  const widest = widestHand(neck, steps);
  return `${[
    plural(steps.length, 'note'),
    plural(shifts, 'shift'),
    ...(widest ? [handSaid(widest)] : []),
  ].join(', ')}.`;
}

/** A route with the player's fingers, struck in a way and in time; codes as of `strikeAs`. */
export function struck(
  model: Model,
  route: Route,
  how: Strike,
  perBeat?: NotesPerBeat,
  group?: number,
): Result<{ readonly fingering: Fingering; readonly run: Run }> {
  const done = strikeAs(route, how, model.fingers, group);
  return done.ok ? ok({ fingering: done.value.fingering, run: inTime(done.value.steps, perBeat) }) : done;
}

/** A run as it is read, what of it is asked for: note by note, with what it asks of the hand, its fingers and its tablature; with its strokes where they are given. */
export const readOf = (
  model: Model,
  fingering: Fingering,
  run: Run,
  strokes?: readonly (Stroke | null)[],
) => {
  const effort = lazily(() => effortSaid(model, fingering));
  const fingers = lazily(() => signatureOf(fingering.steps));
  const text = lazily(() =>
    tablature(run, model.neck, { accidentals: model.accidentals, ...(strokes && { strokes }) }),
  );
  return {
    many: run.length,
    said: (i: number): string => stepSaid(model, run, i, strokes?.[i] ?? null),
    get effort(): string {
      return effort();
    },
    get fingers(): string {
      return fingers();
    },
    get tablature(): string {
      return text();
    },
  };
};
