import { type Neck, onNeck } from '../neck.ts';
import { type Place, type Spot } from '../place.ts';
import { frettedGrips, type Grip, type HandOptions, LAST, passage } from '../run/grips.ts';
import { type Fingered, moveBetween, presses, stretchOf, TAP } from '../run/run.ts';

/** How the hand may get from one place to another: at a string change, by a slide, closing up on one string, or while a string rings open. */
export type Way = 'change' | 'slide' | 'close' | 'open';

/** What a player rules out. What is left out is not limited. */
export interface Limits {
  /** Frets from the first to the last that one place of the hand takes: 3 is one finger per fret, 4 allows a stretch. */
  readonly reach?: number;
  /** The same in mm, whether a finger is stretched or not. */
  readonly reachMm?: number;
  /** No open strings. */
  readonly closed?: true;
  readonly strings?: readonly number[];
  /** Notes that stay on a string each time the line comes to it; the fewest do not bind its first stay and its last. */
  readonly least?: number;
  readonly most?: number;
  readonly ways?: readonly Way[];
  /** Times that the hand moves. */
  readonly shifts?: number;
}
export type LimitName = keyof Limits;

/** How a note of a phrase is reached from the one before: slurred or slid to on its string, or tapped by the picking hand. */
export type Joined = 'slur' | 'slide' | 'tap';

/** What a note asks of the fingers that take it. */
export interface Asks {
  readonly joined?: Joined | undefined;
  /** How far its string is bent, in half steps; 0 where it is held otherwise than as usual without a bend. */
  readonly bent?: number | undefined;
  /** The finger of the player's own choice, 1 to 4. */
  readonly finger?: number | undefined;
}

/** A note to be placed: its pitch, and where it may be taken. */
export interface PlanNote {
  readonly midi: number;
  readonly degree: number;
  readonly places: readonly Place[];
  readonly asks?: Asks;
}

/** What is to be planned. */
export interface PlanTask {
  readonly neck: Neck;
  readonly hand: HandOptions;
  readonly notes: readonly PlanNote[];
  readonly limits: Limits;
  /** Notes a second. */
  readonly speed: number;
  /** Strings with a number above this are wound. */
  readonly plain?: number;
  /** Whether the hand stays where it can, as in a lick; in a climb it goes along with the line at little cost. */
  readonly stays?: boolean;
}

/**
 * What takes time weighs more the faster it goes: from `from` notes a second (eighths at 120 quarter notes a minute) each
 * further note a second adds `each` to the weight of a move and of a stretch. This project's own judgement.
 */
export const HASTE = { from: 4, each: 0.15 } as const;
/**
 * What a move weighs at so many notes a second.
 *
 * @example haste(6) // 1.3
 */
export const haste = (speed: number): number => 1 + HASTE.each * Math.max(0, speed - HASTE.from);

/**
 * What a free choice of strings costs beside the hand's own work (core/run/costs), as this project judges it: the picking hand
 * has the strings to cross, and the ear an open string in the middle of notes that are pressed high up.
 */
export const LINE_COST = {
  /** Going over to another string at all, and each string passed over on the way. */
  cross: 0.1,
  skip: 0.6,
  /** A move of one fret as the string changes: the hand goes along with the line. */
  creep: 0.15,
  /** To a lower string as the line rises, or to a higher one as it falls. */
  backward: 1.2,
  /** Each fret of a move beyond so many: the hand lands out of sight of where it was. */
  farFrom: 3,
  far: 0.5,
  /** An open string, which goes into no other key with the rest; while the hand is at the nut and has been from the first note on; while it is above this fret. */
  open: 0.3,
  openAtNut: 0,
  openAbove: 4,
  openFar: 3,
} as const;

/**
 * What it costs where a note is not taken as it asks: a slur or a slide that becomes picked changes the phrase; a wound string is bent by
 * more than a half step, or by a finger that has no others to help it (players bend with the ring finger, the index alone is weak).
 * This project's own judgement.
 */
export const ASKED_COST = { unjoined: 3, wound: 2.5, index: 0.8, middle: 0.3, little: 0.5 } as const;
const BENDERS = [0, ASKED_COST.index, ASKED_COST.middle, 0, ASKED_COST.little];
/** A wound string is bent by at most so many half steps without force (common practice, no source). */
const WOUND_BENDS = 1;

/** A note taken on one of its places with one of its grips. */
export interface Choice {
  readonly spot: Spot;
  readonly grip: Grip;
  readonly asks?: Asks;
}

/**
 * A choice as a step of a run.
 *
 * @example stepOf(waysOf(task, 1)[0][0]).spot.fret // 5
 */
export const stepOf = ({ spot, grip }: Choice): Fingered => ({ spot, finger: grip.finger, hand: grip.hand });
const isStretched = (choice: Choice): boolean => stretchOf(stepOf(choice)) !== 0;

/** Whether a note may be taken so under the limits that concern one note alone. */
function allowed(task: PlanTask, choice: Choice): boolean {
  const { reach, strings, closed } = task.limits;
  if (strings && !strings.includes(choice.spot.string)) return false;
  if (closed && choice.grip.finger === 0) return false;
  return !isStretched(choice) || reach === undefined || reach >= LAST[task.hand.school];
}

/**
 * All ways to take each note. An open string leaves the hand where it is, or takes it where a near note wants it.
 *
 * @example choicesOf(task).length // 6
 */
