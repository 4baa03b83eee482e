import { existsSync, readFileSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';

// Below a machine that is a guest of another one, its processors are taken away from time to time: a microphone that is played from a
// file then drops sound, and pages stand still. What is measured meanwhile says nothing of the application.

const TIMES = '/proc/stat';
/** Hundredths of a second of all processors until now, and those of them that were taken away (proc_stat(5): the eighth is `steal`). */
function processors(): { readonly all: number; readonly stolen: number } {
  if (!existsSync(TIMES)) return { all: 0, stolen: 0 };
  const times = readFileSync(TIMES, 'utf8').split('\n')[0]!.trim().split(/\s+/).slice(1, 9).map(Number);
  return { all: times.reduce((sum, it) => sum + it, 0), stolen: times[7] ?? 0 };
}

/** Begins to watch; tells what part of the processors was taken away since, from 0 to 1. */
export function takenAway(): () => number {
  const before = processors();
  return () => {
    const after = processors();
    return (after.stolen - before.stolen) / Math.max(1, after.all - before.all);
  };
}

/** So much of the processors may be taken away while something is measured. */
const QUIET = 0.03;
/** A machine that was busy gives its processors back when it has rested, in ms. */
const REST_MS = 15_000;
/** Measures until the processors were the machine's own meanwhile, whatever came out; of so many tries the quietest. */
export async function quietly<T extends { readonly stolen: number }>(
  measure: () => Promise<T>,
  tries = 8,
): Promise<T> {
  let best = await measure();
  for (let n = 1; n < tries && best.stolen > QUIET; n++) {
    await setTimeout(REST_MS);
    const again = await measure();
    if (again.stolen < best.stolen) best = again;
  }
  return best;
}
