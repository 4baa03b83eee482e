import { type Spot } from '../place.ts';
import { type Arrive, type Run } from '../run/run.ts';
import { type Plucked, TAKES, type VoiceName } from './pluck.ts';

/** What an instrument's strings are like: strings with a number above `plain` are wound. */
export interface Strung {
  readonly voice: VoiceName;
  readonly plain: number;
}

/**
 * What a note sounds like on its string, as it is struck.
 *
 * @example soundOf({ voice: 'guitar', plain: 3 }, { string: 6, fret: 5, midi: 45 }, 'pick', 0).wound // true
 */
export const soundOf = (
  { voice, plain }: Strung,
  { string, fret, midi }: Pick<Spot, 'string' | 'fret' | 'midi'>,
  arrive: Arrive,
  take: number,
): Plucked => ({ midi, voice, fret, wound: string > plain, arrive, take });

/**
 * What each note of a run sounds like: on its string, as it is struck, and no two in a row alike.
 *
 * @example soundsOf(run, { voice: 'guitar', plain: 3 })[0].fret // 5
 */
export const soundsOf = (run: Run, strung: Strung): readonly Plucked[] =>
  run.map(({ spot, arrive }, i) => soundOf(strung, spot, arrive, i % TAKES));

/** How long a slide takes, how soon a slurred note is there, and the time constant with which a string is damped, in seconds. */
export const STRING_TIMES = { slide: 0.06, slur: 0.008, damp: 0.02 } as const;
/** How loud notes are, by how they are reached, beside those that are picked. */
export const LOUD: Readonly<Record<Arrive, number>> = {
  pick: 1,
  tap: 0.85,
  hammer: 0.7,
  pull: 0.65,
  slide: 0.65,
};

/**
 * By how many frets the finger comes to note i of a run, negative from above; 0 where it does not slide.
 *
 * @example slidFrom(run, 1) // 0
 */
export const slidFrom = (run: Run, i: number): number => {
  const [before, step] = [run[i - 1], run[i]];
  return before && step?.arrive === 'slide' ? step.spot.midi - before.spot.midi : 0;
};
