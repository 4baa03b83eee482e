/**
 * Remainder that is never negative.
 *
 * @example mod(-1, 12) // 11
 */
export const mod = (n: number, m: number): number => ((n % m) + m) % m;

/**
 * The greatest common divisor of whole numbers.
 *
 * @example gcd(12, 8) // 4
 */
export const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);
