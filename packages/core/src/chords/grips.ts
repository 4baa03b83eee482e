import { mod } from '../arithmetic.ts';
import { type Neck, pitchAt, spanOn } from '../neck.ts';
import { type PitchClass } from '../note.ts';
import { type Place } from '../place.ts';

/** A string of a grip, and what presses it. */
export interface Pressed extends Place {
  /** 0 an open string, 1 the index … 4 the little finger. */
  readonly finger: number;
}

/** A chord held: one note a string, on strings beside each other. */
export interface ChordGrip {
  /** From the lowest string up. */
  readonly places: readonly Pressed[];
  /** Frets between which the fingers press; both 0 where all strings are open. */
  readonly frets: readonly [number, number];
  /** Between the lowest and the highest finger, in mm. */
  readonly mm: number;
  /** How many fingers press. */
  readonly fingers: number;
  /** Whether the index finger lies over several strings. */
  readonly barre: boolean;
  /** The pitch class of its lowest note. */
  readonly bass: PitchClass;
}

/** What a grip is looked for within. */
export interface GripLimits {
  /** The widest span, in mm between the lowest and the highest finger. */
  readonly spanMm: number;
  /** The most strings that are held at once. */
  readonly most?: number;
}

/** As many fingers as a hand has to press with. */
const FINGERS = 4;
/** Fingers one a fret: more frets than these lie out of reach of four fingers whatever their span. */
const MOST_FRETS = 5;
/** Open strings are struck with fingers up to this fret only; further up they are far from what is held (common practice, no source). */
const OPEN_UP_TO = 5;
/** The most strings that are struck together. */
export const GRIP_STRINGS = 6;

/** Ways to choose fingers for notes in rising order of frets: rising, each finger once. */
function* rising(many: number, from = 1): Generator<readonly number[]> {
  if (many === 0) {
    yield [];
    return;
  }
  for (let first = from; first <= FINGERS - many + 1; first++)
    for (const rest of rising(many - 1, first + 1)) yield [first, ...rest];
}
/** A finger that is stretched beyond its fret lies a little worse than one that stays behind it (as this project judges it): 6 8 8 is held by 1 3 4. */
const STRETCHED = 1.1;
/** Fingers for frets that rise, those that lie best one a fret from the index finger. */
function fingersFor(frets: readonly number[]): readonly number[] {
  const off = (fingers: readonly number[]): number =>
    fingers.reduce((sum, finger, i) => {
      const behind = finger - 1 - (frets[i]! - frets[0]!);
      return sum + (behind < 0 ? -behind * STRETCHED : behind);
    }, 0);
  let best: readonly number[] = [];
  for (const fingers of rising(frets.length)) if (!best.length || off(fingers) < off(best)) best = fingers;
  return best;
}

/**
 * The fingers that hold places, one a string, from the lowest string up: each its own finger where four are enough, else the index finger over
 * all strings from its first to its last one at the lowest fret. Null where no hand holds it.
 *
 * @example fingersHolding([{ string: 5, fret: 3 }, { string: 4, fret: 2 }, { string: 3, fret: 0 }])?.map((p) => p.finger) // [2,1,0]
 */
export function fingersHolding(places: readonly Place[]): readonly Pressed[] | null {
  // On one fret the lower string has the lower finger.
  const pressed = places
    .map((place, i) => ({ place, i }))
    .filter(({ place }) => place.fret > 0)
    .sort((a, b) => a.place.fret - b.place.fret || a.i - b.i);
  const low = pressed[0]?.place.fret ?? 0;
  const under = pressed.filter(({ place }) => place.fret === low);
  const isBarre = pressed.length > FINGERS;
  if (isBarre) {
    const lain = places.slice(under[0]!.i, under.at(-1)!.i + 1);
    if (lain.some(({ fret }) => fret < low)) return null;
  }
  const singly = isBarre ? pressed.slice(under.length) : pressed;
  if (singly.length + Number(isBarre) > FINGERS) return null;
  const frets = singly.map(({ place }) => place.fret);
  const fingers = isBarre
    ? [...under.map(() => 1), ...fingersFor([low, ...frets]).slice(1)]
    : fingersFor(frets);
  const by = new Map(pressed.map(({ i }, k) => [i, fingers[k]!]));
  return places.map((place, i) => ({ ...place, finger: by.get(i) ?? 0 }));
}

/**
 * Places held as a chord, one a string, from the lowest string up; null where no hand holds them.
 *
 * @example gripOf(neck, [{ string: 5, fret: 3 }, { string: 4, fret: 2 }, { string: 3, fret: 0 }])?.fingers // 2
 */
export function gripOf(neck: Neck, places: readonly Place[]): ChordGrip | null {
  const held = fingersHolding(places);
  if (!held) return null;
  const pressed = held.filter((p) => p.finger > 0);
  const on = pressed.map(({ fret }) => fret);
  const range = on.length ? ([Math.min(...on), Math.max(...on)] as const) : ([0, 0] as const);
  const fingers = new Set(pressed.map(({ finger }) => finger)).size;
  return {
    places: held,
    frets: range,
    mm: on.length ? spanOn(neck, ...range) : 0,
    fingers,
    barre: fingers < pressed.length,
    bass: mod(Math.min(...places.map((p) => pitchAt(neck, p.string, p.fret))), 12),
  };
}

/**
 * Every grip of a chord that a hand can hold: one note a string on strings beside each other, all its notes and no others, the smallest span
 * first, then the fewest fingers, then the lowest on the neck. `classes` are the chord's pitch classes.
 *
 * @example gripsHolding(neck, [0, 4, 7], { spanMm: 110 }).some((g) => g.frets[1] === 3 && g.places.length === 5) // true
 */
export function gripsHolding(
  neck: Neck,
  classes: readonly PitchClass[],
  { spanMm, most = GRIP_STRINGS }: GripLimits,
): readonly ChordGrip[] {
  const { rising: strings, frets: last } = neck;
  const found = new Map<string, ChordGrip>();
  const tones = [...new Set(classes.map((pc) => mod(pc, 12)))];
  const toneAt = (string: number, fret: number): PitchClass => mod(pitchAt(neck, string, fret), 12);
  const add = (places: readonly Place[]): void => {
    const id = places.map(({ string, fret }) => `${string}.${fret}`).join(' ');
    if (found.has(id) || !tones.every((pc) => places.some((p) => toneAt(p.string, p.fret) === pc))) return;
    const grip = gripOf(neck, places);
    if (!grip || (grip.frets[1] > OPEN_UP_TO && places.some(({ fret }) => fret === 0))) return;
    found.set(id, grip);
  };
  for (let low = 1; low <= Math.max(1, last); low++) {
    let high = low;
    while (high < last && high - low < MOST_FRETS - 1 && spanOn(neck, low, high + 1) <= spanMm) high++;
    /** Open, or between these frets. */
    const choices = strings.map((string) =>
      [0, ...Array.from({ length: high - low + 1 }, (_, k) => low + k)].flatMap((fret): Place[] =>
        fret <= last && tones.includes(toneAt(string, fret)) ? [{ string, fret }] : [],
      ),
    );
    const grow = (at: number, places: readonly Place[]): void => {
      if (places.length >= tones.length) add(places);
      if (places.length === most || at === strings.length) return;
      for (const place of choices[at]!) grow(at + 1, [...places, place]);
    };
    strings.forEach((_, from) => grow(from, []));
  }
  return [...found.values()].sort(
    (a, b) =>
      a.mm - b.mm || a.fingers - b.fingers || a.frets[0] - b.frets[0] || b.places.length - a.places.length,
  );
}
