import { type DrillSpec } from '@crow-ladder/core/drills';
import { LADDER_LIMITS, type Rung, type TempoLadder } from '@crow-ladder/core/practice';
import {
  type NotesPerBeat,
  PICKING_SCHOOLS,
  type PickingSchool,
  type Strike,
  STRIKES,
  type Stroke,
  STROKES,
  SWING,
  TEMPO,
} from '@crow-ladder/core/run';
import { type Drone } from '@crow-ladder/core/sound';
import { type HeardNotes } from '../../hearing/heardNotes.ts';
import { type Params } from '../../task/task.ts';
import { NOTE_LENGTHS } from '../../ui/labels.ts';
import { drillFrom, drillWord } from './words.ts';

/** How a drill is read. */
export const READINGS = [
  { id: 'staff', name: 'staff and tablature' },
  { id: 'tablature', name: 'tablature' },
  { id: 'text', name: 'tablature as text' },
] as const;
/** From how far away it is read, and how high its numbers are for that, in px. */
export const SIZES = [
  { id: 'close', name: 'close by', px: 14 },
  { id: 'arm', name: 'at arm’s length', px: 18 },
  { id: 'stand', name: 'a metre away', px: 36 },
] as const;
/** An upright screen is held in the hand, or stands where the hand reaches it. */
export const usualSize = (narrow: boolean): IdOf<typeof SIZES> => (narrow ? 'arm' : 'close');
/** What a player says of each note before it sounds. */
export const SAYINGS = [
  { id: 'no', name: 'nothing' },
  { id: 'note', name: 'its name' },
  { id: 'degree', name: 'its degree' },
] as const;
/** What sounds under a drill. */
export const DRONES = [
  { id: 'root', name: 'the root' },
  { id: 'chord', name: 'its plain chord' },
] as const satisfies readonly { readonly id: Drone; readonly name: string }[];

/** The most bars to play in after a bar of chords. */
export const MOST_LEFT = 16;

/** Any of what a player can choose from. */
export type IdOf<T extends readonly { readonly id: string }[]> = T[number]['id'];

/** What one of them is called. */
export const named = <T extends string>(
  of: readonly { readonly id: T; readonly name: string }[],
  id: T,
): string => of.find((it) => it.id === id)!.name;

export interface PracticeParams {
  /** The drill that is looked at; null is the first one with its usual options. */
  readonly drill: DrillSpec | null;
  /** What is drilled, as `materialsOf` names it. */
  readonly on: string;
  readonly perBeat: NotesPerBeat;
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** What the player set the tempo for; for anything else it begins where that is comfortable. Not in the address. */
  readonly setFor: string | null;
  /** In per cent of the beat. */
  readonly swing: number;
  readonly touch: Strike;
  /** The stroke that begins, where strokes alternate whatever the beat. */
  readonly begins: Stroke;
  /** Whether the first note of a group is louder. */
  readonly accents: boolean;
  /** Two bars sound, two are left free. */
  readonly answer: boolean;
  /** Bars to play in after each bar of chords alone; 0 where chords sound in every bar. */
  readonly leave: number;
  readonly reading: IdOf<typeof READINGS>;
  /** Null is what is usual on the screen. */
  readonly size: IdOf<typeof SIZES> | null;
  readonly say: IdOf<typeof SAYINGS>;
  /** Whether what is said is chosen, or only said aloud. */
  readonly choosing: boolean;
  readonly drone: Drone;
  readonly school: PickingSchool;
  readonly loop: boolean;
  readonly countIn: boolean;
  /** The first and the last note that are played, from 0; null is all of them. */
  readonly part: readonly [number, number] | null;
  /** Null where the tempo stays. */
  readonly ladder: TempoLadder | null;
  /** How the rounds at this tempo were; not in the address. */
  readonly rung: Omit<Rung, 'tempo'>;
  /** How loud notes and clicks are, from 0 to 100; not in the address. */
  readonly notes: number;
  readonly click: number;
  readonly under: number;
  /** The chords that sound along, as `underneath` knows them; null is what is usual: those of the progression, where the chart has one. */
  readonly chords: string | null;
  /** How loud they are; null is what is usual: heard under a line through them, and where they were asked for. Not in the address. */
  readonly along: number | null;
  /** Which note is looked at or heard, from 0; not in the address, as it moves while it plays. */
  readonly step: number;
  /** What was heard of the notes of a round; not in the address. */
  readonly heard: HeardNotes | null;
}

export const AT_FIRST: PracticeParams = {
  drill: null,
  on: 'position',
  perBeat: 2,
  tempo: 72,
  setFor: null,
  swing: SWING.least,
  touch: 'picked',
  begins: 'down',
  accents: true,
  answer: false,
  leave: 0,
  reading: 'staff',
  size: null,
  say: 'no',
  choosing: true,
  drone: 'root',
  school: 'strict',
  loop: true,
  countIn: true,
  part: null,
  ladder: null,
  rung: { clean: 0, best: null },
  notes: 90,
  click: 70,
  under: 50,
  chords: null,
  along: null,
  step: 0,
  heard: null,
};

