import { type Neck, onNeck, pitchAt } from '../neck.ts';
import { type Place, placeId, type Spot } from '../place.ts';
import { refuse, ok, type Result } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { type Crossing } from '../tuning.ts';
import { jogsBetween, jogSum } from './stringSet.ts';

/** Frets that a window covers: one finger a fret and a stretch of one. */
export const WINDOW_FRETS = 5;

/** A string of the window: the frets of the pattern as if all strings were fourths apart, and where they lie. */
export interface WindowString {
  readonly string: number;
  /** Frets of the pattern, before the jogs. */
  readonly pattern: readonly number[];
  /** What the string is moved by, with the neighbours that are not a fourth apart. */
  readonly by: number;
  readonly jogs: readonly Crossing[];
  readonly spots: readonly Spot[];
}

/** A shape found in three steps: a root, the window of the pattern laid over it, each string moved by its jogs. */
export interface FourthsWindow {
  readonly anchor: Place;
  /** Lowest and highest fret of the window on the root's string. */
  readonly frets: readonly [number, number];
  /** From the lowest string up. */
  readonly strings: readonly WindowString[];
}

/**
 * The window of five frets over a root spot, whose first fret lies `before` frets below the root (0 to 4). Code
 * `move.window` where the spot is no root, or some string's part of it would leave the neck.
 *
 * @example fourthsWindow(neck, A, { string: 6, fret: 5 }, 0).value?.frets // [5,9]
 */
export function fourthsWindow(neck: Neck, key: Key, anchor: Place, before: number): Result<FourthsWindow> {
  const { string, fret } = anchor;
  const root = pitchAt(neck, string, fret);
  if (degreeIndex(key, root) !== 0)
    return refuse('move.window', 'The window is laid over a root: choose one on the neck.');
  const at = neck.rising.indexOf(string);
  const first = fret - before;
  const strings = neck.rising.map((on, i): WindowString => {
    const by = jogSum(neck, at, i);
    // On the endless pattern each string is five half steps above the one below it.
    const pattern = Array.from({ length: WINDOW_FRETS }, (_, k) => first + k).filter(
      (column) => degreeIndex(key, root + 5 * (i - at) + column - fret) >= 0,
    );
    const spots = pattern.map((column): Spot => {
      const midi = pitchAt(neck, on, column + by);
      return { string: on, fret: column + by, midi, degree: degreeIndex(key, midi) };
    });
    return { string: on, pattern, by, jogs: jogsBetween(neck, at, i).filter((c) => c.jog !== 0), spots };
  });
  const leaves = strings.some(
    ({ by }) => !onNeck(neck, 1, first + by) || !onNeck(neck, 1, first + by + WINDOW_FRETS - 1),
  );
  return leaves
    ? refuse(
        'move.window',
        'Here the window would leave the neck: choose a root further along, or lay the window elsewhere.',
      )
    : ok({ anchor, frets: [first, first + WINDOW_FRETS - 1], strings });
}

/** A root string, and the strings that are moved when the window is laid over a root on it. */
export interface JogRule {
  readonly roots: readonly number[];
  readonly moves: readonly { readonly strings: readonly number[]; readonly by: number }[];
}

/**
 * The general rule of a tuning: for every string that a root can lie on, which strings move by how many frets; alike ones together.
 *
 * @example jogRulesOf(neck).length // 2
 */
export function jogRulesOf(neck: Neck): readonly JogRule[] {
  const rules: { roots: number[]; moves: JogRule['moves'] }[] = [];
  neck.rising.forEach((root, at) => {
    const by = new Map<number, number[]>();
    neck.rising.forEach((string, i) => {
      const sum = jogSum(neck, at, i);
      if (sum !== 0) by.set(sum, [...(by.get(sum) ?? []), string]);
    });
    const moves = [...by].map(([sum, strings]) => ({ strings, by: sum }));
    const same = rules.find((r) => JSON.stringify(r.moves) === JSON.stringify(moves));
    if (same) same.roots.push(root);
    else rules.push({ roots: [root], moves });
  });
  return rules;
}

/** What is wrong with a string of a window that a player placed. */
export interface WindowFault {
  readonly string: number;
  /** The jogs that were forgotten, where leaving them out gives what was placed; empty where it is something else. */
  readonly forgotten: readonly Crossing[];
  readonly missing: readonly number[];
  readonly extra: readonly number[];
}

/**
 * Compares the spots that a player placed with a window, string by string; empty where all of it is right.
 *
 * @example judgeWindow(fourthsWindow(neck, A, { string: 6, fret: 5 }, 0).value, []).length // 6
 */
export function judgeWindow(
  { anchor, strings }: FourthsWindow,
  placed: readonly Place[],
): readonly WindowFault[] {
  const root = strings.findIndex((s) => s.string === anchor.string);
  const ids = new Set(placed.map(placeId));
  return strings.flatMap(({ string, pattern, by, jogs, spots }, at): WindowFault[] => {
    const frets = [...new Set(placed.filter((p) => p.string === string).map((p) => p.fret))];
    const right = new Set(spots.map((s) => s.fret));
    const missing = spots.filter((s) => !ids.has(placeId(s))).map((s) => s.fret);
    const extra = frets.filter((f) => !right.has(f)).sort((a, b) => a - b);
    if (!missing.length && !extra.length) return [];
    // A subset of the jogs whose leaving out puts the pattern where the player put it.
    const without = (left: readonly Crossing[]): boolean => {
      const less = by - (at > root ? 1 : -1) * left.reduce((sum, c) => sum + c.jog, 0);
      return frets.length === pattern.length && pattern.every((column) => frets.includes(column + less));
    };
    const subsets = [jogs, ...jogs.map((c) => [c])];
    const forgotten =
      subsets
        .filter((s) => s.length)
        .sort((a, b) => a.length - b.length)
        .find(without) ?? [];
    return [{ string, forgotten, missing, extra }];
  });
}
