import { type Fingered } from '@crow-ladder/core/run';
import { type Geometry } from '@crow-ladder/picture';
import { stairsOf } from './climbed.ts';

/** Size of a stair across the neck, and of all of them at most, in user units; beside an upright neck there is less room. */
const STEP = 9;
const MOST = { lying: 150, upright: 64 };
/** Frets under the hand at rest. */
const SPAN = 4;

/** Where the hand is, in order: a stair for each place, as wide as its span; a slide is a slope to the next. */
export function Stairs({
  steps,
  geometry: g,
  step,
}: {
  steps: readonly Fingered[];
  geometry: Geometry;
  step: number;
}) {
  const stairs = stairsOf(steps);
  const v = g.vertical;
  const size = Math.min(STEP, (v ? MOST.upright : MOST.lying) / stairs.length);
  const across = stairs.length * size + 4;
  const side = (fret: number): number => g.wire(Math.max(Math.max(0, g.from - 1), Math.min(g.to, fret)));
  /** A point by how far along the neck and how far across it lies. */
  const point = (along: number, over: number): string => (v ? `${over} ${along}` : `${along} ${over}`);
  return (
    <svg
      viewBox={v ? `0 0 ${across} ${g.height}` : `0 0 ${g.width} ${across}`}
      {...(v ? { preserveAspectRatio: 'none', width: across } : {})}
      className={v ? 'stairs block h-full shrink-0' : 'stairs block w-full'}
      role="img"
      aria-label={`The hand’s stairs: at frets ${stairs.map((s) => s.hand).join(', ')}`}
    >
      {stairs.map((stair, i) => {
        const [a, b] = [side(stair.hand - 1), side(stair.hand + SPAN - 1)];
        const [over, before] = [i * size + 2, stairs[i - 1]];
        const from = before && side(before.hand - 1);
        const [low, long] = [Math.min(a, b), Math.abs(b - a)];
        return (
          <g key={i} className={step >= stair.from && step <= stair.to ? 'stair stair-now' : 'stair'}>
            {from !== undefined && (
              <path
                d={
                  stair.slid
                    ? `M${point(from, over - 1)}L${point(a, over + size / 2)}`
                    : `M${point(from, over)}L${point(a, over)}`
                }
              />
            )}
            {v ? (
              <rect x={over} y={low} width={size - 2} height={long} />
            ) : (
              <rect x={low} y={over} width={long} height={size - 2} />
            )}
          </g>
        );
      })}
    </svg>
  );
}
