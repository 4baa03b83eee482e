/**
 * Remainder that is never negative.
 *
 * @example mod(-1, 12) // 11
 */
export const mod = (n: number, m: number): number => ((n % m) + m) % m;

/**
 * Half steps from one pitch or pitch class to another one's class, the shorter way: −5 to 6.
 *
 * @example shorterWay(11, 1) // 2
 */
export const shorterWay = (from: number, to: number): number => mod(to - from + 5, 12) - 5;

/**
 * The greatest common divisor of whole numbers.
 *
 * @example gcd(12, 8) // 4
 */
export const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);

/**
 * The number in the middle of some, the mean of two where they are even in number; 0 of none.
 *
 * @example median([3, 1, 2]) // 2
 */
export function median(of: readonly number[]): number {
  const sorted = [...of].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  if (sorted.length % 2) return sorted[half]!;
  return sorted.length ? (sorted[half - 1]! + sorted[half]!) / 2 : 0;
}

/**
 * The mean of some numbers; NaN of none.
 *
 * @example mean([1, 2, 6]) // 3
 */
export const mean = (of: readonly number[]): number => of.reduce((sum, x) => sum + x, 0) / of.length;

/**
 * The most of some things whose values, rising, lie within a width of each other; where there are several such, the one that costs least,
 * and the first of those.
 *
 * @example densest([1, 5, 6, 7, 20], 2, (x) => x) // [5,6,7]
 */
export function densest<T>(
  of: readonly T[],
  width: number,
  valueOf: (it: T) => number,
  costOf: (many: readonly T[]) => number = () => 0,
): readonly T[] {
  let best: readonly T[] = [];
  for (let from = 0, to = 0; from < of.length; from++) {
    while (to < of.length && valueOf(of[to]!) <= valueOf(of[from]!) + width) to++;
    if (to - from < best.length) continue;
    const here = of.slice(from, to);
    if (here.length > best.length || costOf(here) < costOf(best)) best = here;
  }
  return best;
}
