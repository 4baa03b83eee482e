/** Reads a file of 20,000 notes of each format, one after the other, and files that grow; run with little memory, it ends well or not at all. */
import { FILE_LIMITS, type FormatKind, readFile } from '../src/index.ts';
import { notesIn } from './helpers.ts';

const MANY = FILE_LIMITS.notes;
const repeated = (many: number, of: (n: number) => string): string =>
  Array.from({ length: many }, (_, n) => of(n)).join('');
const note =
  '<note><pitch><step>A</step><octave>4</octave></pitch><duration>1</duration><type>quarter</type></note>';
const attributes =
  '<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>';
const events = repeated(MANY, () => '\0\u0090\u0045\u0040\u0060\u0080\u0045\u0040');
const bytes4 = (n: number): string => String.fromCharCode(n >> 24, (n >> 16) & 255, (n >> 8) & 255, n & 255);
const track = `${events}\0\u00ff\u002f\0`;
const LONG: Readonly<Record<FormatKind, readonly [name: string, text: string]>> = {
  text: [
    'long.tab',
    repeated(MANY / 8, () => `${'EBGDA'.replace(/./gu, '$&|-----------------|\n')}E|-5-7-8-7-5-7-8-7-|\n\n`),
  ],
  musicxml: [
    'long.xml',
    `<score-partwise><part-list><score-part id="P"><part-name>Bow</part-name></score-part></part-list><part id="P">${repeated(
      MANY / 4,
      (n) => `<measure number="${n + 1}">${n ? '' : attributes}${note.repeat(4)}</measure>`,
    )}</part></score-partwise>`,
  ],
  midi: ['long.mid', `MThd\0\0\0\u0006\0\u0001\0\u0001\0\u0060MTrk${bytes4(track.length)}${track}`],
  abc: ['long.abc', `X:1\nM:4/4\nL:1/4\nK:C\n${repeated(MANY / 4, () => 'A B c d|\n')}`],
};
const GROWS = [
  ['deep.xml', `<score-partwise>${'<a>'.repeat(1_500_000)}`],
  ['wide.abc', `X:1\nK:C\n${'[CEG]'.repeat(500_000)}`],
  ['wide.tab', `e|${'-'.repeat(2_000_000)}|\n`.repeat(2)],
  [
    'loop.mid',
    `MThd\0\0\0\u0006\0\u0001\u00ff\u00ff\0\u0060${'MTrk\u007f\u00ff\u00ff\u00ff'.repeat(200_000)}`,
  ],
] as const;

for (const [name, text] of [...Object.values(LONG), ...GROWS]) {
  const read = readFile(name, Buffer.from(text, 'latin1'));
  console.log(name, read.ok ? notesIn(read.value).length : 'refused');
}
