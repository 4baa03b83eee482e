import { type FileBar, type FileNote, type FileVoice, inOrder } from '../found.ts';

/** A note while it is read. */
export interface Open {
  step: string;
  alter: number;
  octave: number | null;
  duration: number;
  voice: string;
  staff: number;
  rest: boolean;
  chord: boolean;
  skipped: string | null;
  tieStart: boolean;
  tieStop: boolean;
  slurs: number;
  slurStops: number;
  join: FileNote['joined'];
  string?: number;
  fret?: number;
  finger?: number;
  bend: number | null;
  slow: boolean;
  released: boolean;
  vibrato: boolean;
  accent: boolean;
}
export const opened = (): Open => ({
  step: '',
  alter: 0,
  octave: null,
  duration: 0,
  voice: '1',
  staff: 1,
  rest: false,
  chord: false,
  skipped: null,
  tieStart: false,
  tieStop: false,
  slurs: 0,
  slurStops: 0,
  join: undefined,
  bend: null,
  slow: false,
  released: false,
  vibrato: false,
  accent: false,
});

/** Notes of a voice, and what goes on in it. */
export interface VoiceOpen {
  readonly staff: number;
  readonly name: string;
  readonly notes: FileNote[];
  /** Notes that are tied on, by their pitch, as places among the notes. */
  readonly ties: Map<number, number>;
  slurs: number;
}
/** A part while it is read; times in quarter notes. */
export interface PartOpen {
  name: string;
  divisions: number;
  barStart: number;
  cursor: number;
  reached: number;
  last: number;
  nth: number;
  transpose: number;
  readonly voices: Map<string, VoiceOpen>;
  readonly bars: FileBar[];
  readonly tab: Set<number>;
  readonly strings: Map<number, number>;
  capo: number;
}
export const begun = (name: string): PartOpen => ({
  name,
  divisions: 1,
  barStart: 0,
  cursor: 0,
  reached: 0,
  last: 0,
  nth: 0,
  transpose: 0,
  voices: new Map(),
  bars: [],
  tab: new Set(),
  strings: new Map(),
  capo: 0,
});

/** A staff and a tablature that say the same are one voice: that of the tablature, with what the staff tells more. */
export function merged(part: PartOpen): readonly FileVoice[] {
  const voices = [...part.voices.values()].filter(({ notes }) => notes.length);
  const told = voices.filter(({ staff }) => part.tab.has(staff));
  const at = (it: FileNote): string => `${it.start} ${it.midi}`;
  const places = new Map(told.flatMap(({ notes }) => notes.map((it) => [at(it), it] as const)));
  const rest = voices.filter((it) => !told.includes(it));
  const same = told.length ? rest.filter(({ notes }) => notes.every((it) => places.has(at(it)))) : [];
  const more = new Map(same.flatMap(({ notes }) => notes.map((it) => [at(it), it] as const)));
  return voices
    .filter((it) => !same.includes(it))
    .map(({ name, notes }) => ({
      name,
      notes: inOrder(
        notes.map((it) => {
          const { finger, accent, vibrato, joined, bend } = more.get(at(it)) ?? it;
          return {
            ...it,
            ...(finger !== undefined && it.finger === undefined && { finger }),
            ...(accent && { accent }),
            ...(vibrato && { vibrato }),
            ...(joined && !it.joined && { joined }),
            ...(bend && !it.bend && { bend }),
          };
        }),
      ),
    }));
}

/** What the strings of a part sound open, string 1 first, the capo counted in. */
export function openOf({ strings, capo }: PartOpen): readonly number[] | null {
  const lines = [...strings.keys()].sort((a, b) => b - a);
  const isWhole = lines.length > 2 && lines.every((line, i) => line === lines.length - i);
  return isWhole ? lines.map((line) => strings.get(line)! + capo) : null;
}
