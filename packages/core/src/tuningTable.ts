import { aliasOf } from './alias.ts';
import { type Instrument } from './instrument.ts';
import { parseNote, parsePitch } from './note.ts';
import { numberWord } from './words.ts';
import { ok, refuse, type Result } from './result.ts';
import { type ParsedTuning, parseTuning } from './tuning.ts';

export interface NamedTuning {
  readonly id: string;
  readonly name: string;
  readonly group: string;
  /** What else players call it. */
  readonly nicknames: readonly string[];
  readonly tuning: readonly number[];
  /** What such an instrument usually is: frets, scale length in mm, wound strings. */
  readonly usual: Pick<Instrument, 'frets' | 'scaleLength' | 'wound'>;
}

type Row = readonly [id: string, name: string, strings: string, nicknames?: readonly string[]];
interface Group {
  readonly group: string;
  readonly usual: NamedTuning['usual'];
  readonly rows: readonly Row[];
}

/** Tunings that players bring (common practice, no source). */
const GROUPS: readonly Group[] = [
  {
    group: 'six strings',
    usual: { frets: 22, scaleLength: 648, wound: 3 },
    rows: [
      ['standard', 'standard', 'E2 A2 D3 G3 B3 E4', ['E standard', 'normal']],
      [
        'half-step-down',
        'half a step down',
        'D#2 G#2 C#3 F#3 A#3 D#4',
        ['E♭ standard', 'D♯ standard', 'half step down'],
      ],
      ['whole-step-down', 'a whole step down', 'D2 G2 C3 F3 A3 D4', ['D standard', 'whole step down']],
      [
        'step-and-half-down',
        'a step and a half down',
        'C#2 F#2 B2 E3 G#3 C#4',
        ['C♯ standard', 'D♭ standard'],
      ],
      ['two-steps-down', 'two steps down', 'C2 F2 A#2 D#3 G3 C4', ['C standard']],
      ['drop-d', 'drop D', 'D2 A2 D3 G3 B3 E4'],
      ['drop-c-sharp', 'drop C♯', 'C#2 G#2 C#3 F#3 A#3 D#4', ['drop D♭']],
      ['drop-c', 'drop C', 'C2 G2 C3 F3 A3 D4'],
      ['drop-b', 'drop B', 'B1 F#2 B2 E3 G#3 C#4'],
      ['double-drop-d', 'double drop D', 'D2 A2 D3 G3 B3 D4'],
      ['dadgad', 'D A D G A D', 'D2 A2 D3 G3 A3 D4', ['D modal']],
      ['open-d', 'open D', 'D2 A2 D3 F#3 A3 D4'],
      ['open-d-minor', 'open D minor', 'D2 A2 D3 F3 A3 D4'],
      ['open-e', 'open E', 'E2 B2 E3 G#3 B3 E4'],
      ['open-g', 'open G', 'D2 G2 D3 G3 B3 D4'],
      ['open-g-minor', 'open G minor', 'D2 G2 D3 G3 A#3 D4'],
      ['open-a', 'open A', 'E2 A2 E3 A3 C#4 E4'],
      ['open-c', 'open C', 'C2 G2 C3 G3 C4 E4'],
      ['open-c6', 'open C6', 'C2 A2 C3 G3 C4 E4'],
      ['all-fourths', 'all fourths', 'E2 A2 D3 G3 C4 F4', ['fourths', 'straight fourths']],
      ['all-fifths', 'all fifths', 'C2 G2 D3 A3 E4 B4', ['fifths']],
      ['major-thirds', 'major thirds', 'G#2 C3 E3 G#3 C4 E4', ['thirds']],
    ],
  },
  {
    group: 'baritone',
    usual: { frets: 24, scaleLength: 686, wound: 3 },
    rows: [
      ['baritone-b', 'baritone B', 'B1 E2 A2 D3 F#3 B3', ['B standard']],
      ['baritone-a', 'baritone A', 'A1 D2 G2 C3 E3 A3', ['A standard']],
    ],
  },
  {
    group: 'seven strings',
    usual: { frets: 24, scaleLength: 673, wound: 4 },
    rows: [
      ['seven-standard', 'seven-string standard', 'B1 E2 A2 D3 G3 B3 E4', ['seven-string', 'seven']],
      ['seven-drop-a', 'seven-string drop A', 'A1 E2 A2 D3 G3 B3 E4', ['drop A']],
      ['seven-half-down', 'seven-string half a step down', 'A#1 D#2 G#2 C#3 F#3 A#3 D#4'],
      ['seven-high-a', 'seven-string with a high A', 'E2 A2 D3 G3 B3 E4 A4'],
      ['seven-fourths', 'seven-string all fourths', 'B1 E2 A2 D3 G3 C4 F4'],
    ],
  },
  {
    group: 'eight and nine strings',
    usual: { frets: 24, scaleLength: 711, wound: 5 },
    rows: [
      ['eight-standard', 'eight-string standard', 'F#1 B1 E2 A2 D3 G3 B3 E4', ['eight-string', 'eight']],
      ['eight-drop-e', 'eight-string drop E', 'E1 B1 E2 A2 D3 G3 B3 E4', ['drop E']],
      ['nine-standard', 'nine-string standard', 'C#1 F#1 B1 E2 A2 D3 G3 B3 E4', ['nine-string', 'nine']],
      ['nine-fourths', 'nine-string all fourths', 'C#1 F#1 B1 E2 A2 D3 G3 C4 F4'],
    ],
  },
  {
    group: 'basses',
    usual: { frets: 21, scaleLength: 864, wound: 4 },
    rows: [
      ['bass-four', 'four-string bass', 'E1 A1 D2 G2', ['bass']],
      ['bass-drop-d', 'four-string bass drop D', 'D1 A1 D2 G2', ['bass drop D', 'drop D']],
      ['bass-five', 'five-string bass', 'B0 E1 A1 D2 G2', ['five-string']],
      ['bass-five-high-c', 'five-string bass with a high C', 'E1 A1 D2 G2 C3'],
      ['bass-six', 'six-string bass', 'B0 E1 A1 D2 G2 C3'],
    ],
  },
  {
    group: 'other',
    usual: { frets: 15, scaleLength: 432, wound: 0 },
    rows: [
      ['reentrant-four', 'four-string re-entrant', 'G4 C4 E4 A4'],
      ['fifths-four', 'four-string fifths', 'G3 D4 A4 E5'],
    ],
  },
];

