import { densest, median } from '../arithmetic.ts';
import { type HeardNote } from './listener.ts';

/** A note that is asked for. */
export interface AskedNote {
  /** MIDI number. */
  readonly midi: number;
  /** When it is asked for and how long it lasts, in seconds. */
  readonly at: number;
  readonly length: number;
}

/** What became of a note that was asked for. */
export type Answered =
  | { readonly is: 'right' | 'wrong'; /** Which of the heard notes. */ readonly heard: number }
  | { readonly is: 'missed' };

/** How the clock of what was heard goes by that of what was asked for: heard = delay + tempo · asked, in seconds. */
export interface Fit {
  readonly delay: number;
  /** 1 is as asked; 1.1 a tenth slower. */
  readonly tempo: number;
}

export interface Alignment {
  /** What became of each note that was asked for. */
  readonly answered: readonly Answered[];
  /** Which of the heard notes nobody asked for. */
  readonly extra: readonly number[];
  readonly fit: Fit;
}

/** What an alignment costs: a note that is missed or extra, one of another pitch, and one that is a note's length away in time: of another pitch twice, as an extra note beside a missed one is likelier then. */
const COST = { missed: 1, extra: 1, wrong: 1.1, away: 1, wrongAway: 2 };
/** A note counts as at least so long, in seconds: no hand is that even. */
const LEAST_LENGTH = 0.12;

/**
 * What it costs to take a heard note for one that was asked for; Infinity where it lies more than a note's length away. Without a fit only
 * the pitch counts.
 *
 * @example pairCost({ midi: 57, at: 0, length: 0.5 }, { midi: 57, at: 0.1 }, { delay: 0.1, tempo: 1 }) // 0
 */
export function pairCost(asked: AskedNote, heard: Pick<HeardNote, 'midi' | 'at'>, fit: Fit | null): number {
  const pitch = asked.midi === heard.midi ? 0 : COST.wrong;
  if (!fit) return pitch;
  const away =
    Math.abs(heard.at - fit.delay - fit.tempo * asked.at) /
    (fit.tempo * Math.max(asked.length, LEAST_LENGTH));
  return away > 1 ? Infinity : pitch + (pitch ? COST.wrongAway : COST.away) * away;
}

/** How often a fit and its pairs are found anew. */
const ROUNDS = 2;

/** Which heard note each asked one is, least cost in all, in order; null is missed. */
function paired(
  asked: readonly AskedNote[],
  heard: readonly Pick<HeardNote, 'midi' | 'at'>[],
  fit: Fit | null,
): readonly (number | null)[] {
  const wide = heard.length + 1;
  const costs = new Float64Array((asked.length + 1) * wide);
  for (let j = 1; j < wide; j++) costs[j] = j * COST.extra;
  for (let i = 1; i <= asked.length; i++)
    for (let j = 0; j < wide; j++) {
      let least = costs[(i - 1) * wide + j]! + COST.missed;
      if (j > 0) {
        least = Math.min(least, costs[i * wide + j - 1]! + COST.extra);
        least = Math.min(least, costs[(i - 1) * wide + j - 1]! + pairCost(asked[i - 1]!, heard[j - 1]!, fit));
      }
      costs[i * wide + j] = least;
    }
  const of: (number | null)[] = Array.from(asked, () => null);
  let [i, j] = [asked.length, heard.length];
  while (i > 0 && j > 0) {
    const cost = costs[i * wide + j]!;
    if (cost === costs[(i - 1) * wide + j - 1]! + pairCost(asked[i - 1]!, heard[j - 1]!, fit)) {
      of[--i] = --j;
    } else if (cost === costs[(i - 1) * wide + j]! + COST.missed) i--;
    else j--;
  }
  return of;
}

/** How far a player may be behind or before the click in which no delay is known, in seconds, and how close notes of one delay lie. */
const REACH = { least: -0.4, most: 0.9, close: 0.06 };

/** The constant delay that brings most notes of the right pitch near their times; the least one where there are several. */
function delayOf(asked: readonly AskedNote[], heard: readonly Pick<HeardNote, 'midi' | 'at'>[]): number {
  const all: number[] = [];
  for (const a of asked)
    for (const h of heard)
      if (a.midi === h.midi && h.at - a.at >= REACH.least && h.at - a.at <= REACH.most) all.push(h.at - a.at);
  all.sort((a, b) => a - b);
  return median(
    densest(
      all,
      REACH.close,
      (delay) => delay,
      (many) => Math.abs(median(many)),
    ),
  );
}

/** Delay and tempo of a player of his own, from pairs: the median of slopes, after Theil and Sen. */
function fitOf(pairs: readonly (readonly [asked: number, heard: number])[]): Fit {
  const slopes = pairs.flatMap(([a, h], i) =>
    pairs.slice(i + 1).flatMap(([b, g]) => (b > a && g > h ? [(g - h) / (b - a)] : [])),
  );
  const tempo = slopes.length ? median(slopes) : 1;
  return { tempo, delay: median(pairs.map(([a, h]) => h - tempo * a)) };
}

/**
 * What became of what was asked for: the least-cost alignment in order, where a note is right, of another pitch, missed or extra, and
 * distance in time costs too. `to` says whose time was kept: that of a click, which leaves a constant delay to be found, or the player's
 * own, of which the tempo is found too.
 *
 * @example aligned([{ midi: 57, at: 0, length: 1 }], [{ midi: 57, at: 0.2 }], 'click').answered // [{"is":"right","heard":0}]
 */
export function aligned(
  asked: readonly AskedNote[],
  heard: readonly Pick<HeardNote, 'midi' | 'at'>[],
  to: 'click' | 'own',
): Alignment {
  const fitted = (of: readonly (number | null)[]): Fit =>
    fitOf(
      of.flatMap((j, i) =>
        j !== null && heard[j]!.midi === asked[i]!.midi ? [[asked[i]!.at, heard[j]!.at] as const] : [],
      ),
    );
  let fit: Fit =
    to === 'click' ? { delay: delayOf(asked, heard), tempo: 1 } : fitted(paired(asked, heard, null));
  let of = paired(asked, heard, fit);
  // Who rushes or drags is followed.
  for (let round = 0; round < ROUNDS; round++) {
    fit = fitted(of);
    of = paired(asked, heard, fit);
  }
  const taken = new Set(of);
  return {
    answered: of.map((j, i) =>
      j === null ? { is: 'missed' } : { is: heard[j]!.midi === asked[i]!.midi ? 'right' : 'wrong', heard: j },
    ),
    extra: heard.flatMap((_, j) => (taken.has(j) ? [] : [j])),
    fit,
  };
}
