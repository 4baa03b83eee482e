import { memo } from 'react';

/** What a spot is to the player; each kind has its own shape. */
export type MarkKind = 'root' | 'note' | 'altered' | 'outside' | 'outsideRoot';

export interface MarkProps {
  readonly x: number;
  readonly y: number;
  /** Half length and half thickness. */
  readonly half: number;
  readonly tall: number;
  readonly kind: MarkKind;
  readonly label: string;
  /** Read by screen readers: "B♭, root, fret 1". */
  readonly name: string;
  /** Fill and text colour where colours tell degrees. */
  readonly fill: string | null;
  readonly text: string | null;
}

/** Outline of a kind's shape around the origin; null for a mark that is only its text over a bar. */
function outline(kind: MarkKind, w: number, h: number): string | null {
  switch (kind) {
    case 'root':
    case 'outsideRoot':
      return `M${-w - 3} 0L${-w + h * 0.55} ${-h}H${w - h * 0.55}L${w + 3} 0 ${w - h * 0.55} ${h}H${-w + h * 0.55}Z`;
    case 'note':
      return `M${-w + h * 0.7} ${-h + 1}H${w - h * 0.7}Q${w} ${-h + 1} ${w} 0T${w - h * 0.7} ${h - 1}H${-w + h * 0.7}Q${-w} ${h - 1} ${-w} 0T${-w + h * 0.7} ${-h + 1}Z`;
    case 'altered':
      return `M${-w + 5} ${-h}H${w - 5}L${w} ${-h + 5}V${h - 5}L${w - 5} ${h}H${-w + 5}L${-w} ${h - 5}V${-h + 5}Z`;
    case 'outside':
      return null;
  }
}

const FILL: Readonly<Record<MarkKind, string>> = {
  root: 'var(--accent)',
  note: 'var(--raised)',
  altered: 'var(--seam)',
  outside: 'var(--ground)',
  outsideRoot: 'var(--ground)',
};
const TEXT: Readonly<Record<MarkKind, string>> = {
  root: 'var(--on-accent)',
  note: 'var(--ink)',
  altered: 'var(--ink)',
  outside: 'var(--faded)',
  outsideRoot: 'var(--accent)',
};

/** One mark on the neck. */
export const Mark = memo(function Mark({ x, y, half, tall, kind, label, name, fill, text }: MarkProps) {
  const path = outline(kind, half, tall);
  const strong = kind === 'root' || kind === 'note' || kind === 'altered';
  return (
    <g
      transform={`translate(${x} ${y})`}
      role="img"
      aria-label={name}
      className={strong ? 'mark' : 'mark mark-outside'}
    >
      {path ? (
        <path
          d={path}
          fill={fill ?? FILL[kind]}
          stroke={kind === 'note' || kind === 'altered' || fill ? 'var(--ink)' : 'var(--accent)'}
          strokeWidth={kind === 'outsideRoot' ? 1.2 : kind === 'root' ? 1.5 : 1.8}
          strokeDasharray={kind === 'altered' ? '3 2' : undefined}
        />
      ) : (
        <path d={`M${-half * 0.75} -9H${half * 0.75}V9H${-half * 0.75}Z`} fill={FILL[kind]} />
      )}
      {!path && <path d={`M-4 9H4`} stroke="var(--line)" strokeWidth="2" />}
      <text
        textAnchor="middle"
        dominantBaseline="central"
        y={0.5}
        fill={text ?? TEXT[kind]}
        fontSize={label.length > 2 ? 11 : 13}
        fontWeight={strong ? 650 : 450}
      >
        {label}
      </text>
    </g>
  );
});
