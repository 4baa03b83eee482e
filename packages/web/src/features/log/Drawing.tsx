import { type ReactNode, useId } from 'react';
import { Folded } from './Folded.tsx';

interface DrawingProps {
  readonly title: string;
  /** What it shows, in a sentence. */
  readonly says: string;
  readonly width: number;
  readonly height: number;
  readonly children: ReactNode;
  /** The same as a table. */
  readonly table: { readonly heads: readonly string[]; readonly rows: readonly (readonly ReactNode[])[] };
}

interface LevelsProps {
  readonly y: (level: number) => number;
  readonly levels: readonly number[];
  readonly from: number;
  readonly to: number;
}

/** Ruled levels of a drawing with their numbers, from one x to another. */
export const Levels = ({ y, levels, from, to }: LevelsProps) => (
  <>
    {levels.map((level) => (
      <g key={level}>
        <line x1={from} x2={to} y1={y(level)} y2={y(level)} className="rule" />
        <text x={from - 8} y={y(level)} dy="0.35em" textAnchor="end">
          {level}
        </text>
      </g>
    ))}
  </>
);

/** A drawing with the sentence that says it, and the same as a table. */
export function Drawing({ title, says, width, height, children, table }: DrawingProps) {
  const id = useId();
  return (
    <figure className="flex flex-col gap-2">
      <h3 id={id} className="font-semibold">
        {title}
      </h3>
      <figcaption>{says}</figcaption>
      <svg
        role="img"
        aria-label={`${title}: ${says}`}
        viewBox={`0 0 ${width} ${height}`}
        className="drawing w-full"
      >
        {children}
      </svg>
      <Folded summary="As a table" className="text-sm text-soft">
        {() => (
          <div className="max-h-72 overflow-auto" tabIndex={0} role="region" aria-labelledby={id}>
            <table className="listing">
              <thead>
                <tr>
                  {table.heads.map((head) => (
                    <th key={head} scope="col">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {table.rows.map(([first, ...rest], i) => (
                  <tr key={i}>
                    <th scope="row">{first}</th>
                    {rest.map((cell, n) => (
                      <td key={n}>{cell}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
      </Folded>
    </figure>
  );
}
