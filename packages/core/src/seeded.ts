/**
 * Numbers from 0 to below 1 that look like chance and are the same for a seed: a multiplicative congruential generator (Park and Miller, 1988).
 *
 * @example seeded(1)() === seeded(1)() // true
 */
export function seeded(seed: number): () => number {
  let state = (seed % 2_147_483_646) + 1;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}
