import { mean, median } from '../arithmetic.ts';
import { movesAt, QUARTER, type Run } from '../run/index.ts';
import { BENT_CENTS, type NoteVerdict } from './verdicts.ts';

/** A string crossing or a shift that came later than the notes around it. */
export interface LateMove {
  /** The note that it leads to, from 0. */
  readonly step: number;
  readonly move: 'crossing' | 'shift';
  /** By how many ms more than the other notes. */
  readonly ms: number;
}

/** What is said of a round that was heard. */
export interface RoundSummary {
  readonly asked: number;
  readonly right: number;
  readonly wrong: number;
  readonly missed: number;
  readonly extra: number;
  /** How late its right notes were on the whole, in ms, and how far they lie around that (standard deviation); null of fewer than two. */
  readonly mean: number | null;
  readonly spread: number | null;
  /** How much louder the notes on the beat were than those between, in dB; null where there are none of a sort. */
  readonly accent: number | null;
  /** How sharp the right notes were in the middle, in cents; null of none. */
  readonly cents: number | null;
  /** The crossings and shifts that were late, the latest first. */
  readonly lateMoves: readonly LateMove[];
  /** The bends that did not arrive where they should, by their notes from 0, and how far off they were, in cents. */
  readonly offBends: readonly { readonly step: number; readonly cents: number }[];
  /** Every note right, none too many, and nine of ten in time or near it: this project's own judgement. */
  readonly clean: boolean;
}

/** So many of its notes are in time, or near it, in a clean round. */
const CLEAN = 0.9;

/**
 * What is said of a round: of each note of the run its verdict, and how many notes came that nobody asked for.
 *
 * @example summaryOf(run, run.map(() => ({ is: 'missed' })), 0).clean // false
 */
export function summaryOf(run: Run, verdicts: readonly NoteVerdict[], extra: number): RoundSummary {
  const played = verdicts.flatMap((v, step) => (v.is === 'right' ? [{ ...v, step }] : []));
  const count = (is: NoteVerdict['is']): number => verdicts.filter((v) => v.is === is).length;
  const offs = played.map((v) => v.off);
  const on = offs.length > 1 ? mean(offs) : null;
  const levels = (beat: boolean): readonly number[] =>
    played.filter(({ step }) => (run[step]!.start % QUARTER === 0) === beat).map((v) => v.level);
  const [strong, weak] = [levels(true), levels(false)];
  const moveTo = (step: number): LateMove['move'] | null =>
    movesAt(run, step)
      ? 'shift'
      : step > 0 && run[step]!.spot.string !== run[step - 1]!.spot.string
        ? 'crossing'
        : null;
  const usual = played.flatMap(({ step, off }) => (moveTo(step) ? [] : [off]));
  const least = median(usual);
  const lateMoves = played.flatMap(({ step, off, within }): readonly LateMove[] => {
    const move = moveTo(step);
    const ms = off - least;
    return move && ms > within ? [{ step, move, ms }] : [];
  });
  const near = played.filter((v) => v.timing === 'in time' || v.near).length;
  return {
    asked: verdicts.length,
    right: played.length,
    wrong: count('wrong'),
    missed: count('missed'),
    extra,
    mean: on,
    spread: on === null ? null : Math.sqrt(mean(offs.map((o) => (o - on) ** 2))),
    accent: strong.length && weak.length ? mean(strong) - mean(weak) : null,
    cents: played.length ? median(played.map((v) => v.cents)) : null,
    lateMoves: lateMoves.sort((a, b) => b.ms - a.ms),
    offBends: played.flatMap(({ step, bent }) =>
      bent !== null && Math.abs(bent) > BENT_CENTS ? [{ step, cents: bent }] : [],
    ),
    clean:
      verdicts.length > 0 &&
      played.length === verdicts.length &&
      extra === 0 &&
      near >= CLEAN * played.length,
  };
}
