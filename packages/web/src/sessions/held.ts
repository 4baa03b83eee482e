import { type ChartDraft } from '@crow-ladder/contract';

const SEEDS = [0xdeadbeef, 0x41c6ce57] as const;
const PRIMES = [2654435761, 1597334677] as const;

/** 64 bits of a text, as two multiplicative hashes side by side: enough to tell the few drafts of one chart apart. */
function word(text: string): string {
  const hashes = [...SEEDS] as [number, number];
  for (let i = 0; i < text.length; i++)
    for (const n of [0, 1] as const) hashes[n] = Math.imul(hashes[n] ^ text.charCodeAt(i), PRIMES[n]);
  return hashes.map((h) => (h >>> 0).toString(36)).join('.');
}

/** What a draft holds, in a word, however it is looked at and in whatever order its parts are named. */
export const held = ({ name, tags, notes, state }: ChartDraft): string =>
  word(
    JSON.stringify([name, tags, notes, { ...state, front: null }], (_, part: unknown) =>
      part !== null && typeof part === 'object' && !Array.isArray(part)
        ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
        : part,
    ),
  );
