import { type ChartState, type Settings } from '@crow-ladder/contract';
import {
  degreeName, finger, type Fingering, type Instrument, type Key, layOut, lazily, type LayoutReason, pitchClassName, type Accidentals, type Neck, neckOf, note, noteName, pitchAt, type Position,
  positionNames, positionThrough, pretty, resolveScale, type Result, type Scale, shapeOf, solfa, spellScale, spotsOf, holding, unisons, usualSchool, list,
} from '@crow-ladder/core'; // prettier-ignore
import { called } from '../../app/scales.ts';
import { type View } from '../../app/store.ts';
import { type NeckMark } from '../../ui/neck/Mark.ts';

/** Everything that follows from a chart's state and the player's settings. */
export interface Model {
  readonly state: ChartState;
  readonly neck: Neck;
  readonly key: Key;
  readonly scale: Scale;
  /** Printed names of the scale's notes and degrees, by degree index. */
  readonly notes: readonly string[];
  readonly degrees: readonly string[];
  /** How notes outside the scale and open strings are named: as the scale's own notes are. */
  readonly accidentals: Accidentals;
  readonly positions: Result<readonly Position[], LayoutReason>;
  /** Titles of the positions, printed; made, as the fingering is, when first asked for: the neck can do without. */
  readonly names: () => readonly string[];
  /** The position in front, if any. */
  readonly front: Position | null;
  /** Of the position in front. */
  readonly fingering: () => Fingering | null;
}

interface Kept {
  readonly settings: Settings;
  readonly chosen: number | null;
  readonly model: Model;
}
/** The last model of each state: the neck and what explains it ask for the same one, a moment apart. */
const MODELS = new WeakMap<ChartState, Kept>();
const NECKS = new WeakMap<Instrument, Neck>();

function neckFor(instrument: Instrument): Neck {
  const neck = NECKS.get(instrument) ?? neckOf(instrument);
  NECKS.set(instrument, neck);
  return neck;
}

function make(state: ChartState, settings: Settings, chosen: number | null): Model {
  const neck = neckFor(state.instrument);
  const resolved = resolveScale(state.scale);
  if (!resolved.ok) throw new Error(resolved.error.message);
  const scale = called(resolved.value, settings.ownScales);
  const key: Key = { root: note(state.root), scale };
  const positions = layOut(neck, key, state.layout);
  const all = positions.ok ? positions.value : [];
  const front = (chosen === null ? null : all[chosen]) ?? positionThrough(all, state.string, state.fret);
  const school = settings.numbering === 'usual' ? usualSchool(scale) : settings.numbering;
  const notes = spellScale(key).map((n) => pretty(noteName(n)));
  const has = (sign: string): boolean => notes.some((n) => n.includes(sign));
  return {
    state,
    neck,
    key,
    scale,
    notes,
    accidentals: has('♯') === has('♭') ? settings.spelling : has('♭') ? 'flats' : 'sharps',
    degrees: scale.degrees.map((d) => pretty(degreeName(d))),
    positions,
    names: lazily(() => positionNames(all, key, school).map(pretty)),
    front,
    fingering: lazily(
      () => front && finger(neck, front.spots, { school: settings.fingering, spanMm: settings.spanMm }),
    ),
  };
}

/** The frets of the position in front, two more on either side; null where none is in front. */
export const around = ({ front, neck }: Model): readonly [number, number] | null =>
  front && [Math.max(0, front.lowFret - 2), Math.min(neck.frets, front.highFret + 2)];

/** The model of a state. `chosen` is the index of a position brought forward by hand; null follows the root. */
export function modelOf(state: ChartState, settings: Settings, chosen: number | null): Model {
  const kept = MODELS.get(state);
  if (kept?.settings === settings && kept.chosen === chosen) return kept.model;
  const model = make(state, settings, chosen);
  MODELS.set(state, { settings, chosen, model });
  return model;
}

/** How the settings name a shape that the player knows: it is known in every key. */
export const knownId = ({ scale }: Model, position: Position): string => `${scale.id} ${shapeOf(position)}`;

/** The positions whose shapes the player knows. */
export function known(model: Model, settings: Settings): readonly Position[] {
  if (!settings.known.length || !model.positions.ok) return [];
  const shapes = new Set(settings.known);
  return model.positions.value.filter((p) => shapes.has(knownId(model, p)));
}

/** Okabe and Ito, "Color Universal Design", 2008: eight colours told apart by colour-blind eyes, with a text colour for each. */
const PALETTE: readonly (readonly [fill: string, text: string])[] = [
  ['#000000', '#ffffff'], ['#e69f00', '#000000'], ['#56b4e9', '#000000'], ['#009e73', '#000000'],
  ['#f0e442', '#000000'], ['#0072b2', '#ffffff'], ['#d55e00', '#000000'], ['#cc79a7', '#000000'],
]; // prettier-ignore

const spotId = (string: number, fret: number): number => string * 100 + fret;

/** A note that a mark stands for. `degree` is −1 outside the scale; `order` counts from 0 in the order of play. */
export interface Labelled {
  readonly degree: number;
  readonly fret: number;
  readonly midi: number;
  readonly order?: number | undefined;
  readonly finger?: number | undefined;
}