/** Every tuning of the table, ready to use. */
export const TUNINGS: readonly NamedTuning[] = GROUPS.flatMap(({ group, usual, rows }) =>
  rows.map(([id, name, strings, nicknames = []]) => {
    const parsed = parseTuning(strings);
    if (!parsed.ok) throw new Error(`${id}: ${parsed.error.message}`);
    return {
      id,
      name,
      group,
      nicknames,
      tuning: parsed.value.tuning,
      usual: { ...usual, wound: Math.min(usual.wound, parsed.value.tuning.length) },
    };
  }),
);

/**
 * The tuning of the table with an id, also of before it was renamed; undefined where there is none.
 *
 * @example tuningById('drop-d')?.tuning // [38,45,50,55,59,64]
 */
export const tuningById = (id: string): NamedTuning | undefined =>
  TUNINGS.find((t) => t.id === aliasOf('tuning', id));

/**
 * The table's entry with exactly these open strings, or undefined.
 *
 * @example tuningNamed([38, 45, 50, 55, 59, 64])?.name // "drop D"
 */
export const tuningNamed = (tuning: readonly number[]): NamedTuning | undefined =>
  TUNINGS.find((t) => t.tuning.length === tuning.length && t.tuning.every((m, i) => m === tuning[i]));

/** A name without its capitals, hyphens and printed signs. */
const plainName = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/♯/g, '#')
    .replace(/♭/g, 'b')
    .replace(/[-–\s]+/g, ' ')
    .replace(/ tuning$/, '');

/** What each name and nickname may mean. */
const CALLED = new Map<string, NamedTuning[]>();
for (const tuning of TUNINGS)
  for (const name of new Set([tuning.name, ...tuning.nicknames].map(plainName)))
    CALLED.set(name, [...(CALLED.get(name) ?? []), tuning]);

/**
 * The tuning that is called so, by its name or a nickname; of several the one with as many strings as asked for.
 *
 * @example tuningCalled('drop d', 6)?.name // "drop D"
 */
export function tuningCalled(text: string, strings: number): NamedTuning | undefined {
  const found = CALLED.get(plainName(text)) ?? [];
  return found.find((t) => t.tuning.length === strings) ?? found[0];
}

/**
 * A tuning as a player types it: by name (`drop D`), or by its strings. Codes as of `parseTuning`, and `tuning.name`.
 *
 * @example readTuning('D A D G A D', [40, 45, 50, 55, 59, 64]).value?.tuning[0] // 38
 */
export function readTuning(text: string, at: readonly number[]): Result<ParsedTuning> {
  const named = tuningCalled(text, at.length);
  if (named) return ok({ tuning: named.tuning, guessed: false, also: [] });
  const parsed = parseTuning(text, at);
  // Where some of it are notes, one of them is wrong; otherwise it was meant as a name.
  const notes = text.split(/[\s,]+/).filter((part) => parseNote(part).ok || parsePitch(part).ok);
  if (!parsed.ok && notes.length < 2 && /[h-wyz]/i.test(text))
    return refuse(
      'tuning.name',
      `No tuning is called “${text.trim()}”: write its strings, such as D A D G B E, or a name such as drop D.`,
    );
  return parsed;
}

/**
 * Words that a player may look for a tuning by: name, nicknames, group, and how many strings it has.
 *
 * @example tuningWords([38, 45, 50, 55, 59, 64]).length > 0 // true
 */
export function tuningWords(tuning: readonly number[]): readonly string[] {
  const named = tuningNamed(tuning);
  const count = tuning.length;
  return [
    ...(named ? [named.name, ...named.nicknames, named.group] : []),
    `${numberWord(count)}-string`,
    `${count}-string`,
  ];
}

/**
 * An instrument as it usually comes with a tuning of the table.
 *
 * @example instrumentOf(tuningById('drop-d')).frets > 18 // true
 */
export const instrumentOf = (named: NamedTuning): Instrument => ({
  name: named.name,
  tuning: named.tuning,
  capo: 0,
  handed: 'right',
  ...named.usual,
});
