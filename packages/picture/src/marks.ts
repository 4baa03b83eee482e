import { type Geometry } from './geometry.ts';
import { type Mark, type MarkKind } from './scene.ts';

/** Outline of a kind's shape around the origin, for half its length and half its thickness. */
export function outline(kind: MarkKind, w: number, h: number): string {
  switch (kind) {
    case 'root':
    case 'outsideRoot':
      return `M${-w - 3} 0L${-w + h * 0.55} ${-h}H${w - h * 0.55}L${w + 3} 0 ${w - h * 0.55} ${h}H${-w + h * 0.55}Z`;
    case 'note':
    case 'was':
      return `M${-w + h * 0.7} ${-h + 1}H${w - h * 0.7}Q${w} ${-h + 1} ${w} 0T${w - h * 0.7} ${h - 1}H${-w + h * 0.7}Q${-w} ${h - 1} ${-w} 0T${-w + h * 0.7} ${-h + 1}Z`;
    case 'altered':
      return `M${-w + 5} ${-h}H${w - 5}L${w} ${-h + 5}V${h - 5}L${w - 5} ${h}H${-w + 5}L${-w} ${h - 5}V${-h + 5}Z`;
    case 'added':
      return `M${-w} ${-h * 0.35}L0 ${-h - 3}L${w} ${-h * 0.35}V${h}H${-w}Z`;
    case 'passing':
      return `M${-w - 5} 0L0 ${-h - 2}L${w + 5} 0L0 ${h + 2}Z`;
    case 'shared':
      return `M${-w + 3} ${-h}H${w - 3}L${w} ${-h + 3}V${h - 3}L${w - 3} ${h}H${-w + 3}L${-w} ${h - 3}V${-h + 3}Z`;
    case 'lower':
      return `M${-w} ${-h + 1.5}H${w}V${h - 1.5}H${-w}Z`;
    case 'upper':
      return `M${-w - 2} 0A${w + 2} ${h} 0 0 1 ${w + 2} 0A${w + 2} ${h} 0 0 1 ${-w - 2} 0Z`;
    case 'outside':
      // A patch of ground behind the label; its style draws the bar below it.
      return `M${-w * 0.75} -9H${w * 0.75}V9H${-w * 0.75}Z`;
  }
}

/** Class of a mark's group; `long` labels have a smaller face. */
export const markClass = ({ kind, root, heard }: Pick<Mark, 'kind' | 'root' | 'heard'>): string =>
  `mark mark-${kind}${root ? ' of-root' : ''}${heard ? ` heard-${heard}` : ''}`;
export const isLong = (label: string): boolean => label.length > 2;
/** How far below the middle of its mark a label's middle stands. */
export const LABEL_DROP = 0.5;

/** The marks on the frets that a drawing shows, string by string from string 1. */
export function marksByString(
  marks: readonly Mark[],
  g: Geometry,
  strings: number,
): readonly (readonly Mark[])[] {
  const rows = Array.from({ length: strings }, (): Mark[] => []);
  for (const mark of marks) if (mark.fret >= g.from && mark.fret <= g.to) rows[mark.string - 1]?.push(mark);
  return rows;
}
