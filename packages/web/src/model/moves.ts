import { usualOf } from '@crow-ladder/core/kinds';
import { type ChartState, type OtherInstrument, type Settings } from '@crow-ladder/contract';
import {
  chooseRoot,
  degreeIndex,
  type Instrument,
  type Key,
  mod,
  nearestFret,
  neckOf,
  note,
  noteName,
  numberWord,
  parseNote,
  pitchAt,
  pitchClass,
  type Place,
  type PositionRef,
  resolveScale,
  type Scale,
} from '@crow-ladder/core';
import { fittedTo, layoutName, type LayoutSpec, LAYOUTS } from '@crow-ladder/core/layouts';

/** A change of a chart's state, made on the state as it is by then. */
export type Change = (state: ChartState) => ChartState;

type Spelling = Settings['spelling'];

/** The scale of a chart that was read. */
export function scaleOf(state: ChartState): Scale {
  const scale = resolveScale(state.key.scale);
  if (!scale.ok) throw new Error(scale.error.message);
  return scale.value;
}

/** A layout after the root was put on another string. */
function atRoot(layout: LayoutSpec, string: number): LayoutSpec {
  const moved = LAYOUTS.for(layout).atRoot?.(layout, string);
  return moved ? { ...moved, kind: layout.kind } : layout;
}

/** Another root: it stays on its string, at the fret closest to the old one, and brings its own position forward. */
export function withRoot(state: ChartState, root: string): ChartState {
  const parsed = parseNote(root);
  if (!parsed.ok) return state;
  const { at } = state;
  const fret = nearestFret(neckOf(state.instrument), at.string, pitchClass(parsed.value), at.fret);
  const name = noteName(parsed.value);
  const front = fret === at.fret ? state.front : null;
  return { ...state, key: { ...state.key, root: name }, at: { ...at, fret }, front };
}

/** The root put on a spot of the neck. It keeps its name where the pitch is the same; otherwise the easier spelling. */
export function withSpot(state: ChartState, { string, fret }: Place, prefer: Spelling): ChartState {
  const pc = mod(pitchAt(neckOf(state.instrument), string, fret), 12);
  const same = pitchClass(note(state.key.root)) === pc;
  const root = same ? state.key.root : noteName(chooseRoot(pc, scaleOf(state), prefer).root);
  return {
    ...state,
    key: { ...state.key, root },
    at: { string, fret },
    layout: atRoot(state.layout, string),
    front: null,
  };
}

/** A six-note scale is laid out as one of five and as one of seven notes are: what was chosen stays. */
const EITHER_WAY = 6;

/** Another scale on the same spot; a layout whose options follow the size of the scale follows it, if they did before. */
export function withScale(state: ChartState, scale: string): ChartState {
  const next = { ...state, key: { ...state.key, scale } };
  const [before, after] = [scaleOf(state), scaleOf(next)];
  const layout = LAYOUTS.for(state.layout);
  const sizes = [before, after].map((s) => s.degrees.length);
  if (!layout.bySize || sizes[0] === sizes[1] || sizes.includes(EITHER_WAY)) return next;
  const { string } = state.at;
  const usual = (scale: Scale): LayoutSpec =>
    usualOf(layout, { scale, string, strings: state.instrument.tuning.length });
  const chosen = layoutName(usual(before)) !== layoutName(state.layout);
  return chosen ? next : { ...next, layout: usual(after), front: null };
}

/** Another root and scale. */
export const withKey = (state: ChartState, { root, scale }: Key): ChartState =>
  withScale(withRoot(state, noteName(root)), scale.id);

/** What is said where a layout changed because something else did; null where it did not. */
export function layoutFollowed(before: ChartState, after: ChartState): string | null {
  const now = layoutName(after.layout);
  if (now === layoutName(before.layout)) return null;
  if (before.key.scale !== after.key.scale)
    return `The layout is ${now} now, as is usual for ${numberWord(scaleOf(after).degrees.length)} notes.`;
  if (before.instrument !== after.instrument) return `The layout is ${now} now, to fit the strings.`;
  return null;
}

/** Another layout, with the position through the root in front. */
export const withLayout = (state: ChartState, layout: LayoutSpec): ChartState => ({
  ...state,
  layout,
  front: null,
});

/** Another position brought forward; null is the one through the root. */
export const withFront = (state: ChartState, front: PositionRef | null): ChartState => ({ ...state, front });

/** Another instrument: the root is found again on the same string, near the same fret. */
export function withInstrument(
  state: ChartState,
  instrument: Instrument,
  instrumentId: string | null,
): ChartState {
  const strings = instrument.tuning.length;
  const string = Math.min(state.at.string, strings);
  const neck = neckOf(instrument);
  const near = Math.min(state.at.fret, neck.frets);
  const fret = nearestFret(neck, string, pitchClass(note(state.key.root)), near);
  return {
    ...state,
    instrument,
    instrumentId,
    at: { string, fret },
    layout: fittedTo(state.layout, strings),
  };
}

/** The instrument that a chart shows, as one of the others. */
const asOther = ({ instrument, instrumentId, at, layout, front }: ChartState): OtherInstrument => ({
  instrument,
  instrumentId,
  at,
  layout,
  front,
});

/** A chart that goes on as `after` on another instrument, with the one that it showed kept beside it. */
export const withBoth = (state: ChartState, after: ChartState): ChartState => ({
  ...after,
  others: [...state.others, asOther(state)],
});

/** Another of a chart's instruments shown; the one before takes its place among the others. The root is found again near where it was. */
export function switched(state: ChartState, to: number): ChartState {
  const next = state.others[to];
  if (!next) return state;
  const { string, fret } = next.at;
  const root = nearestFret(neckOf(next.instrument), string, pitchClass(note(state.key.root)), fret);
  const others = state.others.map((o, i) => (i === to ? asOther(state) : o));
  // Another key leaves a position where it may not stand.
  return { ...state, ...next, at: { string, fret: root }, front: root === fret ? next.front : null, others };
}

/** One of a chart's other instruments taken away. */
export const withoutOther = (state: ChartState, at: number): ChartState => ({
  ...state,
  others: state.others.filter((_, i) => i !== at),
});

/** All places of the root, up the neck, at one fret from the lowest string; `by` steps through them from the present one. */
export function stepRoot(state: ChartState, by: 1 | -1): ChartState {
  const neck = neckOf(state.instrument);
  const key = { root: note(state.key.root), scale: scaleOf(state) };
  const places = Array.from({ length: neck.frets + 1 }, (_, fret) => fret).flatMap((fret) =>
    neck.rising
      .filter((string) => degreeIndex(key, pitchAt(neck, string, fret)) === 0)
      .map((string) => ({ string, fret })),
  );
  const at = places.findIndex((p) => p.string === state.at.string && p.fret === state.at.fret);
  const next = places[mod(at < 0 ? 0 : at + by, places.length)];
  return next ? { ...state, at: next, layout: atRoot(state.layout, next.string), front: null } : state;
}

/** The key moved by half steps on the same string; off the end of the neck the root goes on an octave away. */
export function transpose(state: ChartState, by: number, prefer: Spelling): ChartState {
  const { key, at } = state;
  const { root } = chooseRoot(mod(pitchClass(note(key.root)) + by, 12), scaleOf(state), prefer);
  const neck = neckOf(state.instrument);
  const target = at.fret + by;
  const fret = target < 0 ? target + 12 : target > neck.frets ? target - 12 : target;
  return { ...state, key: { ...key, root: noteName(root) }, at: { ...at, fret }, front: null };
}
