import { type Key, noteName } from '@crow-ladder/core';
import {
  alteredBy,
  isMinor,
  keySignature,
  noteAtFifths,
  type Pitch,
  type ScoreItem,
  scoreOf,
} from '@crow-ladder/core/notation';
import { type Step } from '@crow-ladder/core/run';
import { bytesOf } from '../bytes.ts';
import { type Music, without, type Written } from '../format.ts';

/** Lengths of notes in eighths, the unit that is written. */
const EIGHTHS: Readonly<Record<ScoreItem['value'], readonly [string, string]>> = {
  1: ['8', '12'],
  2: ['4', '6'],
  4: ['2', '3'],
  8: ['', '3/2'],
  16: ['/2', '3/4'],
  32: ['/4', '3/8'],
};
const SIGNS: Readonly<Record<number, string>> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' };
/** Bars a line. */
const BARS = 4;
/** What is written sounds an octave lower than a guitar's staff says; here the sound is written. */
const LOWER = 1;

/** A minor key has the signature of the major one three fifths below it. */
const keyName = (key: Key, signature: number): string =>
  isMinor(key) ? `${noteName(noteAtFifths(signature + 3))}m` : noteName(noteAtFifths(signature));

/** A pitch with its sign where the signature and the bar so far do not say it already. */
function pitchText({ note, octave }: Pitch, signature: number, bar: Map<string, number>): string {
  const { letter, alteration } = note;
  const told = bar.get(letter) ?? alteredBy(signature, letter as never);
  bar.set(letter, alteration);
  const sounds = octave - LOWER;
  const name = sounds >= 5 ? letter.toLowerCase() + "'".repeat(sounds - 5) : letter + ','.repeat(4 - sounds);
  return (told === alteration ? '' : SIGNS[alteration]) + name;
}

const isSlur = (step: Step | undefined): boolean => step?.arrive === 'hammer' || step?.arrive === 'pull';

/** What stands before a note. */
function before(run: Music['run'], i: number): string {
  const { finger, accent, arrive } = run[i]!;
  return [
    accent ? '!accent!' : '',
    arrive === 'slide' ? '!slide!' : '',
    finger >= 1 && finger <= 4 ? `!${finger}!` : '',
    isSlur(run[i + 1]) && !isSlur(run[i]) ? '(' : '',
  ].join('');
}

/** Music as ABC notation 2.1: its pitches as they sound, fingers, slurs, slides and accents as decorations. */
export function writeAbc({ title, run, ticks, key, beats, tempo, clef }: Music): Written {
  const score = scoreOf(run, key, { beats, until: ticks, usual: clef });
  const signature = keySignature(key);
  const bars = score.bars.map(({ items, tuplets, beams }, b) => {
    const signs = new Map<string, number>();
    const words = items.map((item, i) => {
      const tuplet = tuplets.find(({ from }) => from === i);
      const group = tuplet ? `(${tuplet.actual}:${tuplet.normal}:${tuplet.to - tuplet.from + 1}` : '';
      const length = EIGHTHS[item.value][item.dotted ? 1 : 0];
      if (item.step === null || !item.pitch) return `${group}z${length}`;
      const next = items[i + 1] ?? score.bars[b + 1]?.items[0];
      const tie = next?.step === item.step && !next.first ? '-' : '';
      const ends = item.first && isSlur(run[item.step]) && !isSlur(run[item.step + 1]) ? ')' : '';
      const marks = item.first ? before(run, item.step) : '';
      // A note that is tied over the bar line keeps its sign; told again, it is right for every reader.
      return `${group}${marks}${pitchText(item.pitch, signature, signs)}${length}${tie}${ends}`;
    });
    const joined = (i: number): boolean => beams.some((beam) => beam.includes(i) && beam.includes(i + 1));
    return words.map((word, i) => word + (i < words.length - 1 && !joined(i) ? ' ' : '')).join('');
  });
  const lines: string[] = [];
  for (let i = 0; i < bars.length; i += BARS) lines.push(bars.slice(i, i + BARS).join(' | '));
  const text = [
    '%abc-2.1',
    'X:1',
    `T:${title.replace(/[\r\n%]+/gu, ' ')}`,
    `M:${beats}/4`,
    'L:1/8',
    `Q:1/4=${tempo}`,
    `%%propagate-accidentals pitch`,
    `K:${keyName(key, signature)}${score.clef === 'bass' ? ' clef=bass' : ''}`,
    ...lines.map((line, i) => `${line} ${i === lines.length - 1 ? '|]' : '|'}`),
    '',
  ];
  return {
    bytes: bytesOf(text.join('\n')),
    lost: [
      'Strings and frets are not in ABC notation.',
      ...without(run, (s) => s.bend, 'Bends are not in ABC notation: the note stands without.'),
      ...without(run, (s) => s.vibrato, 'Vibrato is not in ABC notation.'),
      ...without(run, (s) => s.arrive === 'tap', 'Taps stand as picked notes in ABC notation.'),
    ],
  };
}
