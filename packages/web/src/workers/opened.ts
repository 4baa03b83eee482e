import { type Accidentals, midiName, noteName, pretty, type Result } from '@crow-ladder/core';
import {
  asFound,
  degreeSaid,
  notesOn,
  type PhraseGround,
  type PhraseNote,
  type Told as NotKept,
  type ToldKind,
  toldSaid,
  type Tune,
} from '@crow-ladder/core/phrases';
import {
  type Choice,
  type FileRead,
  formatOf,
  lastBar,
  pieceOf,
  remarksSaid,
  taken,
  type Untimed,
} from '@crow-ladder/formats';
import { noteAtFifths } from '@crow-ladder/core/notation';
import { tablature } from '@crow-ladder/core/run';

/** A file that was chosen, dropped or pasted. */
export interface Given {
  readonly name: string;
  /** Of a file that is too big no more than that tells it is. */
  readonly bytes: Uint8Array;
  /** How many bytes the whole of it has. */
  readonly size: number;
}
/** Told how far work is, in parts of the whole where that is known. */
export type Told = (done: number) => void;
/** What the reader of files offers, away from the page; it keeps the last file that it read. */
export interface Opener {
  readonly open: (
    given: Given,
    open: readonly number[],
    untimed: Untimed,
    onProgress: Told,
  ) => Result<Summary>;
  readonly take: (
    choice: Choice,
    ground: PhraseGround,
    accidentals: Accidentals,
    onNote: Told,
  ) => Result<TakenHere>;
}

/** A line of a file that can be taken. */
export interface Line {
  readonly part: number;
  readonly voice: number;
  readonly name: string;
  readonly notes: number;
  /** From its lowest to its highest note: "E2 to C5". */
  readonly range: string;
  /** How many of its bars there are, and up to which one they fit into a phrase from the first. */
  readonly bars: number;
  readonly fits: number;
  /** What its strings sound open: "E2 A2 D3 G3 B3 E4", where the file says so. */
  readonly tuning: string | null;
  readonly title: string | null;
  readonly metre: string | null;
  readonly tempo: number | null;
  readonly key: string | null;
  /** How many places there are where notes sound together. */
  readonly chords: number;
}
/** What was found in a file. */
export interface Summary {
  readonly format: string;
  readonly timed: boolean;
  readonly lines: readonly Line[];
  readonly remarks: readonly string[];
}
/** A line as it lies on the chart's strings. */
export interface TakenHere {
  readonly notes: readonly PhraseNote[];
  readonly beats: number;
  readonly said: readonly string[];
  /** Its degrees in the chart's key: "1 ♭3 4"; null where they are too many to be read. */
  readonly degrees: string | null;
  /** The same as plain tablature, to be looked at. */
  readonly tab: string;
}

/** A minor key has the signature of the major one three fifths below it. */
const keySaid = (key: FileRead['key']): string | null =>
  key &&
  `${pretty(noteName(noteAtFifths(key.fifths + (key.minor ? 3 : 0))))} ${key.minor ? 'minor' : 'major'}`;

/** What a player is told of a file before anything of it is taken. */
export function summaryOf(name: string, bytes: Uint8Array, file: FileRead): Summary {
  const said = (midi: number): string => pretty(midiName(midi));
  const lines = file.parts.flatMap(({ name: part, voices, open }, p): readonly Line[] =>
    voices.map(({ name: voice, notes }, v) => {
      const piece = pieceOf(file, file.parts[p]!);
      const heard = notes.flatMap(({ midi }) => (midi === null ? [] : [midi]));
      const starts = new Set(notes.map(({ start }) => start));
      const lowest = heard.reduce((a, b) => Math.min(a, b), 127);
      const highest = heard.reduce((a, b) => Math.max(a, b), 0);
      return {
        part: p,
        voice: v,
        name: [part, voices.length > 1 ? `voice ${voice}` : ''].filter(Boolean).join(', '),
        notes: notes.length,
        range: heard.length ? `${said(lowest)} to ${said(highest)}` : 'none that sounds',
        bars: piece.bars.length,
        fits: lastBar(file, p, v, 1),
        tuning: open && [...open].reverse().map(said).join(' '),
        title: piece.title,
        metre: piece.metre && `${piece.metre.beats}/${piece.metre.unit}`,
        tempo: piece.tempo,
        key: keySaid(piece.key),
        chords: notes.length - starts.size,
      };
    }),
  );
  return { format: formatOf(name, bytes).name, timed: file.timed, lines, remarks: remarksSaid(file.remarks) };
}

/** Degrees that are read at a glance. */
const READ = 32;
const degreesSaid = ({ key }: PhraseGround, tune: Tune): string =>
  tune.map(({ midi }) => (midi === null ? 'rest' : pretty(degreeSaid(key, midi)))).join(' ');

/** What of a note goes with what could not be kept of it. */
const GOES: Partial<Readonly<Record<ToldKind, readonly (keyof PhraseNote)[]>>> = {
  picked: ['joined'],
  straight: ['bend', 'vibrato'],
  finger: ['finger'],
};
/** Notes without what is said to be otherwise here: what a file asks for and no hand can do is not kept. */
function asSaid(notes: readonly PhraseNote[], told: readonly NotKept[]): readonly PhraseNote[] {
  const lost = new Map<number, Set<string>>();
  for (const it of told)
    if ('note' in it) lost.set(it.note, new Set([...(lost.get(it.note) ?? []), ...(GOES[it.kind] ?? [])]));
  return notes.map((note, i) => {
    const gone = lost.get(i);
    return gone
      ? (Object.fromEntries(Object.entries(note).filter(([key]) => !gone.has(key))) as unknown as PhraseNote)
      : note;
  });
}

/** A line of a file as a phrase on the chart's neck: strings that the file has are kept, the others are planned. */
export function takenHere(
  file: FileRead,
  choice: Choice,
  ground: PhraseGround,
  accidentals: Accidentals,
  onNote: (done: number) => void,
): Result<TakenHere> {
  const line = taken(file, choice);
  if (!line.ok) return line;
  const { tune, beats, said } = line.value;
  const way = asFound(ground, tune, onNote);
  return {
    ok: true,
    value: {
      notes: asSaid(notesOn(tune, way), way.told),
      beats,
      said: [...said, ...toldSaid(way.told)],
      degrees: tune.length > READ ? null : degreesSaid(ground, tune),
      tab: tablature(way.run, ground.neck, { beats, accidentals }),
    },
  };
}
