import { type Geometry } from '@crow-ladder/picture';
import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

interface BoundariesProps {
  readonly geometry: Geometry;
  readonly cuts: readonly number[];
  readonly onCuts: (cuts: readonly number[]) => void;
}

/** Frets that a key moves a boundary; the arrows follow what is seen. */
function fretsBy(key: string, { vertical, body }: Geometry): number | undefined {
  switch (key) {
    case 'ArrowRight':
      return vertical ? 1 : body;
    case 'ArrowLeft':
      return vertical ? -1 : -body;
    case 'ArrowUp':
      return vertical ? -1 : 1;
    case 'ArrowDown':
      return vertical ? 1 : -1;
    case 'PageUp':
      return 12;
    case 'PageDown':
      return -12;
    default:
      return undefined;
  }
}

/** The boundaries between regions under the frets that they lie on, or beside them where the neck is upright, to be dragged or moved by keys. */
export function Boundaries({ geometry: g, cuts, onCuts }: BoundariesProps) {
  const rail = useRef<HTMLDivElement>(null);
  const long = g.vertical ? g.height : g.width;
  /** A boundary lies on the wire below its first fret. */
  const share = (cut: number): number => g.wire(Math.max(0, cut - 1)) / long;
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
    const { left, top, width, height } = rail.current!.getBoundingClientRect();
    const at = g.vertical ? ((e.clientY - top) / height) * long : ((e.clientX - left) / width) * long;
    let nearest = 1;
    for (let fret = 1; fret <= g.to; fret++)
      if (Math.abs(g.wire(fret - 1) - at) < Math.abs(g.wire(nearest - 1) - at)) nearest = fret;
    put(i, nearest);
  };
  const key = (i: number) => (e: KeyboardEvent) => {
    const by = fretsBy(e.key, g);
    if (by !== undefined) put(i, cuts[i]! + by);
    else if (e.key === 'Home') put(i, 0);
    else if (e.key === 'End') put(i, g.to);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div ref={rail} className={g.vertical ? 'boundaries-upright' : 'boundaries'}>
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
          style={{ [g.vertical ? 'top' : 'left']: `${share(cut) * 100}%` }}
          aria-orientation={g.vertical ? 'vertical' : 'horizontal'}
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
