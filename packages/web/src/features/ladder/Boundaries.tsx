import { type Geometry } from '@crow-ladder/picture';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

interface BoundariesProps {
  readonly geometry: Geometry;
  readonly cuts: readonly number[];
  readonly onCuts: (cuts: readonly number[]) => void;
}

const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 12,
  PageDown: -12,
};

/** The boundaries between regions under the frets that they lie on, to be dragged or moved by keys. */
export function Boundaries({ geometry: g, cuts, onCuts }: BoundariesProps) {
  const rail = useRef<HTMLDivElement>(null);
  if (g.vertical) return null;
  /** A boundary lies on the wire below its first fret. */
  const share = (cut: number): number => g.wire(Math.max(0, cut - 1)) / g.width;
  const bounds = (i: number): readonly [number, number] => [
    (cuts[i - 1] ?? 0) + 1,
    (cuts[i + 1] ?? g.to + 1) - 1,
  ];
  const put = (i: number, to: number): void => {
    const [low, high] = bounds(i);
    const fret = Math.max(low, Math.min(high, to));
    if (fret !== cuts[i]) onCuts(cuts.map((c, k) => (k === i ? fret : c)));
  };
  const drag = (i: number) => (e: PointerEvent<HTMLButtonElement>) => {
    if (!e.currentTarget.hasPointerCapture(e.pointerId)) return;
    const { left, width } = rail.current!.getBoundingClientRect();
    const x = ((e.clientX - left) / width) * g.width;
    let nearest = 1;
    for (let fret = 1; fret <= g.to; fret++)
      if (Math.abs(g.wire(fret - 1) - x) < Math.abs(g.wire(nearest - 1) - x)) nearest = fret;
    put(i, nearest);
  };
  const key = (i: number) => (e: KeyboardEvent) => {
    const step = STEPS[e.key];
    if (step !== undefined)
      put(i, cuts[i]! + step * (e.key === 'ArrowRight' || e.key === 'ArrowLeft' ? g.body : 1));
    else if (e.key === 'Home') put(i, 0);
    else if (e.key === 'End') put(i, g.to);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div ref={rail} className="boundaries">
      {cuts.map((cut, i) => (
        <button
          key={i}
          type="button"
          role="slider"
          aria-label={cuts.length === 1 ? 'Boundary' : `Boundary ${i + 1}`}
          aria-valuemin={bounds(i)[0]}
          aria-valuemax={bounds(i)[1]}
          aria-valuenow={cut}
          aria-valuetext={`first fret ${cut}`}
          title={`Boundary: fret ${cut} is the first above it`}
          className="boundary"
          style={{ left: `${share(cut) * 100}%` }}
          onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
          onPointerMove={drag(i)}
          onKeyDown={key(i)}
        >
          {cut}
        </button>
      ))}
    </div>
  );
}
