import {
  type DrillSpec, LADDER_LIMITS, type NotesPerBeat, PICKING_SCHOOLS, type PickingSchool, type Rung, SWING, TEMPO, type TempoLadder,
} from '@crow-ladder/core'; // prettier-ignore
import { type Params } from '../../frame/task.ts';
import { type Strike } from '../../model/way.ts';
import { drillFrom, drillWord } from './words.ts';

/** How many notes a beat has, by the name of what they are. */
export const NOTE_LENGTHS = [
  { id: '1', name: 'quarters' },
  { id: '2', name: 'eighths' },
  { id: '3', name: 'triplets' },
  { id: '4', name: 'sixteenths' },
  { id: '6', name: 'sextuplets' },
] as const;

/** How the notes of a drill are struck. */
export const TOUCHES: readonly { readonly id: Strike; readonly name: string }[] = [
  { id: 'picked', name: 'pick every note' },
  { id: 'slurred', name: 'hammer on and pull off where the fingers can' },
  { id: 'tapped', name: 'tap the highest note on each string' },
];

export interface PracticeParams {
  /** The drill that is looked at; null is the first one with its usual options. */
  readonly drill: DrillSpec | null;
  readonly perBeat: NotesPerBeat;
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** In per cent of the beat. */
  readonly swing: number;
  readonly touch: Strike;
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
  /** Which note is looked at or heard, from 0; not in the address, as it moves while it plays. */
  readonly step: number;
}

export const AT_FIRST: PracticeParams = {
  drill: null,
  perBeat: 2,
  tempo: 72,
  swing: SWING.least,
  touch: 'picked',
  school: 'strict',
  loop: true,
  countIn: true,
  part: null,
  ladder: null,
  rung: { clean: 0, best: null },
  notes: 90,
  click: 70,
  step: 0,
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
const unless = (value: string | number, first: string | number): string | null =>
  value === first ? null : String(value);

export const params: Params<PracticeParams> = {
  read: (query) => {
    const drill = query.get('drill');
    return {
      ...AT_FIRST,
      drill: drill === null ? null : drillFrom(drill),
      perBeat: (Number(NOTE_LENGTHS.find((n) => n.id === query.get('beat'))?.id) ||
        AT_FIRST.perBeat) as NotesPerBeat,
      tempo: whole(query.get('tempo'), TEMPO.least, TEMPO.most, AT_FIRST.tempo),
      swing: whole(query.get('swing'), SWING.least, SWING.most, AT_FIRST.swing),
      touch: TOUCHES.find((t) => t.id === query.get('touch'))?.id ?? AT_FIRST.touch,
      school: PICKING_SCHOOLS.find((s) => s.id === query.get('strokes'))?.id ?? AT_FIRST.school,
      loop: query.get('loop') !== 'no',
      countIn: query.get('count') !== 'no',
      part: partFrom(query.get('part')),
      ladder: ladderFrom(query.get('climb')),
    };
  },
  write: ({ drill, perBeat, tempo, swing, touch, school, loop, countIn, part, ladder }) => ({
    drill: drill && drillWord(drill),
    beat: unless(perBeat, AT_FIRST.perBeat),
    tempo: unless(tempo, AT_FIRST.tempo),
    swing: unless(swing, AT_FIRST.swing),
    touch: unless(touch, AT_FIRST.touch),
    strokes: unless(school, AT_FIRST.school),
    loop: loop ? null : 'no',
    count: countIn ? null : 'no',
    part: part && part.map((n) => n + 1).join('.'),
    climb: ladder && [ladder.to, ladder.step, ladder.rounds].join('.'),
  }),
};