/** What a mark says. */
export function labelOf(model: Model, labels: Settings['labels'], it: Labelled): string {
  const { degrees, notes, scale } = model;
  switch (labels) {
    case 'degree':
      return degrees[it.degree] ?? '';
    case 'note':
      return notes[it.degree] ?? pitchName(model, it.midi);
    case 'solfa':
      return it.degree >= 0 ? solfa(scale.degrees[it.degree]!) : '';
    case 'fret':
      return String(it.fret);
    case 'finger':
      return it.finger === undefined ? '' : String(it.finger);
    case 'order':
      return it.order === undefined ? '' : String(it.order + 1);
    case 'none':
      return '';
  }
}

/** The name of a pitch outside the scale, without its octave, printed. */
export const pitchName = ({ accidentals }: Model, midi: number): string =>
  pretty(pitchClassName(midi, accidentals));

/** What the neck is asked to show. */
export type Shown = Pick<Settings, 'labels' | 'colours'> & Pick<View, 'rootsOnly'>;

/** Fill and text colour of a note where colours tell degrees; the root keeps its own. */
export function colourOf(
  { scale }: Model,
  { colours }: Shown,
  degree: number,
): Pick<NeckMark, 'fill' | 'text'> {
  if (colours === 'plain' || degree <= 0) return {};
  const [fill, text] = PALETTE[scale.degrees[degree]!.number % PALETTE.length]!;
  return { fill, text };
}

/** The marks of a model: the position in front in full, the other notes faded, altered notes among them. */
export function marksOf(model: Model, shown: Shown): readonly NeckMark[] {
  const { neck, key, front, notes, degrees } = model;
  const { labels, rootsOnly } = shown;
  const fingers = labels === 'finger' ? model.fingering()?.notes : undefined;
  const order = new Map<number, number>();
  const altered = new Map<number, number>();
  front?.spots.forEach((s, i) => {
    if (!order.has(spotId(s.string, s.fret))) order.set(spotId(s.string, s.fret), i);
    if (s.altered) altered.set(spotId(s.string, s.fret), i);
  });
  const label = (degree: number, fret: number, midi: number, at: number | undefined): string =>
    labelOf(model, labels, {
      degree,
      fret,
      midi,
      order: at,
      finger: at === undefined ? undefined : fingers?.[at]?.finger,
    });
  const marks = spotsOf(neck, key).flatMap((s): NeckMark[] => {
    const at = order.get(spotId(s.string, s.fret));
    const inside = front === null || at !== undefined;
    const root = s.degree === 0;
    if (rootsOnly && !root) return [];
    return [
      {
        string: s.string,
        fret: s.fret,
        kind: root ? (inside ? 'root' : 'outsideRoot') : inside ? 'note' : 'outside',
        label: label(s.degree, s.fret, s.midi, at),
        name: () =>
          `String ${s.string} fret ${s.fret}, ${notes[s.degree]}, ${root ? 'root' : degrees[s.degree]}${at === undefined ? '' : ', in the position'}`,
        ...(inside ? colourOf(model, shown, s.degree) : {}),
      },
    ];
  });
  const known = new Set(marks.map((m) => spotId(m.string, m.fret)));
  for (const [id, at] of altered) {
    const s = front!.spots[at]!;
    if (!known.has(id) && !rootsOnly)
      marks.push({
        string: s.string,
        fret: s.fret,
        kind: 'altered',
        label: label(-1, s.fret, s.midi, at),
        name: () => `String ${s.string} fret ${s.fret}, altered note`,
      });
  }
  return marks;
}

/** What a player wants to know about a spot, in one sentence. */
export function describeSpot(model: Model, string: number, fret: number): string {
  const { neck, key, notes, degrees, front, fingering, names } = model;
  const midi = pitchAt(neck, string, fret);
  const spot = spotsOf({ ...neck, rising: [string] }, key).find((s) => s.fret === fret);
  const parts = [
    `String ${string}, ${fret ? `fret ${fret}` : 'open'}: ${spot ? notes[spot.degree] : pitchName(model, midi)}`,
  ];
  parts.push(
    spot ? (spot.degree === 0 ? 'the root' : `degree ${degrees[spot.degree]}`) : 'outside the scale',
  );
  const at = front?.spots.findIndex((s) => s.string === string && s.fret === fret) ?? -1;
  const by = at >= 0 ? fingering()?.notes[at]?.finger : undefined;
  if (by !== undefined) parts.push(by ? `finger ${by}` : 'open string');
  const same = unisons(neck, string, fret);
  const also = same.length
    ? ` Same pitch at ${list(same.map((s) => `string ${s.string} fret ${s.fret}`))}.`
    : ' This pitch lies nowhere else.';
  const held = model.positions.ok ? holding(model.positions.value, string, fret) : [];
  const holds = held.length
    ? ` In ${list(held.slice(0, 4).map((h) => `${names()[h.position.index]}`))}.`
    : '';
  return `${parts.join(', ')}.${also}${holds}`;
}
