import { type PhraseNote } from '@crow-ladder/core/phrases';
import { type Part } from './run.ts';

/** A phrase kept with the chart: its notes as they lie on the strings that it was made on, and the key that it was made in, so that it goes with the key. */
export interface KeptPhrase {
  readonly type: 'phrase';
  readonly name: string;
  readonly tags: readonly string[];
  readonly root: string;
  readonly scale: string;
  /** What its open strings sound, the capo counted in: MIDI numbers, string 1 first. */
  readonly open: readonly number[];
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly notes: readonly PhraseNote[];
}
export type PhrasePart = KeptPhrase | Part;

export const isPhrase = (part: PhrasePart): part is KeptPhrase => part['type'] === 'phrase';

/** The longest name of a phrase, and how many quarter notes its bars may have. */
export const PHRASE_KEPT = { name: 60, beats: [2, 12] } as const;

/** What stands for each way to reach a note in a word. */
const JOINED = { slur: 'u', slide: 's', tap: 'k' } as const;
type Joined = keyof typeof JOINED;

/** A note in a word: "2.8_480", "r_960", and what it has more: "3.7_480ub4sr". */
function noteWord({ at, length, joined, bend, vibrato, accent, finger }: PhraseNote): string {
  return [
    at ? `${at.string}.${at.fret}` : 'r',
    `_${length}`,
    joined ? JOINED[joined] : '',
    bend ? `b${bend.by * 2}${bend.how === 'slowly' ? 's' : 'o'}${bend.released ? 'r' : ''}` : '',
    vibrato ? `v${vibrato.cents}-${vibrato.waves}` : '',
    accent ? 'a' : '',
    finger ? `f${finger}` : '',
  ].join('');
}
const NOTE = /^(?:r|(\d+)\.(\d+))_(\d+)([usk]?)(?:b(\d+)([so])(r?))?(?:v(\d+)-(\d+))?(a?)(?:f(\d))?$/;
/** What such a word says; what cannot be read is left to the schema. */
function noteFrom(word: string): unknown {
  const read = NOTE.exec(word);
  if (!read) return null;
  const [, string, fret, length, joined, by, how, released, cents, waves, accent, finger] = read;
  return {
    at: string === undefined ? null : { string: Number(string), fret: Number(fret) },
    length: Number(length),
    ...(joined && { joined: (Object.keys(JOINED) as Joined[]).find((id) => JOINED[id] === joined) }),
    ...(by && {
      bend: { by: Number(by) / 2, how: how === 's' ? 'slowly' : 'once', released: released === 'r' },
    }),
    ...(cents && { vibrato: { cents: Number(cents), waves: Number(waves) } }),
    ...(accent && { accent: true }),
    ...(finger && { finger: Number(finger) }),
  };
}

/** What is kept of phrases in one word of an address, its name last. */
export function phraseWord(part: PhrasePart): string {
  if (!isPhrase(part)) return `unread;${JSON.stringify(part)}`;
  const { root, scale, open, beats, notes, tags, name } = part;
  return [
    'phrase',
    root,
    scale,
    open.join('-'),
    beats,
    notes.map(noteWord).join(' '),
    tags.map(encodeURIComponent).join(' '),
    name,
  ].join(';');
}
/** What such a word says. */
export function phraseFrom(word: string): unknown {
  const [type, root, scale, open = '', beats, notes = '', tags = '', ...name] = word.split(';');
  if (type !== 'phrase')
    try {
      return JSON.parse(word.slice('unread;'.length)) as unknown;
    } catch {
      return null;
    }
  const words = (text: string): readonly string[] => text.split(' ').filter((it) => it !== '');
  try {
    return {
      type,
      name: name.join(';'),
      tags: words(tags).map(decodeURIComponent),
      root,
      scale,
      open: open.split('-').map(Number),
      beats: Number(beats),
      notes: words(notes).map(noteFrom),
    };
  } catch {
    return null;
  }
}
