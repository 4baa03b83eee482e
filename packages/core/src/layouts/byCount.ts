import { LIMITS } from '../instrument.ts';
import { gcd } from '../arithmetic.ts';
import { list, numberWord } from '../words.ts';
import { type Scale } from '../scale.ts';
import { defineLayout } from './layout.ts';
import { fitting, walksAlong } from './walk.ts';

/** Notes per string that a scale of this size is usually laid out with. */
export const usualCount = (scale: Scale): number =>
  scale.degrees.length >= 12 ? 4 : scale.degrees.length >= 7 ? 3 : 2;

export const NOTES_PER_STRING = { min: 1, max: 6 } as const;

/** `counts`: notes on each string from the lowest; the last one goes on for the strings above. */
export const byCount = defineLayout<{ readonly counts: readonly number[] }>({
  kind: 'count',
  name: 'notes per string',
  rule: 'A fixed number of notes stays on each string.',
  complete: true,
  options: {
    counts: {
      type: 'wholes',
      ...NOTES_PER_STRING,
      most: LIMITS.strings[1],
      label: 'Notes on each string',
      hint: 'One number for all strings, or one for each from the lowest.',
    },
  },
  place: (neck, key, { counts }) => {
    const take = (_: number, place: number): number => counts[Math.min(place, counts.length - 1)]!;
    return fitting(walksAlong(neck, key, take), `${counts.join(' ')} notes per string`);
  },
  usual: ({ scale }) => ({ counts: [usualCount(scale)] }),
  bySize: true,
  said: ({ counts }) =>
    counts.length === 1
      ? `${numberWord(counts[0]!)} note${counts[0] === 1 ? '' : 's'} per string`
      : `${list(counts)} notes on the strings`,
  repeats: ({ steps }, { counts }) => {
    if (counts.length > 1) return null;
    const [n, count] = [steps.length, counts[0]!];
    return {
      starts: Array.from({ length: n / gcd(n, count) }, (_, i) => (i * count) % n),
      takes: steps.map(() => count),
    };
  },
});
