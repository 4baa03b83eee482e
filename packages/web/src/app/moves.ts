import { type ChartState } from '@crow-ladder/contract';
import {
  chooseRoot, degreeIndex, type Instrument, type LayoutSpec, mod, nearestFret, neckOf, note, noteName, parseNote, pitchAt, pitchClass,
  resolveScale, usualSpec,
} from '@crow-ladder/core'; // prettier-ignore

/** A change of a chart's state, made on the state as it is by then. */
export type Change = (state: ChartState) => ChartState;

type Spelling = 'sharps' | 'flats';
const scaleOf = (state: ChartState) => {
  const scale = resolveScale(state.scale);
  if (!scale.ok) throw new Error(scale.error.message);
  return scale.value;
};

/** Keeps string numbers inside a layout within the instrument. */
function fitLayout(layout: LayoutSpec, strings: number): LayoutSpec {
  if (layout.kind === 'single') return { ...layout, string: Math.min(layout.string, strings) };
  if (layout.kind === 'pair') return { ...layout, lower: Math.min(layout.lower, strings) };
  if (layout.kind === 'relay')
    return { ...layout, notes: Math.min(layout.notes, (strings - 1) * layout.perString) };
  return layout;
}

/** Another root: it stays on its string, at the fret closest to the old one. */
export function withRoot(state: ChartState, root: string): ChartState {
  const parsed = parseNote(root);
  if (!parsed.ok) return state;
  const fret = nearestFret(neckOf(state.instrument), state.string, pitchClass(parsed.value), state.fret);
  return { ...state, root: noteName(parsed.value), fret };
}

/** The root put on a spot of the neck. It keeps its name where the pitch is the same; otherwise the easier spelling. */
export function withSpot(state: ChartState, string: number, fret: number, prefer: Spelling): ChartState {
  const pc = mod(pitchAt(neckOf(state.instrument), string, fret), 12);
  const same = pitchClass(note(state.root)) === pc;
  const root = same ? state.root : noteName(chooseRoot(pc, scaleOf(state), prefer).root);
  const layout: LayoutSpec = state.layout.kind === 'single' ? { ...state.layout, string } : state.layout;
  return { ...state, root, string, fret, layout };
}

/** Another scale on the same spot; a layout by count follows the size of the scale. */
export function withScale(state: ChartState, scale: string): ChartState {
  const next = { ...state, scale };
  const [before, after] = [scaleOf(state), scaleOf(next)];
  const fits = state.layout.kind !== 'count' && state.layout.kind !== 'relay' && state.layout.kind !== 'skip';
  if (fits || before.degrees.length === after.degrees.length) return next;
  return {
    ...next,
    layout: usualSpec(state.layout.kind, after, state.string, state.instrument.tuning.length),
  };
}

/** Another instrument: the root is found again on the same string, near the same fret. */
export function withInstrument(
  state: ChartState,
  instrument: Instrument,
  instrumentId: string | null,
): ChartState {
  const string = Math.min(state.string, instrument.tuning.length);
  const neck = neckOf(instrument);
  const fret = nearestFret(neck, string, pitchClass(note(state.root)), Math.min(state.fret, neck.frets));
  return {
    ...state,
    instrument,
    instrumentId,
    string,
    fret,
    layout: fitLayout(state.layout, instrument.tuning.length),
  };
}

/** All places of the root, from the lowest string up the neck; `by` steps through them from the present one. */
export function stepRoot(state: ChartState, by: 1 | -1): ChartState {
  const neck = neckOf(state.instrument);
  const key = { root: note(state.root), scale: scaleOf(state) };
  const places = neck.rising.flatMap((string) =>
    Array.from({ length: neck.frets + 1 }, (_, fret) => ({ string, fret })).filter(
      (s) => degreeIndex(key, pitchAt(neck, string, s.fret)) === 0,
    ),
  );
  const at = places.findIndex((p) => p.string === state.string && p.fret === state.fret);
  const next = places[mod(at < 0 ? 0 : at + by, places.length)];
  return next
    ? {
        ...state,
        ...next,
        layout: state.layout.kind === 'single' ? { ...state.layout, string: next.string } : state.layout,
      }
    : state;
}

/** The key moved by half steps on the same string; off the end of the neck it goes on an octave away. */
export function transpose(state: ChartState, by: number, prefer: Spelling): ChartState {
  const { root } = chooseRoot(mod(pitchClass(note(state.root)) + by, 12), scaleOf(state), prefer);
  const neck = neckOf(state.instrument);
  const target = state.fret + by;
  const fret = target < 0 ? target + 12 : target > neck.frets ? target - 12 : target;
  return { ...state, root: noteName(root), fret };
}
