import { type ChartState, isProgression, type Progression } from '@crow-ladder/contract';
import {
  CATALOGUE,
  classesOf,
  degreeName,
  type Key,
  mod,
  noteName,
  type PitchClass,
  pitchClass,
  pretty,
  refuse,
  resolveScale,
  type Result,
  scaleById,
  type Scale,
  type ScaleFamily,
} from '@crow-ladder/core';
import {
  type Chord,
  chordId,
  chordUnder,
  type LineSlot,
  type ProgressionChord,
  progressionClasses,
  scaleOver,
  type ScaleOver,
  scalesOver,
  type Slot,
  slotsOf,
} from '@crow-ladder/core/chords';
import { layOut } from '@crow-ladder/core/layouts';
import { changesSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { keyAbove } from './laid.ts';
import { type Model } from './model.ts';

const MAJOR = scaleById('major')!;

/** A chord at its time, with the scale over it. */
export interface Over extends Slot {
  readonly name: string;
  readonly classes: readonly PitchClass[];
  readonly over: ScaleOver;
  /** Whether the player chose the scale. */
  readonly chosen: boolean;
}
/** What is played over. */
export interface PlayedOver {
  readonly part: Progression;
  readonly slots: readonly Over[];
}

/** A chord of a progression as it is written in the chart's key. */
export function chordNamed({ key }: Model, { above, suffix, bass }: ProgressionChord): string {
  const root = keyAbove(key, MAJOR, above).root;
  const low = bass === null ? '' : `/${noteName(keyAbove({ root, scale: MAJOR }, MAJOR, bass).root)}`;
  return pretty(noteName(root)) + pretty(suffix) + pretty(low);
}
/** A progression as it is typed, in the chart's key. */
export const progressionText = (model: Model, { bars }: Pick<Progression, 'bars'>): string =>
  bars
    .map((bar, i) =>
      JSON.stringify(bar) === JSON.stringify(bars[i - 1])
        ? '%'
        : bar.map((chord) => chordNamed(model, chord)).join(' '),
    )
    .join(' | ');

const keyFor = weakMapMemoize((key: Key, scale: Scale, above: number) => keyAbove(key, scale, above));
/** How far the hand goes to the nearest position of a key, in frets, in the chart's layout; far where it has none. */
const moveTo = weakMapMemoize(({ neck, state, front }: Model, key: Key): number => {
  const laid = layOut(neck, key, state.layout);
  const here = front?.position.lowFret ?? 0;
  return laid.ok ? Math.min(...laid.value.map((p) => Math.abs(p.lowFret - here))) : Infinity;
});
/** Scales that are offered over a chord; what else there is is found by name in Compare. */
const OFFERED: readonly ScaleFamily[] = [
  'major modes',
  'pentatonic',
  'blues',
  'melodic minor modes',
  'harmonic minor modes',
  'symmetric',
];
/** Those of them that a chord gets where nothing was chosen, if one holds it. */
const PLAIN: ScaleFamily = 'major modes';
/** How many scales are looked at for how far the hand goes to them. */
const NEAREST = 12;

/** Scales over a chord, from the chart's root and from the chord's own, those that fit best first. */
export const fitting = weakMapMemoize((model: Model, chord: ProgressionChord): readonly ScaleOver[] => {
  const { key } = model;
  const classes = progressionClasses(chord, pitchClass(key.root));
  const roots = [...new Set([0, chord.above])];
  const keys = [
    key,
    ...roots.flatMap((above) =>
      CATALOGUE.filter((s) => OFFERED.includes(s.family) && (above > 0 || s.id !== key.scale.id)).map(
        (scale) => keyFor(key, scale, above),
      ),
    ),
  ];
  const first = scalesOver(classes, keys, () => 0).slice(0, NEAREST);
  return scalesOver(
    classes,
    first.map((it) => it.key),
    (it) => moveTo(model, it),
  );
});

/** The first one that holds the whole chord and is a mode of the major scale; else the first one. */
const plainest = (found: readonly ScaleOver[]): ScaleOver =>
  found.find(({ key, missing }) => key.scale.family === PLAIN && !missing.length) ?? found[0]!;

/** How far a key lies above the chart's, in half steps. */
export const aboveOf = (model: Model, { root }: Key): number =>
  mod(pitchClass(root) - pitchClass(model.key.root), 12);

const playedOverFor = weakMapMemoize((model: Model, part: Progression): PlayedOver => {
  const over = (chord: ProgressionChord, classes: readonly PitchClass[]): Pick<Over, 'over' | 'chosen'> => {
    const chosen = part.scales[chordId(chord)];
    const scale = chosen && resolveScale(chosen.scale);
    if (!chosen || !scale?.ok) {
      const own = scaleOver(classes, model.key, 0);
      return { over: own.missing.length ? plainest(fitting(model, chord)) : own, chosen: false };
    }
    const key = keyFor(model.key, scale.value, chosen.above);
    return { over: scaleOver(classes, key, moveTo(model, key)), chosen: true };
  };
  const known = new Map<string, Pick<Over, 'over' | 'chosen' | 'classes' | 'name'>>();
  const slots = slotsOf(part.bars, part.beats).map((slot): Over => {
    const id = chordId(slot.chord);
    const classes = progressionClasses(slot.chord, pitchClass(model.key.root));
    const it = known.get(id) ?? {
      name: chordNamed(model, slot.chord),
      classes,
      ...over(slot.chord, classes),
    };
    known.set(id, it);
    return { ...slot, ...it };
  });
  return { part, slots };
});
/** What is played over in a chart; null where nothing is. */
export function playedOver(model: Model): PlayedOver | null {
  const part = model.state.chords.find(isProgression);
  return part ? playedOverFor(model, part) : null;
}

/** Quarter notes a bar, where nothing else is said. */
export const USUAL_BEATS = 4;
/** One chord alone, as a progression of one bar. */
export const vampOn = weakMapMemoize((model: Model, { root, degrees, suffix }: Chord): PlayedOver => {
  const above = mod(pitchClass(root) - pitchClass(model.key.root), 12);
  const bars = [[{ above, bass: null, degrees: degrees.map(degreeName), suffix: suffix ?? '' }]];
  return playedOverFor(model, { type: 'progression', beats: USUAL_BEATS, bars, scales: {} });
});
/** The chord that is held under the chart's scale; null where it has none. */
export const ownChord = weakMapMemoize((model: Model): PlayedOver | null => {
  const chord = chordUnder(model.key);
  return chord && vampOn(model, chord);
});

/** Another progression in place of the one that was; null takes it away. What else is kept of chords stays. */
export const withProgression = (
  state: ChartState,
  progression: Omit<Progression, 'type'> | null,
): ChartState => ({
  ...state,
  chords: [
    ...(progression ? [{ type: 'progression', ...progression } as const] : []),
    ...state.chords.filter((part) => !isProgression(part)),
  ],
});

/** What a line through the progression plays over each chord, so many notes a beat. */
export const lineSlots = ({ part, slots }: PlayedOver, perBeat: number): readonly LineSlot[] =>
  slots.map(({ at, beats, classes, over }) => {
    const from = Math.round(at * perBeat);
    const notes = Math.round((at + beats) * perBeat) - from;
    const bar = part.beats * perBeat;
    return {
      notes,
      firsts: Array.from({ length: notes }, (_, i) => i).filter((i) => i === 0 || (from + i) % bar === 0),
      tones: classes,
      scale: classesOf(over.key),
    };
  });

/** What stands for the line through the progression among all that can be drilled. */
export const CHANGES = 'changes';
/** What stands for the chord of the scale itself among all that can sound under a drill. */
export const OWN = 'own';
/** The line through the progression, inside the position in front. Codes `line.room`, `chord.none`. */
export const changesOf = weakMapMemoize((model: Model, perBeat: number): Result<Source> => {
  const { neck, key, front, hand } = model;
  const over = playedOver(model);
  if (!over || !front) return refuse('chord.none', 'This chart has no progression: type one in Chords.');
  return changesSource(neck, key, front.position, hand, lineSlots(over, perBeat));
});
/** The chord over which a beat of the progression lies, counted from 0 and going round. */
export function slotAt({ slots }: PlayedOver, beat: number): number {
  const last = slots.at(-1)!;
  const within = mod(beat, last.at + last.beats);
  return slots.findLastIndex((slot) => slot.at <= within + 1e-6);
}
