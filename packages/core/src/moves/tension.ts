/**
 * Change of a string's tension with its pitch, as a share: the square of the frequency (Mersenne, *Harmonie universelle*, 1636).
 *
 * @example Math.round(100 * tensionChange(1)) // 12
 */
export const tensionChange = (halfSteps: number): number => 2 ** (halfSteps / 6) - 1;

/** Half steps above what a set was made for beyond which a string may break or strain the neck (common practice, no source). */
export const MOST_RAISED = 2;
/** Half steps below it beyond which a string rattles: it has lost more than a third of its tension. This project's own judgement. */
export const MOST_LOWERED = 4;

/** A string as it is retuned. */
export interface StringTension {
  readonly string: number;
  /** MIDI numbers before and after, and of the tuning that the set was made for. */
  readonly from: number;
  readonly to: number;
  readonly madeFor: number;
  /** Against the tuning that the set was made for, as a share. */
  readonly change: number;
  readonly caution: 'high' | 'slack' | null;
}

/** How to retune, and what it does to the strings. */
export interface Retuning {
  /** String 1 first. */
  readonly strings: readonly StringTension[];
  /** The numbers of the strings that change, in the order in which the neck's pull changes least at once. */
  readonly order: readonly number[];
  /** The largest change of the whole pull on the way, against where it began, in shares of one string's tension. */
  readonly most: number;
}

/**
 * Retuning from one tuning to another (MIDI numbers by string number, string 1 first). Every string is taken to pull alike in
 * the tuning that the set was made for. The order is the one in which the sum of the changes so far never gets further from
 * nothing than it must, found exactly over all subsets of the strings that change.
 *
 * @example retuning([40, 45, 50, 55, 59, 64], [38, 45, 50, 55, 59, 64], [40, 45, 50, 55, 59, 64]).strings.length // 6
 */
export function retuning(
  from: readonly number[],
  to: readonly number[],
  madeFor: readonly number[],
): Retuning {
  const pull = (midi: number, i: number): number => tensionChange(midi - madeFor[i]!);
  const strings = to.map((midi, i): StringTension => {
    const up = midi - madeFor[i]!;
    return {
      string: i + 1,
      from: from[i]!,
      to: midi,
      madeFor: madeFor[i]!,
      change: pull(midi, i),
      caution: up > MOST_RAISED ? 'high' : -up > MOST_LOWERED ? 'slack' : null,
    };
  });
  const changed = strings.filter((s) => s.from !== s.to);
  const by = changed.map((s) => pull(s.to, s.string - 1) - pull(s.from, s.string - 1));
  const n = changed.length;
  // For every set of strings done by now: the least that the furthest point on the way can be, and the string done last.
  const sums = new Float64Array(1 << n);
  const best = new Float64Array(1 << n).fill(Infinity);
  const last = new Int8Array(1 << n).fill(-1);
  best[0] = 0;
  for (let set = 1; set < 1 << n; set++)
    for (let i = 0; i < n; i++) {
      if (!(set & (1 << i))) continue;
      const before = set & ~(1 << i);
      sums[set] = sums[before]! + by[i]!;
      const furthest = Math.max(best[before]!, Math.abs(sums[set]!));
      if (furthest < best[set]! - 1e-12) {
        best[set] = furthest;
        last[set] = i;
      }
    }
  const order: number[] = [];
  for (let set = (1 << n) - 1; set; set &= ~(1 << last[set]!)) order.unshift(changed[last[set]!]!.string);
  return { strings, order, most: best[(1 << n) - 1]! };
}