/** A whole number of an address within bounds, or what stands there at first. */
const whole = (word: string | null, least: number, most: number, first: number): number => {
  const n = Number(word);
  return word !== null && Number.isInteger(n) && n >= least && n <= most ? n : first;
};
const within = (n: number, [least, most]: readonly [number, number]): boolean =>
  Number.isInteger(n) && n >= least && n <= most;
const NOTES = [1, 9999] as const;
/** "2.4": from the second to the fourth note. */
function partFrom(word: string | null): PracticeParams['part'] {
  const [from = 0, to = 0, ...more] = (word ?? '').split('.').map(Number);
  return more.length === 0 && within(from, NOTES) && within(to, NOTES) && from <= to
    ? [from - 1, to - 1]
    : null;
}
/** "160.5.2": up to 160 by 5 after two clean rounds. */
function ladderFrom(word: string | null): TempoLadder | null {
  const [to = 0, step = 0, rounds = 0] = (word ?? '').split('.').map(Number);
  const fits =
    within(to, [TEMPO.least, TEMPO.most]) &&
    within(step, LADDER_LIMITS.step) &&
    within(rounds, LADDER_LIMITS.rounds);
  return fits ? { to, step, rounds } : null;
}
/** One of the ids that there are, or what stands there at first. */
const oneOf = <T extends string>(of: readonly { readonly id: T }[], word: string | null, first: T): T =>
  of.find((it) => it.id === word)?.id ?? first;
const unless = (value: string | number, first: string | number): string | null =>
  value === first ? null : String(value);

/** A tempo that an address gives holds for whatever is opened with it. */
export const ANYTHING = '*';

export const params: Params<PracticeParams> = {
  read: (query) => {
    const drill = query.get('drill');
    return {
      ...AT_FIRST,
      drill: drill === null ? null : drillFrom(drill),
      perBeat: (Number(NOTE_LENGTHS.find((n) => n.id === query.get('beat'))?.id) ||
        AT_FIRST.perBeat) as NotesPerBeat,
      on: query.get('on') ?? AT_FIRST.on,
      setFor: query.has('tempo') ? ANYTHING : null,
      tempo: whole(query.get('tempo'), TEMPO.least, TEMPO.most, AT_FIRST.tempo),
      swing: whole(query.get('swing'), SWING.least, SWING.most, AT_FIRST.swing),
      touch: oneOf(STRIKES, query.get('touch'), AT_FIRST.touch),
      begins: oneOf(STROKES, query.get('begins'), AT_FIRST.begins),
      accents: query.get('accents') !== 'no',
      school: oneOf(PICKING_SCHOOLS, query.get('strokes'), AT_FIRST.school),
      answer: query.get('answer') === 'yes',
      leave: whole(query.get('leave'), 0, MOST_LEFT, AT_FIRST.leave),
      chords: query.get('along'),
      reading: oneOf(READINGS, query.get('read'), AT_FIRST.reading),
      size: SIZES.find(({ id }) => id === query.get('size'))?.id ?? null,
      say: oneOf(SAYINGS, query.get('say'), AT_FIRST.say),
      choosing: query.get('aloud') !== 'yes',
      drone: oneOf(DRONES, query.get('drone'), AT_FIRST.drone),
      loop: query.get('loop') !== 'no',
      countIn: query.get('count') !== 'no',
      part: partFrom(query.get('part')),
      ladder: ladderFrom(query.get('climb')),
    };
  },
  write: ({
    drill,
    on,
    perBeat,
    tempo,
    setFor,
    swing,
    touch,
    begins,
    accents,
    answer,
    leave,
    chords,
    reading,
    size,
    say,
    choosing,
    drone,
    school,
    loop,
    countIn,
    part,
    ladder,
  }) => ({
    drill: drill && drillWord(drill),
    beat: unless(perBeat, AT_FIRST.perBeat),
    on: unless(on, AT_FIRST.on),
    tempo: setFor === null ? null : String(tempo),
    swing: unless(swing, AT_FIRST.swing),
    touch: unless(touch, AT_FIRST.touch),
    begins: unless(begins, AT_FIRST.begins),
    accents: accents ? null : 'no',
    answer: answer ? 'yes' : null,
    leave: unless(leave, AT_FIRST.leave),
    along: chords,
    read: unless(reading, AT_FIRST.reading),
    size,
    say: unless(say, AT_FIRST.say),
    aloud: choosing ? null : 'yes',
    drone: unless(drone, AT_FIRST.drone),
    strokes: unless(school, AT_FIRST.school),
    loop: loop ? null : 'no',
    count: countIn ? null : 'no',
    part: part && part.map((n) => n + 1).join('.'),
    climb: ladder && [ladder.to, ladder.step, ladder.rounds].join('.'),
  }),
};