export function choicesOf(task: PlanTask): readonly (readonly Choice[])[] {
  const { neck, hand, notes } = task;
  const fretted = notes.map(({ places, midi, degree, asks }) => {
    if (asks?.joined === 'tap') return [];
    const all = places
      .filter((p) => p.fret > 0 && onNeck(neck, p.string, p.fret))
      .flatMap((p) =>
        frettedGrips(neck, p.fret, hand).map((grip): Choice => ({
          spot: { ...p, midi, degree },
          grip,
          ...(asks && { asks }),
        })),
      );
    const own = all.filter(({ grip }) => grip.finger === asks?.finger);
    return own.length ? own : all;
  });
  const near = (i: number, by: 1 | -1): readonly number[] => {
    for (let j = i + by; fretted[j]; j += by)
      if (fretted[j]!.length) return fretted[j]!.map((c) => c.grip.hand);
    return [];
  };
  return notes.map(({ places, midi, degree, asks }, i) => {
    const isTapped = asks?.joined === 'tap';
    const open = places.filter((p) => (isTapped ? p.fret > 0 : p.fret === 0));
    const hands = new Set(
      open.length ? [...near(i, -1), ...near(i, 1), ...fretted[i]!.map((c) => c.grip.hand)] : [],
    );
    if (open.length && !hands.size) hands.add(1);
    const opens = open.flatMap((p) =>
      [...hands].map((h): Choice => ({
        spot: { ...p, midi, degree },
        grip: { finger: isTapped ? TAP : 0, hand: h, stretch: 0, cost: 0 },
        ...(asks && { asks }),
      })),
    );
    return [...fretted[i]!, ...opens].filter((c) => allowed(task, c));
  });
}

/**
 * How the hand moves from one note to the next; null where it stays.
 *
 * @example wayBetween(waysOf(task, 1)[0][0], waysOf(task, 1)[0][1]) // null
 */
export function wayBetween(a: Choice, b: Choice): Way | null {
  const move = moveBetween(a.spot, a.grip, b.spot, b.grip);
  if (move === 'stay') return null;
  if (move === 'slide') return 'slide';
  if (move === 'closeUp') return 'close';
  return a.grip.finger === 0 || b.grip.finger === 0 ? 'open' : 'change';
}

/** What a bend costs beyond the note. */
function bendCost({ plain = Infinity }: PlanTask, { spot, grip, asks }: Choice): number {
  if (!asks?.bent) return 0;
  const wound = spot.string > plain && asks.bent > WOUND_BENDS ? ASKED_COST.wound : 0;
  return wound + (BENDERS[grip.finger] ?? 0);
}

/**
 * Whether a note is reached as it asks to be, from the one before: slurs stay on a string in one place of the hand, up to a higher finger or
 * down to a lower one; a slide keeps its finger.
 *
 * @example isJoined(waysOf(task, 1)[0][0], waysOf(task, 1)[0][1]) // true
 */
export function isJoined(a: Choice | undefined, b: Choice): boolean {
  const joined = b.asks?.joined;
  if (!joined || joined === 'tap') return true;
  if (!a || a.spot.string !== b.spot.string || a.spot.fret === b.spot.fret) return false;
  const move = moveBetween(a.spot, a.grip, b.spot, b.grip);
  if (joined === 'slide') return move === 'slide';
  return move === 'stay' && b.spot.fret > a.spot.fret === b.grip.finger > a.grip.finger;
}

/**
 * Cost of taking a note so, coming from nowhere.
 *
 * @example costOf(task, waysOf(task, 1)[0][0]) // 0
 */
export const costOf = (task: PlanTask, choice: Choice): number =>
  bendCost(task, choice) + ownCost(task, choice);
const ownCost = (task: PlanTask, choice: Choice): number =>
  choice.grip.finger === 0
    ? choice.grip.hand > LINE_COST.openAbove
      ? LINE_COST.openFar
      : choice.grip.hand > 1
        ? LINE_COST.open
        : LINE_COST.openAtNut
    : choice.grip.cost * (isStretched(choice) ? haste(task.speed) : 1);

/**
 * What an open string costs more once the hand has moved: then it is not at the nut anyway.
 *
 * @example openLate(waysOf(task, 1)[0][0]) // 0
 */
export const openLate = ({ grip }: Choice): number =>
  grip.finger === 0 && grip.hand === 1 ? LINE_COST.open - LINE_COST.openAtNut : 0;

/**
 * Cost of getting from one note to the next, without what the notes themselves cost; `third`: the later one is the third on its string.
 *
 * @example costBetween(task, waysOf(task, 1)[0][0], waysOf(task, 1)[0][0], false) // 0
 */
export function costBetween(
  { neck, hand, speed, stays = false }: PlanTask,
  a: Choice,
  b: Choice,
  third: boolean,
): number {
  const moving = passage(a.spot, a.grip, b.spot, b.grip, third, hand.school);
  const far = LINE_COST.far * Math.max(0, Math.abs(b.grip.hand - a.grip.hand) - LINE_COST.farFrom);
  const along = a.spot.string === b.spot.string;
  const unjoined = isJoined(a, b) ? 0 : ASKED_COST.unjoined;
  const creeps =
    !stays &&
    !along &&
    Math.abs(b.grip.hand - a.grip.hand) === 1 &&
    presses(a.grip.finger) &&
    presses(b.grip.finger);
  const way = creeps ? Math.min(LINE_COST.creep, moving) : moving;
  const cost = unjoined + (wayBetween(a, b) ? (way + far) * haste(speed) : moving);
  if (along) return cost;
  const over = Math.abs(a.spot.string - b.spot.string) - 1;
  const rises = b.spot.midi > a.spot.midi;
  const higher = neck.open[b.spot.string - 1]! > neck.open[a.spot.string - 1]!;
  return cost + LINE_COST.cross + LINE_COST.skip * over + (rises === higher ? 0 : LINE_COST.backward);
}
