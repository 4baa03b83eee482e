import { type Fingered, fingerSign } from '@crow-ladder/core/run';
import { type Ink } from '@crow-ladder/picture';
import { ruled } from './pages.ts';
import { word } from './words.ts';

/** Lengths of tablature on a diagram, in mm: between strings, of its numbers, above and below it, before its first note. */
const TAB = { strings: 2.5, number: 2.9, finger: 2.2, above: 2, below: 4.5, before: 2 } as const;
/** From note to note, in mm: at most, and at least with frets of one digit and of two. */
const NOTE = { most: 4.6, least: [3.2, 4.2] } as const;

/** The notes on each line, as many on one as on another, and how far they are apart. */
function spread(steps: readonly Fingered[], wide: number): { readonly each: number; readonly apart: number } {
  const room = wide - TAB.before;
  const least = NOTE.least[steps.some(({ spot }) => spot.fret > 9) ? 1 : 0];
  const lines = Math.max(1, Math.ceil((steps.length * least) / room));
  const each = Math.max(1, Math.ceil(steps.length / lines));
  return { each, apart: Math.min(NOTE.most, room / each) };
}
const lineHigh = (strings: number): number => TAB.above + (strings - 1) * TAB.strings + TAB.below;

/** How high the tablature of notes is in a width, in mm. */
export const tabHigh = (steps: readonly Fingered[], strings: number, wide: number): number =>
  Math.ceil(steps.length / spread(steps, wide).each) * lineHigh(strings);

/** Notes in the order of play as tablature, their fingers under them, from a height on. */
export function tabInks(
  steps: readonly Fingered[],
  strings: number,
  wide: number,
  y: number,
): readonly Ink[] {
  const { each, apart } = spread(steps, wide);
  const inks: Ink[] = [];
  for (let i = 0; i < steps.length; i += each) {
    const top = y + (i / each) * lineHigh(strings) + TAB.above;
    for (let string = 0; string < strings; string++) inks.push(ruled(top + string * TAB.strings, 0, wide));
    steps.slice(i, i + each).forEach(({ spot, finger }, n) => {
      const x = TAB.before + (n + 0.5) * apart;
      const at = top + (spot.string - 1) * TAB.strings;
      const half = 0.35 * TAB.number * String(spot.fret).length;
      inks.push(
        {
          d: `M${-half} -1.1H${half}V1.1H${-half}Z`,
          x,
          y: at,
          stroke: null,
          width: 0,
          dash: [],
          fill: 'paper',
        },
        word(String(spot.fret), x, at, TAB.number, { align: 'center', bold: true }),
        word(fingerSign(finger), x, top + (strings - 1) * TAB.strings + 3, TAB.finger, { align: 'center' }),
      );
    });
  }
  return inks;
}
