/** Limits for files that come from elsewhere: bytes, and notes. */
export const FILE_LIMITS = { bytes: 5 * 1024 * 1024, notes: 20_000 } as const;

/** What a format is called, how its files end, and what it can never carry. */
export interface Named {
  readonly kind: string;
  readonly name: string;
  /** Endings of file names, the usual one first, without the dot. */
  readonly extensions: readonly string[];
  readonly mime: string;
  /** What it can never carry, in words: for the docs, and beside the choice. */
  readonly lacks: string;
}

/** The formats for music, in the order in which they are offered. */
export const NAMED = {
  text: {
    kind: 'text',
    name: 'tablature as text',
    extensions: ['txt', 'tab'],
    mime: 'text/plain',
    lacks: 'how deep and fast a vibrato is',
  },
  musicxml: {
    kind: 'musicxml',
    name: 'MusicXML',
    extensions: ['musicxml', 'xml', 'mxl'],
    mime: 'application/vnd.recordare.musicxml+xml',
    lacks: 'how deep and fast a vibrato is',
  },
  midi: {
    kind: 'midi',
    name: 'MIDI',
    extensions: ['mid', 'midi'],
    mime: 'audio/midi',
    lacks: 'fingers, slurs, slides and taps',
  },
  abc: {
    kind: 'abc',
    name: 'ABC notation',
    extensions: ['abc'],
    mime: 'text/vnd.abc',
    lacks: 'strings and frets, bends, vibrato and taps',
  },
} as const satisfies Readonly<Record<string, Named>>;
export type FormatKind = keyof typeof NAMED;
/** Every kind of format for music. */
export const FORMAT_KINDS = Object.keys(NAMED) as readonly FormatKind[];

/** Which of the notes that sound together are taken. */
export const CHORD_WAYS = [
  { id: 'top', name: 'the top line' },
  { id: 'bottom', name: 'the bottom line' },
  { id: 'refuse', name: 'none: refuse them' },
] as const;
export type ChordWay = (typeof CHORD_WAYS)[number]['id'];
