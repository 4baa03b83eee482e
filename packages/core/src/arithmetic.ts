/** Remainder that is never negative. */
export const mod = (n: number, m: number): number => ((n % m) + m) % m;

/** The greatest common divisor of whole numbers. */
export const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);
