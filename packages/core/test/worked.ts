import {
  type HandOptions,
  type Key,
  type Limits,
  notesBetween,
  pitchAt,
  type Place,
  plan,
  type Planned,
  type PlanTask,
} from './core.ts';
import { key, neckWith } from './helpers.ts';

/** A climb as a player asks for it, and as it is taught: frets and fingers string by string, `s` before a finger that slides there. */
export interface WorkedClimb {
  readonly asked: string;
  readonly task: PlanTask;
  readonly frets: string;
  readonly fingers: string;
}

const FOUR: HandOptions = { school: 'onePerFret', spanMm: 110 };
const STANDARD = 'E2 A2 D3 G3 B3 E4';

function asked(
  [root, scale]: readonly [string, string],
  from: Place,
  to: { readonly octaves: number } | Place,
  more: { readonly strings?: string; readonly hand?: HandOptions; readonly limits?: Limits } = {},
): PlanTask {
  const neck = neckWith(more.strings ?? STANDARD, 22);
  const k: Key = key(root, scale);
  const first = pitchAt(neck, from.string, from.fret);
  const end =
    'octaves' in to
      ? { midi: first + 12 * to.octaves, place: null }
      : { midi: pitchAt(neck, to.string, to.fret), place: to };
  return {
    neck,
    hand: more.hand ?? FOUR,
    notes: notesBetween({ neck, key: k }, { midi: first, place: from }, end, false),
    limits: more.limits ?? {},
    speed: 4,
  };
}
const on = (string: number, fret: number): Place => ({ string, fret });
const same = (frets: string) => ({ frets, fingers: frets });

/** Handbook, section 9, “More worked climbs”. */
export const WORKED: readonly WorkedClimb[] = [
  {
    asked: 'E minor pentatonic from string 6 open',
    task: asked(['E', 'minor-pentatonic'], on(6, 0), { octaves: 2 }),
    ...same('0 3/0 2/0 2/0 2/0 3/0'),
  },
  {
    asked: 'C major from string 5 fret 3',
    task: asked(['C', 'major'], on(5, 3), { octaves: 1 }),
    ...same('3/0 2 3/0 2/0 1'),
  },
  {
    asked: 'F major from string 6 fret 1',
    task: asked(['F', 'major'], on(6, 1), { octaves: 2 }),
    ...same('1 3/0 1 3/0 2 3/0 2 3/1 3/0 1'),
  },
  {
    asked: 'C major on G C E A from string 3 open',
    task: asked(['C', 'major'], on(3, 0), { octaves: 1 }, { strings: 'G4 C4 E4 A4' }),
    ...same('0 2/0 1 3/0 2 3'),
  },
  {
    asked: 'E minor pentatonic on a bass',
    task: asked(['E', 'minor-pentatonic'], on(4, 0), { octaves: 1 }, { strings: 'E1 A1 D2 G2' }),
    ...same('0 3/0 2/0 2'),
  },
  {
    asked: 'G major from string 6 fret 3, closed',
    task: asked(['G', 'major'], on(6, 3), { octaves: 2 }, { limits: { closed: true } }),
    frets: '3 5/2 3 5/2 4 5/2 4 5/3 5/2 3',
    fingers: '2 4/1 2 4/1 3 4/1 3 4/2 4/1 2',
  },
  {
    asked: 'A blues from string 6 fret 5',
    task: asked(['A', 'minor-blues'], on(6, 5), { octaves: 2 }),
    frets: '5 8/5 6 7/5 7/5 7 8/5 8/5',
    fingers: '1 4/1 2 3/1 3/1 3 4/1 4/1',
  },
  {
    asked: 'A natural minor, three a string',
    task: asked(['A', 'natural-minor'], on(6, 5), on(1, 10), { limits: { least: 3, most: 3 } }),
    frets: '5 7 8/5 7 8/5 7 9/5 7 9/6 8 10/7 8 10',
    fingers: '1 3 4/1 3 4/1 3 4/1 3 4/1 3 4/1 2 4',
  },
  {
    asked: 'C major on string 2 from 1',
    task: asked(['C', 'major'], on(2, 1), { octaves: 1 }, { limits: { strings: [2] } }),
    frets: '1 3 5 6 8 10 12 13',
    fingers: '1 3 s3 4 1 3 s3 4',
  },
  {
    asked: 'chromatic from string 6 fret 5',
    task: asked(['A', 'chromatic'], on(6, 5), on(1, 4)),
    frets: '5 6 7 8/4 5 6 7/3 4 5 6/2 3 4 5/2 3 4 5/1 2 3 4',
    fingers: '1 2 3 4/1 2 3 4/1 2 3 4/1 2 3 4/1 2 3 4/1 2 3 4',
  },
];

const SLIDES: HandOptions = { school: 'slides', spanMm: 110 };
const SHORT: HandOptions = { school: 'oneTwoFour', spanMm: 90 };
/** The schools of basses and of the diagonal: handbook, sections 4 and 9. */
export const WORKED_IN_SCHOOLS: readonly WorkedClimb[] = [
  {
    asked: 'E minor pentatonic on a bass, 1 2 4',
    task: asked(['E', 'minor-pentatonic'], on(4, 0), { octaves: 1 }, { strings: 'E1 A1 D2 G2', hand: SHORT }),
    frets: '0 3/0 2/0 2',
    fingers: '0 4/0 2/0 2',
  },
  {
    asked: 'D minor pentatonic, diagonal, with slides',
    task: asked(['D', 'minor-pentatonic'], on(6, 8), on(1, 17), { hand: SLIDES }),
    frets: '8 10/8 10 12/10 12/10 12 14/13 15/13 15 17',
    fingers: '1 3/1 3 s3/1 3/1 3 s3/1 3/1 3 s3',
  },
];

/** A way as it is written: frets and fingers, string by string. */
export function written({ steps, moves }: Planned): { readonly frets: string; readonly fingers: string } {
  const slid = new Set(moves.flatMap((m) => (m.way === 'slide' ? [m.to] : [])));
  const by = (word: (i: number) => string): string =>
    steps
      .map((s, i) => (i && steps[i - 1]!.spot.string !== s.spot.string ? '/' : i ? ' ' : '') + word(i))
      .join('');
  return {
    frets: by((i) => String(steps[i]!.spot.fret)),
    fingers: by((i) => `${slid.has(i) ? 's' : ''}${steps[i]!.finger}`),
  };
}

/** Which of the easiest ways is the one that is taught, from 1; 0 where none of `among` is. */
export function placeOf({ task, frets, fingers }: WorkedClimb, among: number): number {
  return plan(task, among).findIndex((p) => written(p).frets === frets && written(p).fingers === fingers) + 1;
}
