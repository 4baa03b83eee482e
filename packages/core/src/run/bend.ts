import { ok, type Refusal, refuse, type Result } from '../result.ts';
import { type Articulated, type Bend, TAP, type Vibrato } from './run.ts';

/** How far a string is bent, in half steps: a quarter tone, and more by as much. */
export const BEND = { least: 0.5, most: 3, step: 0.5 } as const;
/** How deep a vibrato is, in cents, and how fast, in waves a second. */
export const VIBRATO = { cents: [10, 100], waves: [3, 9] } as const;

/** Below this fret a string is hard to bend, and a wound one is by more than this, in half steps (common practice, no source). */
const HARD = { fret: 3, wound: 1 } as const;

/** A vibrato as it is usually played, where no more is said than that there is one (this project's own judgement). */
export const USUAL_VIBRATO: Vibrato = { cents: 40, waves: 5 };

/** How a note is held: bent, or with vibrato, or both. */
export type Held = Pick<Articulated, 'bend' | 'vibrato'>;

/**
 * Whether a string can be bent by so many half steps: a quarter tone to three half steps, in quarter tones.
 *
 * @example isBend(3.5) // false
 */
export const isBend = (by: number): boolean => by >= BEND.least && by <= BEND.most && by % BEND.step === 0;
const between = (n: number, [least, most]: readonly [number, number]): boolean => n >= least && n <= most;

/** What cannot be played so, and why. */
function refused({ finger, spot }: Articulated, { bend, vibrato }: Held): Refusal | null {
  const no = (code: string, message: string): Refusal => refuse(code, message).error;
  if (finger === TAP)
    return no('held.tap', 'A tapped note has no finger that could bend it: have it picked, or slurred.');
  if (spot.fret === 0)
    return bend
      ? no('bend.open', 'An open string cannot be bent: take the note on another string, or another note.')
      : no('vibrato.open', 'An open string is held by no finger: take the note on another string.');
  if (bend && !isBend(bend.by))
    return no(
      'bend.far',
      `A string can be bent by a quarter tone to three half steps, in quarter tones: not by ${bend.by} half steps.`,
    );
  if (vibrato && !(between(vibrato.cents, VIBRATO.cents) && between(vibrato.waves, VIBRATO.waves)))
    return no(
      'vibrato.far',
      `A vibrato is ${VIBRATO.cents.join(' to ')} cents deep and has ${VIBRATO.waves.join(' to ')} waves a second.`,
    );
  return null;
}

/**
 * What is hard about a bend by so many half steps, in the player's terms; strings with a number above `plain` are wound.
 *
 * @example bendRemarks({ spot: { string: 6, fret: 1 } }, 2, 3).length // 2
 */
export function bendRemarks(
  { spot: { fret, string } }: { readonly spot: Pick<Articulated['spot'], 'fret' | 'string'> },
  by: number,
  plain: number,
): readonly Refusal[] {
  const hard = (code: string, message: string): Refusal => ({ code, message });
  return [
    ...(fret < HARD.fret
      ? [hard('bend.low', `Below fret ${HARD.fret} a string is hard to bend: it is short of give there.`)]
      : []),
    ...(string > plain && by > HARD.wound
      ? [hard('bend.wound', `String ${string} is wound: more than a half step is hard to bend there.`)]
      : []),
  ];
}

/**
 * A note of a run bent, held with vibrato, or both; strings with a number above `plain` are wound. What it asks more of the hand than
 * is usual is remarked. Codes: `bend.open`, `vibrato.open`, `held.tap`, `bend.far` (0.5 to 3 half steps) and `vibrato.far`.
 *
 * @example heldSo(articulate(steps)[1], { bend: { by: 2, how: 'once', released: false } }, 3).value.remarks[0].code // "bend.wound"
 */
export function heldSo<S extends Articulated>(
  step: S,
  held: Held,
  plain: number,
): Result<{ readonly step: S; readonly remarks: readonly Refusal[] }> {
  const no = refused(step, held);
  if (no) return { ok: false, error: no };
  return ok({
    step: { ...step, ...held },
    remarks: held.bend ? bendRemarks(step, held.bend.by, plain) : [],
  });
}

/** How soon a bend at once is there, in seconds, and parts of the note's length: this project's own judgement. */
const AT_ONCE = { seconds: 0.06, part: 0.25 };
const SLOWLY = { there: 0.375, held: 0.625, back: 0.875 };
/** A vibrato begins when the note was heard straight for so long, in seconds, or a quarter of it. */
const STRAIGHT = { seconds: 0.12, part: 0.25 };

