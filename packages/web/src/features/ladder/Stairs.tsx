import { type Fingering } from '@crow-ladder/core';
import { type Geometry } from '@crow-ladder/picture';
import { stairsOf } from './climbed.ts';

/** Height of a stair, and of all of them at most, in user units. */
const STEP = 9;
const MOST = 150;
/** Frets under the hand at rest. */
const SPAN = 4;

/** Where the hand is, in order from the top: a stair for each place, as wide as its span; a slide is a slope to the next. */
export function Stairs({
  fingering,
  geometry: g,
  step,
}: {
  fingering: Fingering;
  geometry: Geometry;
  step: number;
}) {
  if (g.vertical) return null;
  const stairs = stairsOf(fingering);
  const high = Math.min(STEP, MOST / stairs.length);
  const side = (fret: number): number => g.wire(Math.max(Math.max(0, g.from - 1), Math.min(g.to, fret)));
  return (
    <svg
      viewBox={`0 0 ${g.width} ${stairs.length * high + 4}`}
      className="stairs block w-full"
      role="img"
      aria-label={`The hand’s stairs: at frets ${stairs.map((s) => s.hand).join(', ')}`}
    >
      {stairs.map((stair, i) => {
        const [a, b] = [side(stair.hand - 1), side(stair.hand + SPAN - 1)];
        const [y, before] = [i * high + 2, stairs[i - 1]];
        const now = step >= stair.from && step <= stair.to;
        return (
          <g key={i} className={now ? 'stair stair-now' : 'stair'}>
            {before &&
              (stair.slid ? (
                <path d={`M${side(before.hand - 1)} ${y - 1}L${a} ${y + high / 2}`} />
              ) : (
                <path d={`M${side(before.hand - 1)} ${y}H${a}`} />
              ))}
            <rect x={Math.min(a, b)} y={y} width={Math.abs(b - a)} height={high - 2} />
          </g>
        );
      })}
    </svg>
  );
}
