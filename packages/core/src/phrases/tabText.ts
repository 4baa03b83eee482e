import { type Neck } from '../neck.ts';
import { type Accidentals, parseNote, pitchClass, pitchClassName } from '../note.ts';
import { mod } from '../arithmetic.ts';
import { ok, refuse, type Result } from '../result.ts';
import { isBend, USUAL_VIBRATO } from '../run/bend.ts';
import { type Bend } from '../run/run.ts';
import { PHRASE_LIMITS, type PhraseNote } from './phrase.ts';

/** What was read of a tablature typed as text. */
export interface TabRead {
  readonly notes: readonly PhraseNote[];
  /** What was taken otherwise than it may have been meant, and lines that were passed over. */
  readonly remarks: readonly string[];
}
/** How long its notes are: all alike, or by how far they stand apart in the text. */
export type TabTimes = 'even' | 'spaced';

/** A line of text that is a string of an instrument. */
interface TabLine {
  /** From 1, as an editor counts. */
  readonly line: number;
  /** The column of the first sign of `text`, from 1. */
  readonly from: number;
  readonly name: string;
  readonly text: string;
}
/** A note with where it stands. */
interface Found {
  readonly string: number;
  readonly fret: number;
  readonly line: number;
  /** Its column in the text, from 1, and where it stands in time. */
  readonly column: number;
  readonly at: number;
  readonly muted: boolean;
  readonly joined: PhraseNote['joined'];
  readonly bend: Bend | undefined;
  readonly vibrato: boolean;
}