/** When a bend is there, when it is let go and when it is back, in seconds from the beginning of a note of a length in seconds. */
export interface BendTimes {
  readonly there: number;
  readonly letGo: number;
  readonly back: number;
}
/**
 * When a bend arrives and, where it is released, leaves and is back, in seconds: at once within 60 ms, slowly over three eighths of
 * the note; released it is held as long as it was on its way, at least to the middle.
 *
 * @example bendTimes({ by: 2, how: 'slowly', released: true }, 1) // {"there":0.375,"letGo":0.625,"back":0.875}
 */
export function bendTimes({ how, released }: Bend, seconds: number): BendTimes {
  const there = how === 'once' ? Math.min(AT_ONCE.seconds, AT_ONCE.part * seconds) : SLOWLY.there * seconds;
  const letGo = how === 'once' ? seconds / 2 : SLOWLY.held * seconds;
  return released ? { there, letGo, back: SLOWLY.back * seconds } : { there, letGo: seconds, back: seconds };
}

/** From 0 to 1 without a corner. */
const eased = (part: number): number => (1 - Math.cos(Math.PI * Math.max(0, Math.min(1, part)))) / 2;

/**
 * How much higher than its fret a note sounds `at` seconds after it began, in half steps; it is `seconds` long. A finger can only
 * raise a string: an unbent note wavers above its pitch, a bent one below the one that it was bent to.
 *
 * @example bentAt({ bend: { by: 2, how: 'once', released: false } }, 0.5, 1) // 2
 */
export function bentAt({ bend, vibrato }: Held, at: number, seconds: number): number {
  const times = bend && bendTimes(bend, seconds);
  const up = times ? bend.by * Math.min(eased(at / times.there), 1 - back(times, at)) : 0;
  if (!vibrato) return up;
  const from = times?.there ?? Math.min(STRAIGHT.seconds, STRAIGHT.part * seconds);
  if (at < from || at > (times?.letGo ?? seconds)) return up;
  const wave = (vibrato.cents / 100) * ((1 - Math.cos(2 * Math.PI * vibrato.waves * (at - from))) / 2);
  return Math.max(0, bend ? up - wave : wave);
}
const back = ({ letGo, back: until }: BendTimes, at: number): number =>
  at <= letGo || until === letGo ? 0 : eased((at - letGo) / (until - letGo));

/** How far a bend goes, by its quarter tones. */
const FAR = [
  '',
  'a quarter tone',
  'a half step',
  'three quarter tones',
  'a whole step',
  'five quarter tones',
  'three half steps',
];
/** The same in whole steps, as it stands over tablature (common practice, no source). */
const SIGNS = ['', '¼', '½', '¾', '1', '1¼', '1½'];
/**
 * How far a bend goes as it stands over tablature: in whole steps.
 *
 * @example bendSign({ by: 1, how: 'once', released: false }) // "½"
 */
export const bendSign = ({ by }: Bend): string => SIGNS[by / BEND.step] ?? '';

/**
 * How a note is held, in words; null where it is held as usual.
 *
 * @example heldSaid({ bend: { by: 2, how: 'slowly', released: true } }) // "bent by a whole step, slowly, and released"
 */
export function heldSaid({ bend, vibrato }: Held): string | null {
  const parts = [
    ...(bend
      ? [
          `bent by ${FAR[bend.by / BEND.step]}${bend.how === 'slowly' ? ', slowly' : ''}${bend.released ? `${bend.how === 'slowly' ? ',' : ''} and released` : ''}`,
        ]
      : []),
    ...(vibrato ? [`held with vibrato, ${vibrato.cents} cents, ${vibrato.waves} waves a second`] : []),
  ];
  return parts.join(', ') || null;
}

/**
 * How a note is held in plain tablature, after its fret: `b` and the fret that it sounds like, `b>` where it gets there slowly, `r` and
 * the fret that it is released to, `~` for vibrato.
 *
 * @example heldText(7, { bend: { by: 2, how: 'once', released: true }, vibrato: { cents: 30, waves: 5 } }) // "b9r7~"
 */
export function heldText(fret: number, { bend, vibrato }: Held): string {
  const to = bend ? fret + bend.by : fret;
  const like = `${Math.floor(to)}${to % 1 ? '½' : ''}`;
  return [
    bend ? `b${bend.how === 'slowly' ? '>' : ''}${like}${bend.released ? `r${fret}` : ''}` : '',
    vibrato ? '~' : '',
  ].join('');
}
