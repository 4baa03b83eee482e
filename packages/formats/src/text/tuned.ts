import {
  mod,
  ok,
  parseNote,
  parsePitch,
  parseTuning,
  pitchClass,
  type Result,
  TUNINGS,
  tuningCalled,
} from '@crow-ladder/core';
import { refuseAt, type Remark } from '../found.ts';
import { type TabLine, type Word } from './lines.ts';

/** The strings of a text: what they sound open, and which one each line of a block is. */
export interface Tuned {
  /** MIDI numbers, string 1 first. */
  readonly open: readonly number[];
  /** String numbers of the lines of a block, from its uppermost. */
  readonly strings: readonly number[];
}

/** Words that tell that the lowest string stands on top. */
const TURNED = /upside[ -]?down|\blow\w*\b[^.]*\btop\b|\btop\b[^.]*\blow\w*\b/iu;
const CAPO = /\bcapo\D{0,20}(\d{1,2})/iu;

const classOf = (name: string): number | null => {
  const read = parseNote(name.charAt(0).toUpperCase() + name.slice(1).replace(/\d/gu, ''));
  return read.ok ? pitchClass(read.value) : null;
};
/** A name of a string that tells its octave too. */
const pitchOf = (name: string): number | null => {
  const read = parsePitch(name);
  return read.ok ? read.value : null;
};
const sounds = (open: readonly number[], classes: readonly (number | null)[]): boolean =>
  open.length === classes.length && open.every((midi, i) => mod(midi, 12) === classes[i]);

/** A tuning that a line of words tells, string 1 first: by its notes, or by its name. */
function toldIn({ text }: Word, strings: number): readonly number[] | null {
  const runs = text.match(/(?:(?<![A-Za-z])[A-Ga-g](?:#|♯|b|♭)?-?\d?(?![A-Za-z])[\s,–-]*){3,}/gu) ?? [];
  for (const run of [...runs].reverse()) {
    const names = run.split(/[\s,–-]+/u).filter(Boolean);
    if (names.length !== strings) continue;
    // High strings first where the first one is written small.
    const isDown = names[0] === names[0]!.toLowerCase() && names.at(-1) !== names.at(-1)!.toLowerCase();
    const pitches = names.map(pitchOf);
    const fromHigh = pitches.every((it) => it !== null) ? pitches[0]! > pitches.at(-1)! : isDown;
    const low = fromHigh ? [...names].reverse() : names;
    const read = parseTuning(low.map((it) => it.charAt(0).toUpperCase() + it.slice(1)).join(' '));
    if (read.ok) return [...read.value.tuning].reverse();
  }
  if (!/tun|drop|open|standard|down/iu.test(text)) return null;
  const plain = text.replace(/\(.*?\)/gu, '').replace(/^.*?tun(?:ing|ed)(?:\s+(?:to|is))?\s*[:=]?/iu, '');
  for (const part of [plain, ...plain.split(/[,;.]/u), text.replace(/\btun(?:ing|ed)\b.*/iu, '')]) {
    const named = tuningCalled(part.trim(), strings);
    if (named?.tuning.length === strings) return [...named.tuning].reverse();
  }
  return null;
}

/** What a number of strings usually is tuned to, string 1 first. */
const usual = (strings: number): readonly number[] | null => {
  const named = TUNINGS.find(({ tuning }) => tuning.length === strings);
  return named ? [...named.tuning].reverse() : null;
};

/** The tuning whose strings have such names, string 1 first: the one that is assumed, one that is known, or the nearest. */
function named(
  classes: readonly number[],
  assumed: readonly (readonly number[])[],
): readonly number[] | null {
  const one =
    assumed.find((open) => sounds(open, classes)) ??
    TUNINGS.map(({ tuning }) => [...tuning].reverse()).find((open) => sounds(open, classes));
  return one ?? null;
}

/**
 * How the strings of a text are tuned and which stands on top: by their names, by what is said above them, else as `open` where that has
 * as many, else as is usual. Codes: `tab.strings`, `tab.names`.
 */
export function tunedAs(
  block: readonly TabLine[],
  words: readonly Word[],
  open: readonly number[] | undefined,
  remark: (it: Remark) => void,
): Result<Tuned> {
  const many = block.length;
  const [first] = block;
  const where = { line: first!.line, column: first!.from };
  const capo = Number(words.map(({ text }) => CAPO.exec(text)?.[1]).find(Boolean) ?? 0);
  const raised = (it: readonly number[]): readonly number[] => it.map((midi) => midi + capo);
  const down = block.map((_, i) => i + 1);
  const said = words.map((it) => toldIn(it, many)).find(Boolean) ?? null;
  const assumed = [said, open?.length === many ? open.map((midi) => midi - capo) : null].flatMap((it) =>
    it ? [it] : [],
  );
  let isTurned = words.some(({ text }) => TURNED.test(text));
  const names = block.map(({ name }) => name);
  if (names.every((name) => name === '')) {
    const it = assumed[0] ?? usual(many);
    if (!it)
      return refuseAt(
        'tab.strings',
        where,
        `${many} lines stand together: name the strings, and they can be read`,
      );
    if (isTurned) remark({ where, said: 'the lowest string stands on top' });
    return ok({ open: raised(it), strings: isTurned ? [...down].reverse() : down });
  }
  const classes = names.map(classOf);
  const at = classes.findIndex((it) => it === null);
  if (at >= 0)
    return refuseAt(
      'tab.names',
      { line: block[at]!.line, column: 1 },
      `this string has no name that can be read, and others have one: name it by a note, or leave all names out`,
    );
  const isBig = (name: string): boolean => name.charAt(0) === name.charAt(0).toUpperCase();
  isTurned ||= names.slice(0, -1).every(isBig) && !isBig(names.at(-1)!);
  const fits = (turned: boolean): readonly number[] | null =>
    named((turned ? [...classes].reverse() : classes) as readonly number[], assumed);
  const it = fits(isTurned);
  if (!it && !isTurned) isTurned = fits(true) !== null;
  const tuning = it ?? fits(isTurned) ?? nearest(isTurned ? names : [...names].reverse());
  if (!tuning)
    return refuseAt('tab.names', where, 'the strings are named so that no tuning can be made of them');
  if (isTurned) remark({ where, said: 'the lowest string stands on top' });
  return ok({ open: raised(tuning), strings: isTurned ? [...down].reverse() : down });
}

/** Named strings, the lowest first, as near to a usual instrument as they can be; string 1 first. */
function nearest(names: readonly string[]): readonly number[] | null {
  const read = parseTuning(names.map((it) => it.charAt(0).toUpperCase() + it.slice(1)).join(' '));
  return read.ok ? [...read.value.tuning].reverse() : null;
}
