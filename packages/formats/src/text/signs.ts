import { LIMITS, ok, type Result } from '@crow-ladder/core';
import { isBend, USUAL_VIBRATO } from '@crow-ladder/core/run';
import { type FileNote, refuseAt, type Remark } from '../found.ts';
import { type TabLine } from './lines.ts';

/** A note of a line of tablature, by the column of its first sign, from 0 in the text of its line. */
export interface Signed extends Pick<FileNote, 'joined' | 'bend' | 'vibrato' | 'where'> {
  /** Null is a muted stroke. */
  readonly fret: number | null;
  readonly at: number;
}

/** No neck has more frets. */
const [, MOST] = LIMITS.frets;
/** A bend without a number is taken as one of a whole step, which is said. */
const USUAL_BEND = 2;
const NUMBER = /^(\d+)(½)?/u;
const SILENT = /[-–—=.*:|_{}[\]>^\s)]/u;
/** What the signs between two numbers of a line say of the later one. */
const JOINS: Readonly<Record<string, FileNote['joined']>> = {
  h: 'slur',
  p: 'slur',
  '/': 'slide',
  '\\': 'slide',
  s: 'slide',
  t: 'tap',
};

/**
 * The notes of one line of tablature; `goesOn` where a line above it has notes of the same string. Codes, with line and column: `tab.fret`,
 * `tab.sign`, `tab.bend`, `tab.release`, `tab.join`.
 */
export function signsOf(
  { line, from, text }: TabLine,
  goesOn: boolean,
  remark: (it: Remark) => void,
): Result<readonly Signed[]> {
  const found: Signed[] = [];
  let joined: FileNote['joined'];
  let i = 0;
  const where = () => ({ line, column: from + i });
  const told = (said: string): void => remark({ where: where(), said });
  const no = (code: string, said: string) => refuseAt(code, where(), said);
  const numberAt = (at: number): RegExpExecArray | null => NUMBER.exec(text.slice(at, at + 20));
  const change = (more: Partial<Signed>): void => {
    found[found.length - 1] = { ...found.at(-1)!, ...more };
  };

  /** What a sign does, and how many columns it takes. */
  const bend = (last: Signed | undefined): Result<number> => {
    if (!last || last.fret === null) return no('tab.bend', 'a bend stands after no note');
    if (last.fret === 0) return no('tab.bend', 'an open string cannot be bent');
    const sign = text[i + 1] === '>' ? 2 : 1;
    const to = numberAt(i + sign);
    const by = to ? Number(to[1]) + (to[2] ? 0.5 : 0) - last.fret : USUAL_BEND;
    if (!isBend(by))
      return no(
        'tab.bend',
        `a bend from fret ${last.fret} to the sound of ${to?.[0]} is none that can be played: a quarter tone to three half steps`,
      );
    if (!to) told('a bend without a number is taken as one of a whole step');
    change({ bend: { by, how: sign === 2 ? 'slowly' : 'once', released: false } });
    return ok(sign + (to?.[0].length ?? 0));
  };
  const release = (last: Signed | undefined): Result<number> => {
    if (!last?.bend) return no('tab.release', 'a release stands after no bend');
    const to = numberAt(i + 1);
    if (to && Number(to[1]) !== last.fret)
      return no('tab.release', `a bend from fret ${last.fret} is released to ${last.fret}, not to ${to[0]}`);
    change({ bend: { ...last.bend, released: true } });
    return ok(1 + (to?.[0].length ?? 0));
  };
  const fret = (number: RegExpExecArray): Result<number> => {
    const at = Number(number[1]);
    if (number[2]) return no('tab.sign', `${number[0]} is no fret`);
    if (at > MOST)
      return no(
        'tab.fret',
        `fret ${cut(number[1]!)} is beyond any neck. If two notes were meant, put a dash between them`,
      );
    found.push({ fret: at, at: i, where: where(), joined });
    joined = undefined;
    return ok(number[0].length);
  };
  const join = (c: string, last: Signed | undefined): Result<number> => {
    if (last || goesOn || c === 't') joined = JOINS[c];
    else if (JOINS[c] === 'slide') told('a slide from nowhere is left out');
    else return no('tab.join', `${c} joins two notes of a string, and none stands before it`);
    return ok(1);
  };
  const sign = (c: string): Result<number> => {
    const last = found.at(-1);
    const number = numberAt(i);
    if (number) return fret(number);
    if (c === 'b') return bend(last);
    if (c === 'r') return release(last);
    if (JOINS[c]) return join(c, last);
    if (c === 'x' || c === 'X') {
      found.push({ fret: null, at: i, where: where() });
      told('a muted stroke is kept as a rest');
      joined = undefined;
    } else if (c === '~' || c === 'v') {
      if (!last || last.fret === null) return no('tab.sign', 'a vibrato stands after no note');
      if (last.fret === 0) told('an open string is held by no finger: its vibrato is left out');
      else change({ vibrato: USUAL_VIBRATO });
    } else if (c === '(') told('a note in brackets is taken as any other');
    else if (c === '<') told('a harmonic is taken as the fretted note');
    else if (!SILENT.test(c)) return no('tab.sign', `“${c}” is no sign of tablature`);
    return ok(1);
  };

  while (i < text.length) {
    const wide = sign(text[i]!);
    if (!wide.ok) return wide;
    i += wide.value;
  }
  if (joined) told('a sign at the end of the string joins nothing and is left out');
  return ok(found);
}

/** A number that may have very many digits, as it is told. */
const cut = (digits: string): string => (digits.length > 6 ? `${digits.slice(0, 6)}…` : digits);
