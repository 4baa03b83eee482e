import { refuse, type Result } from '@crow-ladder/core';
import { abcFormat } from './abc/index.ts';
import { type FormatOf, type ReadOptions } from './format.ts';
import { type FileRead } from './found.ts';
import { midiFormat } from './midi/index.ts';
import { musicXmlFormat } from './musicxml/index.ts';
import { textFormat } from './text/index.ts';

/** Every format for music, in the order in which they are offered. */
export const FORMATS: readonly FormatOf[] = [textFormat, musicXmlFormat, midiFormat, abcFormat];

const starts = (bytes: Uint8Array, text: string): boolean =>
  [...text].every((c, i) => bytes[i] === c.charCodeAt(0));

/**
 * The format of a file: by what it begins with where that tells, else by the ending of its name, else text.
 *
 * @example formatOf('riff.mid', new Uint8Array()).kind // "midi"
 */
export function formatOf(name: string, bytes: Uint8Array): FormatOf {
  if (starts(bytes, 'MThd')) return midiFormat;
  if (starts(bytes, 'PK\u0003\u0004')) return musicXmlFormat;
  const head = new TextDecoder().decode(bytes.subarray(0, 2000)).replace(/\u0000/gu, '');
  if (/<\?xml|<score-(?:partwise|timewise)/u.test(head)) return musicXmlFormat;
  const ending = /\.([^.]+)$/u.exec(name)?.[1]?.toLowerCase();
  const named = FORMATS.find(({ extensions }) => extensions.some((it) => it === ending));
  if (named && named.kind !== 'text') return named;
  return /^X:\s*\d/mu.test(head) && /^K:/mu.test(head) ? abcFormat : textFormat;
}

/**
 * A file read as what it is. Codes as of its format.
 *
 * @example readFile('riff.txt', new Uint8Array()).error.code // "tab.none"
 */
export function readFile(name: string, bytes: Uint8Array, options?: ReadOptions): Result<FileRead> {
  const format = formatOf(name, bytes);
  try {
    return format.read(bytes, options);
  } catch {
    // A reader that stumbles over a file refuses it: nothing of it is taken.
    return refuse('file.read', `This file cannot be read as ${format.name}: it is damaged.`);
  }
}
