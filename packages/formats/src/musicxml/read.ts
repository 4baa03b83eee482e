import { ok, type Result } from '@crow-ladder/core';
import { SaxesParser } from 'saxes';
import { textOf, tooBig } from '../bytes.ts';
import { type FilePart, type FileRead, notesMany, refuseAt } from '../found.ts';
import { FILE_LIMITS } from '../named.ts';
import { type ReadOptions } from '../format.ts';
import { unpacked } from './container.ts';
import { merged, openOf } from './part.ts';
import { Reading } from './reading.ts';

/** Characters that are parsed at a time. */
const CHUNK = 65_536;
/** Elements one in the other. */
const DEEP = 64;

/**
 * A MusicXML score, up to 4.0, also in a container: every part and voice with its times, ties, strings, frets, fingers, slurs, slides,
 * bends. Repeats are written once, grace notes and cues left out. Nothing outside the file is fetched, and no entity of its own is
 * expanded. Codes: `xml.container`, `xml.form` (with line and column), `xml.score`, `xml.none`, `file.size`, `file.notes`.
 */
export function readMusicXml(bytes: Uint8Array, { onProgress }: ReadOptions = {}): Result<FileRead> {
  if (bytes.length > FILE_LIMITS.bytes) return tooBig(bytes.length);
  const file = unpacked(bytes);
  if (!file.ok) return file;
  const head = String.fromCharCode(...file.value.subarray(0, 200));
  const decoded = textOf(file.value, /encoding\s*=\s*["']([\w.-]+)["']/u.exec(head)?.[1]);
  if (!decoded.ok) return decoded;
  const text = decoded.value;
  const parser = new SaxesParser();
  const line = () => ({ line: parser.line, column: parser.column });
  const reading = new Reading(() => ({ line: line().line }));
  const stack: { readonly name: string; text: string }[] = [];
  let wrong: ReturnType<typeof refuseAt> | null = null;
  const no = (code: string, said: string): void => {
    wrong ??= refuseAt(code, line(), said);
  };
  parser.on('error', (e) =>
    no(
      'xml.form',
      `this is not well-formed XML (${e.message.replace(/^[\d:.]+\s*/u, '').replace(/\.$/u, '')})`,
    ),
  );
  parser.on('opentag', ({ name, attributes }) => {
    if (wrong) return;
    reading.open(name, attributes, stack.at(-1)?.name ?? '');
    stack.push({ name, text: '' });
    if (stack.length > DEEP) no('xml.form', `more than ${DEEP} elements stand one in the other`);
  });
  parser.on('text', (more) => {
    const now = stack.at(-1);
    if (now && now.text.length < 1000) now.text += more;
  });
  parser.on('closetag', ({ name }) => {
    if (wrong) return;
    const now = stack.pop();
    reading.close(name, now?.text.trim() ?? '', stack.at(-1)?.name ?? '');
    if (reading.tooMany) wrong ??= notesMany(reading.notes, reading.tooMany);
  });
  for (let at = 0; at < text.length && !wrong; at += CHUNK) {
    onProgress?.(at / text.length);
    parser.write(text.slice(at, at + CHUNK));
  }
  if (!wrong) parser.close();
  if (wrong) return wrong;
  if (!reading.isScore) return refuseAt('xml.score', { line: 1 }, 'this is no MusicXML score');
  const parts = [...reading.parts.values()]
    .map((part, i): FilePart => ({
      name: part.name || `Part ${i + 1}`,
      open: openOf(part),
      voices: merged(part),
    }))
    .filter(({ voices }) => voices.length);
  if (!parts.length) return refuseAt('xml.none', {}, 'there is no note in this score');
  return ok({ ...reading.piece(), timed: true, parts, remarks: reading.remarks });
}
