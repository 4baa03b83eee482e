import { type Instrument } from '../instrument.ts';
import { fittedTo } from '../layouts/registry.ts';
import { type Neck, neckOf, onNeck, pitchAt, spanOn } from '../neck.ts';
import { pitchClass } from '../note.ts';
import { type Spot } from '../place.ts';
import { mod } from '../arithmetic.ts';
import { ok, refuse } from '../result.ts';
import { chooseRoot } from '../root.ts';
import { type Key } from '../scale.ts';
import { keyOf, ownKeyOf } from './mode.ts';
import {
  defineMove,
  lostIn,
  type MovedSpot,
  nearestTo,
  rootsAmong,
  type Moving,
  type Outcome,
  rootAfter,
  type Said,
  spotAt,
} from './move.ts';

/**
 * Which string of another instrument stands for each of this one's, by string number; null where there is none. Strings keep
 * their order, so one number says it: how many a string's number grows by. As many strings as can be meet, as near in pitch as
 * they can be.
 *
 * @example stringsMatched(neck, neckOf(instrumentOf(tuningById('seven-standard')))) // [1,2,3,4,5,6]
 */
export function stringsMatched(from: Neck, to: Neck): readonly (number | null)[] {
  const [a, b] = [from.open.length, to.open.length];
  const ways = Array.from({ length: Math.abs(a - b) + 1 }, (_, i) => (a > b ? -i : i));
  const far = (by: number): number =>
    from.open.reduce((sum, midi, i) => sum + Math.abs((to.open[i + by] ?? midi) - midi), 0);
  const [by] = ways.sort((x, y) => far(x) - far(y) || Math.abs(x) - Math.abs(y));
  return from.open.map((_, i) => (to.open[i + by!] === undefined ? null : i + by! + 1));
}

/** Strings whose notes lie outside a hand of so many frets, put where it covers most of them, near where it was. */
function beyondHand(neck: Neck, spots: readonly MovedSpot[], low: number, width: number): readonly Said[] {
  const by = new Map<number, number[]>();
  for (const { to } of spots)
    if (to && to.fret > 0) by.set(to.string, [...(by.get(to.string) ?? []), to.fret]);
  const strings = [...by].map(([string, frets]) => ({
    string,
    low: Math.min(...frets),
    high: Math.max(...frets),
  }));
  const covers = (hand: number): number =>
    strings.filter((s) => s.low >= hand && s.high <= hand + width).length;
  const hands = [...new Set(strings.flatMap((s) => [s.low, s.high - width]))].filter((h) => h > 0);
  const [hand] = [low, ...hands].sort(
    (a, b) => covers(b) - covers(a) || Math.abs(a - low) - Math.abs(b - low),
  );
  return strings
    .filter((s) => s.low < hand! || s.high > hand! + width)
    .sort((a, b) => b.string - a.string)
    .map(({ string, low: first, high: last }): Said => {
      const [under, over] = [Math.max(0, hand! - first), Math.max(0, last - hand! - width)];
      const mm = (under ? spanOn(neck, first, hand!) : 0) + (over ? spanOn(neck, hand! + width, last) : 0);
      return { is: 'beyond', string, hand: hand!, frets: under + over, mm };
    });
}

/** How each string that stays was retuned, and where its marks go where the notes are kept. */
function retuned(
  from: Neck,
  to: Neck,
  strings: readonly (number | null)[],
  kept: 'notes' | 'grip',
): readonly Said[] {
  return strings.flatMap((string, i): Said[] => {
    const halfSteps = string === null ? 0 : to.open[string - 1]! - from.open[i]!;
    return halfSteps
      ? [{ is: 'retuned', string: string!, halfSteps, marks: kept === 'notes' ? -halfSteps : 0 }]
      : [];
  });
}

/**
 * The same notes on another tuning or instrument: the marks of a string raised by n half steps move n frets down. Every pitch is
 * kept on its string, or listed as lost.
 *
 * @example keepNotes(moving, instrumentOf(tuningById('drop-d'))).root // {"string":6,"fret":7}
 */
