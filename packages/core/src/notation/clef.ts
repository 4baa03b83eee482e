import { LETTERS, type Note } from '../note.ts';

/** A clef; each has an 8 below it: guitars and basses sound an octave lower than its lines say (common practice). */
export type Clef = 'treble' | 'bass';

/** The lowest and the highest line of a staff, as a letter counted up from C in octave 0. */
export const LINES: Readonly<Record<Clef, readonly [low: number, high: number]>> = {
  treble: [30, 38],
  bass: [18, 26],
};

/** A pitch as it is written. */
export interface Pitch {
  readonly note: Note;
  readonly octave: number;
}
/**
 * Where a written pitch stands on any staff: its letter, counted up from C in octave 0.
 *
 * @example heightOf({ note: note('E'), octave: 4 }) // 30
 */
export const heightOf = ({ note, octave }: Pitch): number =>
  octave * LETTERS.length + LETTERS.indexOf(note.letter);

/** Ledger lines that are read at a glance; a note that needs more is written an octave nearer. */
const LEDGERS = 4;
/** A note beside such ones is written with them where it would need more than so many itself. */
const BESIDE = 2;
/** At most so many notes between two such ones are written with them. */
const BETWEEN = 8;

/**
 * Ledger lines that a height needs on a staff, below 0 those under it.
 *
 * @example ledgersOf(42, 'treble') // 2
 */
export function ledgersOf(height: number, clef: Clef): number {
  const [low, high] = LINES[clef];
  if (height > high) return Math.floor((height - high) / 2);
  return height < low ? -Math.floor((low - height) / 2) : 0;
}

/** A note is written at most two octaves away (15ma): beyond that there are more ledger lines. */
const MOST = 2;

/** By how many octaves a height is written lower, below 0 higher, so that it needs no more ledger lines than are read at a glance. */
function shiftOf(height: number, clef: Clef): number {
  const lines = ledgersOf(height, clef);
  const by = Math.sign(lines);
  let shift = 0;
  while (Math.abs(shift) < MOST && by * ledgersOf(height - shift * LETTERS.length, clef) > LEDGERS)
    shift += by;
  return shift;
}

/** Whether a note may be written with those that are written so many octaves lower. */
function goesWith(height: number, shift: number, clef: Clef): boolean {
  return Math.sign(shift) * ledgersOf(height - shift * LETTERS.length, clef) >= 0;
}

/**
 * By how many octaves each of some notes is written lower than it is (8va; 2 is 15ma), below 0 higher (8va bassa): where it would need
 * more than four ledger lines, and notes beside and between such ones where they lie high or low as well. Heights are those of the notes
 * in the order of play.
 *
 * @example shiftsOf([45, 47, 48, 47, 45], 'treble') // [1,1,1,1,1]
 */
export function shiftsOf(heights: readonly number[], clef: Clef): readonly number[] {
  const shifts = heights.map((height) => shiftOf(height, clef));
  const own = [...shifts];
  const joins = (i: number, shift: number): boolean => own[i] === 0 && goesWith(heights[i]!, shift, clef);
  // Between two of a kind.
  let last = -1;
  own.forEach((shift, i) => {
    if (!shift) return;
    const between = heights.slice(last + 1, i).map((_, k) => last + 1 + k);
    if (
      last >= 0 &&
      own[last] === shift &&
      between.length <= BETWEEN &&
      between.every((k) => joins(k, shift))
    )
      for (const k of between) shifts[k] = shift;
    last = i;
  });
  // And beside them, as far as notes lie high or low.
  const beside = (from: number, by: 1 | -1): void => {
    const shift = shifts[from]!;
    for (
      let i = from + by;
      i >= 0 &&
      i < heights.length &&
      shifts[i] === 0 &&
      Math.sign(shift) * ledgersOf(heights[i]!, clef) > BESIDE &&
      joins(i, shift);
      i += by
    )
      shifts[i] = shift;
  };
  own.forEach((shift, i) => {
    if (!shift) return;
    beside(i, -1);
    beside(i, 1);
  });
  return shifts;
}

/**
 * The clef that some notes are written in: an instrument's usual one, or the other one where most of them would lie beyond four ledger
 * lines in it, and fewer in the other.
 *
 * @example clefFor([14, 15, 16], 'treble') // "bass"
 */
export function clefFor(heights: readonly number[], usual: Clef): Clef {
  const far = (clef: Clef): number => heights.filter((height) => shiftOf(height, clef) !== 0).length;
  const other: Clef = usual === 'treble' ? 'bass' : 'treble';
  return far(usual) > heights.length / 2 && far(other) < far(usual) ? other : usual;
}
