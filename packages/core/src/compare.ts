import { type Position } from './position.ts';
import { list, numberWord } from './words.ts';

/** How position b relates to position a. */
export interface Comparison {
  /** Frets that most strings move by. */
  readonly shift: number;
  /** Strings that differ beyond the shift, with the frets that they move by on top of it; null where the group itself differs. */
  readonly except: readonly { readonly string: number; readonly by: number | null }[];
  readonly same: boolean;
  /** Strings that were compared. */
  readonly strings: number;
}

const moved = (a: readonly number[], b: readonly number[]): number | null => {
  if (a.length !== b.length || !a.length) return null;
  const by = b[0]! - a[0]!;
  return a.every((f, i) => b[i]! - f === by) ? by : null;
};

/**
 * Compares two positions string by string, counted from the string that each starts on.
 *
 * @example describeComparison(comparePositions(box, box), 'position 1', 6) // "The same as position 1."
 */
export function comparePositions(a: Position, b: Position): Comparison {
  const strings = Math.min(a.groups.length, b.groups.length);
  const deltas = b.groups.map((g, i) => ({
    string: g.string,
    by: i < strings ? moved(a.groups[i]!.frets, g.frets) : null,
  }));
  const votes = new Map<number, number>();
  for (const { by } of deltas) if (by !== null) votes.set(by, (votes.get(by) ?? 0) + 1);
  const shift =
    [...votes].sort((x, y) => y[1] - x[1] || Math.abs(x[0]) - Math.abs(y[0]))[0]?.[0] ??
    b.lowFret - a.lowFret;
  const except = deltas
    .filter((d) => d.by !== shift)
    .map((d) => ({ string: d.string, by: d.by === null ? null : d.by - shift }));
  return {
    shift,
    except,
    same: except.length === 0 && a.groups.length === b.groups.length,
    strings: deltas.length,
  };
}

const place = (by: number): string =>
  `${numberWord(Math.abs(by))} fret${Math.abs(by) === 1 ? '' : 's'} ${by > 0 ? 'up' : 'down'}`;

/**
 * A comparison in the way players relate shapes; `name` is what position a is called. Empty where too little is alike.
 *
 * @example describeComparison(comparePositions(box, box), 'position 1', 6) // "The same as position 1."
 */
export function describeComparison(comparison: Comparison, name: string, strings: number): string {
  const { shift, except, same, strings: compared } = comparison;
  const where = shift === 0 ? '' : `, ${place(shift)}`;
  if (same) return `The same as ${name}${where}.`;
  if (except.length * 2 > Math.min(strings, compared)) return '';
  const byAmount = new Map<number | null, number[]>();
  for (const { string, by } of except) byAmount.set(by, [...(byAmount.get(by) ?? []), string]);
  const parts = [...byAmount].map(([by, on]) => {
    const which = `${on.length > 1 ? 'strings' : 'string'} ${list(on)}`;
    return by === null
      ? `${which}, which ${on.length > 1 ? 'have' : 'has'} other steps`
      : `${which}, ${place(by)}`;
  });
  return `The same as ${name}${where && `${where},`} but for ${list(parts)}.`;
}
