import { type NumberingSchool, resolveScale } from '@crow-ladder/core';
import { type RoundQuery } from './practice.ts';
import { COMFORTABLE_SPAN_MM, type FingeringSchool } from '@crow-ladder/core/run';

/** A tempo that something is to be clean at, by a day. */
export interface TempoGoal extends RoundQuery {
  readonly name: string;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly by: string;
}

export const THEMES = ['system', 'paper', 'stage'] as const;
export const LABELS = ['degree', 'note', 'finger', 'fret', 'solfa', 'order', 'none'] as const;

/** What a player prefers; kept on the server. */
export interface Settings {
  readonly theme: (typeof THEMES)[number];
  readonly spelling: 'sharps' | 'flats';
  /** `usual`: what players use for the scale at hand. */
  readonly numbering: 'usual' | NumberingSchool;
  readonly fingering: FingeringSchool;
  /** Comfortable span between index and little finger, in mm. */
  readonly spanMm: number;
  readonly labels: (typeof LABELS)[number];
  readonly stringOnTop: 'high' | 'low';
  /** `instrument`: as the instrument is strung. */
  readonly handed: 'instrument' | 'right' | 'left';
  readonly frets: 'true' | 'even';
  readonly colours: 'plain' | 'degree';
  /** Whether a single letter or sign on the keyboard does something. */
  readonly letterKeys: boolean;
  /** Hints that were closed or done, each for good. */
  readonly seen: readonly string[];
  /** The fewest seconds in which a window of the fourths pattern was laid in the drill; null before the first. */
  readonly windowRecord: number | null;
  /** How many minutes a week the player wants to practise; null where none are wanted. */
  readonly weekMinutes: number | null;
  readonly tempoGoals: readonly TempoGoal[];
  readonly favourites: readonly string[];
  /** Scales of the player's own that bear a name. */
  readonly ownScales: readonly OwnScale[];
}

/** A scale of the player's own; its id spells it. */
export interface OwnScale {
  readonly id: string;
  readonly name: string;
}

export const DEFAULT_SETTINGS: Settings = {
  theme: 'system',
  spelling: 'sharps',
  numbering: 'usual',
  fingering: 'onePerFret',
  spanMm: COMFORTABLE_SPAN_MM,
  labels: 'degree',
  stringOnTop: 'high',
  handed: 'instrument',
  frets: 'true',
  colours: 'plain',
  letterKeys: true,
  seen: [],
  windowRecord: null,
  weekMinutes: null,
  tempoGoals: [],
  favourites: [],
  ownScales: [],
};

/** The id of today for a scale's id of any time. */
const currentId = (id: string): string => {
  const scale = resolveScale(id);
  return scale.ok ? scale.value.id : id;
};
const once = <T>(all: readonly T[], id: (one: T) => string): readonly T[] =>
  all.filter((it, i) => all.findIndex((other) => id(other) === id(it)) === i);

/** Settings as kept, with defaults for those that did not exist then, and the ids of today. */
export function settingsFrom(kept: Partial<Settings>): Settings {
  const all = { ...DEFAULT_SETTINGS, ...kept };
  const known = Object.keys(DEFAULT_SETTINGS) as (keyof Settings)[];
  return {
    ...(Object.fromEntries(known.map((k) => [k, all[k]])) as unknown as Settings),
    favourites: once(all.favourites.map(currentId), (id) => id),
    ownScales: once(
      all.ownScales.map((o) => ({ ...o, id: currentId(o.id) })),
      (o) => o.id,
    ),
  };
}