export function keepNotes(moving: Moving, instrument: Instrument): Outcome {
  const { neck, key, root, layout, front } = moving;
  const to = neckOf(instrument);
  const strings = stringsMatched(neck, to);
  const spots = front.held.map((from): MovedSpot => {
    const string = strings[from.string - 1];
    if (!string) return { from, to: null };
    const place = { string, fret: from.midi - to.open[string - 1]! };
    return {
      from,
      to: onNeck(to, place.string, place.fret) ? { ...spotAt(to, key, place), degree: from.degree } : null,
    };
  });
  const wishedString = strings[root.string - 1] ?? Math.min(root.string, to.open.length);
  const wished = {
    string: wishedString,
    fret: pitchAt(neck, root.string, root.fret) - to.open[wishedString - 1]!,
  };
  const says = [
    ...retuned(neck, to, strings, 'notes'),
    ...lostIn(spots),
    ...beyondHand(to, spots, front.lowFret, Math.max(3, front.highFret - front.lowFret)),
  ];
  return {
    instrument,
    key,
    root: rootAfter(to, key, spots, wished),
    layout: fittedTo(layout, to.open.length),
    spots,
    says,
  };
}

/**
 * The same frets on another tuning or instrument: every fret is kept on a string that there is, and the notes change. What they make
 * is named from the root's name, whose place then moves, and from the root's place, whose name then changes; the first that is a scale
 * of the catalogue is the key. Where neither is, it is one of its own from the root's place.
 *
 * @example keepGrip(moving, { ...moving.instrument, tuning: [38, 45, 50, 55, 57, 62] }, 'flats').key.scale.id // "phrygian"
 */
export function keepGrip(moving: Moving, instrument: Instrument, prefer: 'sharps' | 'flats'): Outcome {
  const { neck, key, root, layout, front } = moving;
  const to = neckOf(instrument);
  const strings = stringsMatched(neck, to);
  const placed = front.held.map((from) => {
    const string = strings[from.string - 1];
    return { from, to: string && onNeck(to, string, from.fret) ? { string, fret: from.fret } : null };
  });
  const rootString = strings[root.string - 1] ?? Math.min(root.string, to.open.length);
  const place = { string: rootString, fret: Math.min(root.fret, to.frets) };
  const pc = mod(pitchAt(to, place.string, place.fret), 12);
  const pitches = placed.flatMap((s) => (s.to ? [pitchAt(to, s.to.string, s.to.fret)] : []));
  const spotsIn = (k: Key) =>
    placed.map((s): MovedSpot => ({ from: s.from, to: s.to && spotAt(to, k, s.to) }));
  const here = pc === pitchClass(key.root) ? key.root : chooseRoot(pc, key.scale, prefer).root;
  const readings = (here === key.root ? [here] : [key.root, here]).flatMap((name) => {
    const made = keyOf(name, pitches);
    return made
      ? [{ key: made, root: name === here ? place : nearestTo(rootsAmong(spotsIn(made)), place)! }]
      : [];
  });
  const first = readings[0] ?? {
    key: ownKeyOf(here, pitches) ?? { root: here, scale: key.scale },
    root: place,
  };
  const spots = spotsIn(first.key);
  const says: readonly Said[] = [
    ...retuned(neck, to, strings, 'grip'),
    ...readings.map((r, i): Said => ({ is: 'scale', ...r, kept: i === 0 })),
    ...(readings.length ? [] : [{ is: 'scale', key: null, root: place, kept: false } as const]),
    ...lostIn(spots),
  ];
  return { instrument, ...first, layout: fittedTo(layout, to.open.length), spots, says };
}

/**
 * Pitches of an outcome, note by note, that were not there before.
 *
 * @example gained(toRelative(moving, A)).length // 0
 */
export const gained = ({ spots }: Outcome): readonly Spot[] => {
  const before = new Set(spots.flatMap(({ from }) => (from ? [mod(from.midi, 12)] : [])));
  return spots.flatMap(({ to }) => (to && !before.has(mod(to.midi, 12)) ? [to] : []));
};

/** Another tuning or instrument, with the notes kept or the grip. */
export const tuningMove = defineMove<{ readonly to: string; readonly keep: 'notes' | 'grip' }>({
  kind: 'tuning',
  name: 'Tuning or instrument',
  to: 'another tuning',
  asks: '',
  options: {
    to: { type: 'word', label: 'To the tuning or instrument', picks: 'instrument' },
    keep: {
      type: 'choice',
      label: 'What stays',
      apart: true,
      values: [
        { id: 'notes', name: 'Keep the notes' },
        { id: 'grip', name: 'Keep the grip' },
      ],
    },
  },
  usual: () => ({ to: '', keep: 'notes' }),
  move: (moving, { to, keep }, { prefer, instrument }) => {
    if (!to) return null;
    const on = instrument(to);
    if (!on) return refuse('move.instrument', 'This instrument is not there any more: choose another one.');
    return ok(keep === 'notes' ? keepNotes(moving, on) : keepGrip(moving, on, prefer));
  },
});
