import { type Instrument, roman } from '@crow-ladder/core';
import { memo } from 'react';
import { type Geometry } from './geometry.ts';

const DOTS = new Set([3, 5, 7, 9, 15, 17, 19, 21, 27, 29, 31, 33]);

interface BoardProps extends Pick<Instrument, 'capo' | 'wound'> {
  readonly strings: number;
  readonly geometry: Geometry;
}

/** The bare neck: strings, wires, inlays, fret numbers, the capo. */
export const Board = memo(function Board({ strings, capo, wound, geometry: g }: BoardProps) {
  const [a, b] = g.edges;
  const wires = Array.from(
    { length: g.to - Math.max(0, g.from - 1) + 1 },
    (_, i) => Math.max(0, g.from - 1) + i,
  );
  const frets = wires.filter((f) => f >= Math.max(1, g.from));
  const line = (u1: number, v1: number, u2: number, v2: number) =>
    g.vertical ? { x1: v1, y1: u1, x2: v2, y2: u2 } : { x1: u1, y1: v1, x2: u2, y2: v2 };
  const point = (u: number, v: number) => (g.vertical ? { x: v, y: u } : { x: u, y: v });
  const middle = (a + b) / 2;
  // The pair lies between strings, about a quarter of the neck from its edges, where no mark covers it.
  const between = (Math.round((strings - 3) / 4) + 0.5) / (strings - 1);
  const pair = [a + (b - a) * between, b - (b - a) * between];
  const inlays = frets.flatMap((f) => {
    const at = f + capo;
    if (at % 12 === 0) return pair.map((v) => ({ f, v }));
    return DOTS.has(at) ? [{ f, v: middle }] : [];
  });
  const numbers = g.vertical ? 12 : b + 33;
  return (
    <g aria-hidden="true">
      {inlays.map(({ f, v }) => {
        const { x, y } = point(g.centre(f), v);
        return <path key={`${f}${v}`} d={`M${x - 5} ${y}l5-5 5 5-5 5z`} fill="var(--hair)" />;
      })}
      {wires.map((f) => (
        <line
          key={f}
          {...line(g.wire(f), a - 6, g.wire(f), b + 6)}
          stroke={f === 0 ? 'var(--ink)' : 'var(--line)'}
          strokeWidth={f === 0 ? (capo ? 9 : 4) : 1.4}
          strokeLinecap={f === 0 && capo ? 'round' : 'butt'}
        />
      ))}
      {Array.from({ length: strings }, (_, i) => {
        const v = g.across(strings - i);
        const end = point(g.from === 0 ? g.centre(0) : g.wire(g.from - 1), v);
        return (
          <line
            key={i}
            {...line(g.vertical ? end.y : end.x, v, g.wire(g.to), v)}
            stroke="var(--soft)"
            strokeWidth={1 + (strings - i - 1) * 0.25}
            strokeDasharray={i < wound ? '5 0.8' : undefined}
          />
        );
      })}
      {frets.map((f) => {
        const { x, y } = point(g.centre(f), numbers);
        return (
          <text
            key={f}
            x={x}
            y={y}
            className="fill-soft text-[12px]"
            textAnchor="middle"
            dominantBaseline="central"
          >
            {f}
          </text>
        );
      })}
      {capo > 0 && g.from === 0 && (
        <text
          {...point(g.centre(0), g.vertical ? 12 : numbers)}
          className="fill-ink text-[11px]"
          textAnchor="middle"
          dominantBaseline="central"
        >
          {`capo ${roman(capo)}`}
        </text>
      )}
    </g>
  );
});
