import { ok, type Result } from '@crow-ladder/core';
import { refuseAt } from './found.ts';
import { FILE_LIMITS } from './named.ts';

/** Marks at the beginning of a text that tell how it is encoded. */
const MARKS = [
  { bytes: [0xef, 0xbb, 0xbf], as: 'utf-8' },
  { bytes: [0xff, 0xfe], as: 'utf-16le' },
  { bytes: [0xfe, 0xff], as: 'utf-16be' },
] as const;
/** How much of a text is looked at to tell its encoding. */
const LOOK = 512;

/** UTF-16 without a mark: every other byte of what is nearly all Latin is 0. */
function wide(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const look = Math.min(bytes.length, LOOK) & ~1;
  if (look < 8) return null;
  const zeros = (from: 0 | 1): number => {
    let many = 0;
    for (let i = from; i < look; i += 2) if (bytes[i] === 0) many++;
    return many;
  };
  const [even, odd] = [zeros(0), zeros(1)];
  const most = look / 2;
  if (odd > 0.8 * most && even < 0.1 * most) return 'utf-16le';
  return even > 0.8 * most && odd < 0.1 * most ? 'utf-16be' : null;
}

/**
 * Bytes as text: by their mark, as UTF-16 where they look so, as UTF-8, else in the encoding that is named, or in that of older Western
 * programs. Code `file.size` where they are more than a file may have.
 *
 * @example textOf(new Uint8Array([233])).value // "é"
 */
export function textOf(bytes: Uint8Array, named?: string): Result<string> {
  if (bytes.length > FILE_LIMITS.bytes) return tooBig(bytes.length);
  const mark = MARKS.find(({ bytes: it }) => it.every((b, i) => bytes[i] === b));
  const as = mark?.as ?? wide(bytes);
  if (as) return ok(new TextDecoder(as).decode(bytes));
  try {
    return ok(new TextDecoder('utf-8', { fatal: true }).decode(bytes));
  } catch {
    return ok(older(named).decode(bytes));
  }
}
/** What older Western programs wrote. */
const OLDER = 'windows-1252';
function older(named = OLDER) {
  try {
    return new TextDecoder(named);
  } catch {
    return new TextDecoder(OLDER);
  }
}

const MEGA = 1024 * 1024;
/**
 * The refusal of a file that is too big.
 *
 * @example tooBig(6e6).error.code // "file.size"
 */
export const tooBig = (bytes: number): ReturnType<typeof refuseAt> =>
  refuseAt(
    'file.size',
    {},
    `the file has ${(bytes / MEGA).toFixed(1)} MB, and at most ${FILE_LIMITS.bytes / MEGA} can be read`,
  );

/** Text as bytes, as every format here is written. */
export const bytesOf = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