const LINE = /^(\s*)([A-Ga-g][#♯b♭]?\d?)?(\s*)([|:\-–—\dhpstxX/\\(].*)$/u;
/** Signs that stand in a line of tablature. */
const SIGNS = /^[-–—|:\d½hpsbrtxX~v/\\()<>.*=\s]+$/u;
const isDash = (c: string): boolean => /[-–—=.*\s:]/u.test(c);

/** A line of text as a string of an instrument; null where it is none. */
function tabLine(text: string, line: number): TabLine | null {
  const [, before = '', name = '', between = '', rest = ''] = LINE.exec(text.trimEnd()) ?? [];
  if (!/[-–—|]/u.test(rest) || !SIGNS.test(rest)) return null;
  return { line, name, from: before.length + name.length + between.length + 1, text: rest };
}

const refusedAt = (code: string, line: number, column: number, message: string) =>
  refuse(code, `Line ${line}, column ${column}: ${message}`);

/** What the signs between two numbers of a line say of the later one. */
const JOINS: Readonly<Record<string, PhraseNote['joined']>> = {
  h: 'slur',
  p: 'slur',
  '/': 'slide',
  '\\': 'slide',
  s: 'slide',
  t: 'tap',
};
/** A bend without a number is taken as one of a whole step, which is said. */
const USUAL_BEND = 2;

const NUMBER = /^(\d+)(½)?/u;

/** The notes of one line, with the place of each sign in time; whether it goes on from a line above it that has notes. */
function notesOn(
  { line, from, text }: TabLine,
  string: number,
  frets: number,
  timeOf: (column: number) => number,
  remark: (line: number, column: number, said: string) => void,
  goesOn: boolean,
): Result<readonly Found[]> {
  const found: Found[] = [];
  let joined: PhraseNote['joined'];
  for (let i = 0; i < text.length;) {
    const c = text[i]!;
    const column = from + i;
    const number = NUMBER.exec(text.slice(i));
    const last = found.at(-1);
    if (number) {
      const fret = Number(number[1]);
      if (fret > frets)
        return refusedAt(
          'tab.fret',
          line,
          column,
          `fret ${fret} is beyond the last one, ${frets}. If two notes were meant, put a dash between them.`,
        );
      if (number[2]) return refusedAt('tab.sign', line, column, `${number[0]} is no fret.`);
      found.push({
        string,
        fret,
        line,
        column,
        at: timeOf(i),
        muted: false,
        joined,
        bend: undefined,
        vibrato: false,
      });
      joined = undefined;
      i += number[0].length;
    } else if (c === 'x' || c === 'X') {
      found.push({
        string,
        fret: 0,
        line,
        column,
        at: timeOf(i),
        muted: true,
        joined: undefined,
        bend: undefined,
        vibrato: false,
      });
      remark(line, column, 'a muted stroke is kept as a rest');
      joined = undefined;
      i++;
    } else if (c === 'b') {
      if (!last || last.muted) return refusedAt('tab.bend', line, column, 'a bend stands after no note.');
      const slowly = text[i + 1] === '>';
      const to = NUMBER.exec(text.slice(i + (slowly ? 2 : 1)));
      const by = to ? Number(to[1]) + (to[2] ? 0.5 : 0) - last.fret : USUAL_BEND;
      if (!isBend(by))
        return refusedAt(
          'tab.bend',
          line,
          column,
          `a bend from fret ${last.fret} to the sound of ${to?.[0]} is none that can be played: a quarter tone to three half steps.`,
        );
      if (!to) remark(line, column, 'a bend without a number is taken as one of a whole step');
      found[found.length - 1] = { ...last, bend: { by, how: slowly ? 'slowly' : 'once', released: false } };
      i += (slowly ? 2 : 1) + (to?.[0].length ?? 0);
    } else if (c === 'r') {
      if (!last?.bend) return refusedAt('tab.release', line, column, 'a release stands after no bend.');
      const to = NUMBER.exec(text.slice(i + 1));
      if (to && Number(to[1]) !== last.fret)
        return refusedAt(
          'tab.release',
          line,
          column,
          `a bend from fret ${last.fret} is released to ${last.fret}, not to ${to[0]}.`,
        );
      found[found.length - 1] = { ...last, bend: { ...last.bend, released: true } };
      i += 1 + (to?.[0].length ?? 0);
    } else if (c === '~' || c === 'v') {
      if (!last || last.muted) return refusedAt('tab.sign', line, column, 'a vibrato stands after no note.');
      found[found.length - 1] = { ...last, vibrato: true };
      i++;
    } else if (JOINS[c]) {
      const none = !last && !goesOn;
      if (none && c !== 't' && c !== '/' && c !== '\\' && c !== 's')
        return refusedAt(
          'tab.join',
          line,
          column,
          `${c} joins two notes of a string, and none stands before it.`,
        );
      if (none && c !== 't') remark(line, column, 'a slide from nowhere is left out');
      else joined = JOINS[c];
      i++;
    } else if (c === '(' || c === ')') {
      if (c === '(') remark(line, column, 'a note in brackets is taken as any other');
      i++;
    } else if (isDash(c) || c === '|') {
      i++;
    } else return refusedAt('tab.sign', line, column, `“${c}” is no sign of tablature.`);
  }
  if (joined)
    remark(line, from + text.length - 1, 'a sign at the end of the string joins nothing and is left out');
  return ok(found);
}

/** Which string each line of a block is, from its highest; or why that cannot be told. */
function stringsOf(
  block: readonly TabLine[],
  neck: Neck,
  accidentals: Accidentals,
  remark: (line: number, column: number, said: string) => void,
): Result<readonly number[]> {
  const many = neck.open.length;
  const [first] = block;
  if (block.length !== many)
    return refusedAt(
      'tab.strings',
      first!.line,
      first!.from,
      `${block.length} lines stand together, and this instrument has ${many} strings: write a line for each of them.`,
    );
  const down = Array.from({ length: many }, (_, i) => i + 1);
  const classOf = (name: string): number | null => {
    const read = parseNote(name.charAt(0).toUpperCase() + name.slice(1).replace(/\d/g, ''));
    return read.ok ? pitchClass(read.value) : null;
  };
  if (block.every(({ name }) => name === '')) return ok(down);
  const fits = (strings: readonly number[]): boolean =>
    block.every(({ name }, i) => name === '' || classOf(name) === mod(neck.open[strings[i]! - 1]!, 12));
  if (fits(down)) {
    // Where both ways fit, a lower case e tells the high string.
    const top = block[0]!.name;
    const isTurned = fits([...down].reverse()) && top === 'E' && block.at(-1)!.name === 'e';
    if (isTurned) remark(first!.line, first!.from, 'the lowest string stands on top');
    return ok(isTurned ? [...down].reverse() : down);
  }
  if (fits([...down].reverse())) {
    remark(first!.line, first!.from, 'the lowest string stands on top');
    return ok([...down].reverse());
  }
  const wrong = block.find(
    ({ name }, i) => name !== '' && classOf(name) !== mod(neck.open[down[i]! - 1]!, 12),
  )!;
  const at = block.indexOf(wrong);
  return refusedAt(
    'tab.names',
    wrong.line,
    1,
    `this string is named ${wrong.name}, and string ${at + 1} of this instrument is ${pitchClassName(neck.open[at]!, accidentals)}. Change the tuning, or leave the names out to read it by fret.`,
  );
}

/** Bar lines of a text by their columns, from 0, but for one at its beginning. */
const barsAt = (text: string): readonly number[] =>
  [...text].flatMap((c, i) => (c === '|' && i > 0 && text[i - 1] !== '|' ? [i] : []));

/**
 * Tablature as people type it: a line for each string, the highest on top (or the lowest, where names say so), with names or without, uneven, with
 * bar lines or without, numbers of one or two digits, `h p` slurs, `/ \ s` slides, `b` a bend and the fret that it sounds like, `r` released, `~ v`
 * vibrato, `t` a tap, `x` muted. Lines wrap into blocks. Where all strings have as many bar lines, bars are laid over each other. Notes last `length` ticks each,
 * or as far as they stand apart, the least distance being that. What was not certain is remarked. Codes, each with line and column:
 * `tab.none`, `tab.strings`, `tab.names`, `tab.fret`, `tab.sign`, `tab.bend`, `tab.release`, `tab.join`, `tab.chord`; and `phrase.many`.
 *
 * @example readTab('e|-5-8-|\nB|-----|\nG|-----|\nD|-----|\nA|-----|\nE|-----|', neck, 480, 'even', 'sharps').value.notes.map((n) => n.at.fret) // [5,8]
 */
export function readTab(
  text: string,
  neck: Neck,
  length: number,
  times: TabTimes,
  accidentals: Accidentals,
): Result<TabRead> {
  const remarks: string[] = [];
  const remark = (line: number, column: number, said: string): void => {
    remarks.push(`Line ${line}, column ${column}: ${said}.`);
  };
  const blocks: TabLine[][] = [];
  let isOpen = false;
  const passed: number[] = [];
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const it = tabLine(raw, i + 1);
    if (it && isOpen) blocks.at(-1)!.push(it);
    else if (it) blocks.push([it]);
    else if (raw.trim() !== '') passed.push(i + 1);
    isOpen = it !== null;
  });
  if (!blocks.length)
    return refuse(
      'tab.none',
      'Line 1, column 1: no line of tablature is found. Write a line for each string, with dashes and fret numbers.',
    );
  const found: Found[] = [];
  let before = 0;
  for (const block of blocks) {
    const strings = stringsOf(block, neck, accidentals, remark);
    if (!strings.ok) return strings;
    const bars = block.map(({ text: signs }) => barsAt(signs));
    const isEven = bars.every((at) => at.length === bars[0]!.length);
    if (!isEven)
      remark(
        block[0]!.line,
        block[0]!.from,
        'the strings have not as many bar lines: notes are read by their columns',
      );
    // A bar begins where the latest of its strings begins it.
    const begins = (bar: number): number => (bar === 0 ? 0 : Math.max(...bars.map((at) => at[bar - 1]!)));
    let end = before;
    for (const [i, line] of block.entries()) {
      const timeOf = (column: number): number => {
        if (!isEven) return before + line.from + column;
        const bar = bars[i]!.filter((at) => at < column).length;
        return before + begins(bar) + column - (bar === 0 ? 0 : bars[i]![bar - 1]!);
      };
      const notes = notesOn(
        line,
        strings.value[i]!,
        neck.frets,
        timeOf,
        remark,
        found.some(({ string }) => string === strings.value[i]),
      );
      if (!notes.ok) return notes;
      found.push(...notes.value);
      end = Math.max(end, timeOf(line.text.length));
    }
    before = end;
  }
  if (passed.length)
    remarks.push(
      `Passed over, as ${passed.length > 1 ? 'they are' : 'it is'} no string: line ${passed.join(', ')}.`,
    );
  found.sort((a, b) => a.at - b.at);
  const chord = found.find((note, i) => found[i - 1]?.at === note.at);
  if (chord)
    return refusedAt(
      'tab.chord',
      chord.line,
      chord.column,
      'two notes stand above each other, and a phrase has one at a time: take one of them away.',
    );
  if (!found.length)
    return refuse('tab.none', `Line ${blocks[0]![0]!.line}, column 1: there is no note on these strings.`);
  if (found.length > PHRASE_LIMITS.notes)
    return refuse(
      'phrase.many',
      `This has ${found.length} notes; a phrase has at most ${PHRASE_LIMITS.notes}.`,
    );
  const apart = found.slice(1).map((note, i) => note.at - found[i]!.at);
  const least = Math.min(...apart);
  const notes = found.map((note, i): PhraseNote => {
    const many = times === 'even' || apart[i] === undefined ? 1 : Math.max(1, Math.round(apart[i] / least));
    const { string, fret, muted, joined, bend, vibrato } = note;
    // A slur or slide says something of notes that follow each other on a string.
    const last = found[i - 1];
    const follows = joined === 'tap' || (last?.string === string && !last.muted);
    if (joined && !follows)
      remark(note.line, note.column, 'another string sounds between: the note is taken as picked');
    return {
      at: muted ? null : { string, fret },
      length: Math.min(PHRASE_LIMITS.length[1], many * length),
      ...(joined && follows && { joined }),
      ...(bend && { bend }),
      ...(vibrato && { vibrato: USUAL_VIBRATO }),
    };
  });
  const open = found.find(({ fret, bend, vibrato }) => fret === 0 && (bend ?? vibrato));
  if (open)
    return refusedAt(
      'tab.bend',
      open.line,
      open.column,
      'an open string cannot be bent or held with vibrato.',
    );
  return ok({ notes, remarks });
}
