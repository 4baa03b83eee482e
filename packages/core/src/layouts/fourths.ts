import { crossings } from '../tuning.ts';
import { type Neck } from '../neck.ts';
import { ok, refuse, type Result } from '../result.ts';
import { positionAt } from '../words.ts';
import { degreeTable } from '../scale.ts';
import { defineLayout } from './layout.ts';
import { type PlacedSpot, type Placement } from '../placement.ts';

const WINDOW = 4;

/** Pitches of the open strings in rising order. */
const risingPitches = (neck: Neck): readonly number[] => neck.rising.map((s) => neck.open[s - 1]!);

/**
 * Fourths pattern: a window of five frets on an endless pattern of fourths holds each pitch once; on the real
 * tuning every string is moved by the jogs between it and the lowest string, which keeps the pitches.
 */
export const fourths = defineLayout({
  kind: 'fourths',
  name: 'fourths pattern',
  rule: 'A window of five frets on the endless pattern of fourths, then the jogs.',
  complete: true,
  options: {},
  place: (neck, key) => {
    const jogs = [0];
    for (const { jog } of crossings(risingPitches(neck))) jogs.push(jogs.at(-1)! + jog);
    const degrees = degreeTable(key);
    const out: Placement[] = [];
    let last: readonly PlacedSpot[] = [];
    for (let start = -Math.min(...jogs); start + WINDOW + Math.max(...jogs) <= neck.frets; start++) {
      const spots: PlacedSpot[] = [];
      for (let i = 0; i < jogs.length; i++) {
        const string = neck.rising[i]!;
        const open = neck.open[string - 1]!;
        for (let fret = start + jogs[i]!; fret <= start + jogs[i]! + WINDOW; fret++) {
          const degree = degrees[(open + fret) % 12]!;
          if (degree >= 0) spots.push({ string, fret, midi: open + fret, degree });
        }
      }
      // A window moved by a fret that lost and won nothing is the same shape.
      const same =
        spots.length === last.length &&
        spots.every((s, i) => s.string === last[i]!.string && s.fret === last[i]!.fret);
      if (spots.length && !same) out.push({ spots, indexFret: start });
      last = spots;
    }
    return out.length
      ? ok(out)
      : refuse(
          'layout.neck',
          'The jogs of this tuning move the window of fourths off the neck on some string.',
        );
  },
  usual: () => ({}),
  said: () => 'on the fourths pattern',
  title: ({ indexFret = 0 }) => positionAt(indexFret),
});

/**
 * Where the window lies as if all strings were fourths apart: a spot's fret less the jogs up to its string.
 *
 * @example fourthsColumn(neck, 6, 5).ok // true
 */
export function fourthsColumn(neck: Neck, string: number, fret: number): Result<number> {
  const place = neck.rising.indexOf(string);
  if (place < 0) return refuse('layout.option', `This instrument has no string ${string}.`);
  const rising = risingPitches(neck).slice(0, place + 1);
  return ok(fret - crossings(rising).reduce((sum, c) => sum + c.jog, 0));
}
