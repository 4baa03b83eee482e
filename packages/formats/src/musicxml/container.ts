import { unzipSync } from 'fflate';
import { ok, type Result } from '@crow-ladder/core';
import { textOf } from '../bytes.ts';
import { refuseAt } from '../found.ts';
import { FILE_LIMITS } from '../named.ts';

const LIST = 'META-INF/container.xml';
const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** One file of a container; nothing where it has none of that name, or one that would be too big. */
const one = (bytes: Uint8Array, name: string): Uint8Array | undefined =>
  unzipSync(bytes, { filter: (file) => file.name === name && file.originalSize <= FILE_LIMITS.bytes })[name];

/** What is in a compressed MusicXML file (.mxl): the score that its container names first; any other file as it is. Code `xml.container`. */
export function unpacked(bytes: Uint8Array): Result<Uint8Array> {
  if (!isZip(bytes)) return ok(bytes);
  const no = (said: string) => refuseAt('xml.container', {}, said);
  try {
    const list = one(bytes, LIST);
    const text = list && textOf(list);
    const path = text?.ok
      ? /<rootfile\b[^>]*\bfull-path\s*=\s*["']([^"']+)["']/u.exec(text.value)?.[1]
      : undefined;
    if (path === undefined) return no('the container names no score');
    const score = one(bytes, path.replace(/&amp;/gu, '&'));
    return score
      ? ok(score)
      : no(
          `the container has no score that can be read: it is missing, or more than ${FILE_LIMITS.bytes / 1024 / 1024} MB`,
        );
  } catch {
    return no('the container is damaged');
  }
}
