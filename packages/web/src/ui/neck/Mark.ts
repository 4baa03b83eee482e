/** What a spot is to the player; each kind has its own shape. */
export type MarkKind = 'root' | 'note' | 'altered' | 'outside' | 'outsideRoot';

/** What stands on one spot. */
export interface NeckMark {
  readonly string: number;
  readonly fret: number;
  readonly kind: MarkKind;
  readonly label: string;
  /** Read by screen readers: "String 5 fret 1, B♭, root"; made only when it is wanted. */
  readonly name: () => string;
  /** A note followed from drawing to drawing: when it comes to another place, it is seen to go there. */
  readonly follows?: string;
  /** Fill and text colour where colours tell degrees. */
  readonly fill?: string;
  readonly text?: string;
}

/** Outline of a kind's shape around the origin, for half its length and half its thickness. */
export function outline(kind: MarkKind, w: number, h: number): string {
  switch (kind) {
    case 'root':
    case 'outsideRoot':
      return `M${-w - 3} 0L${-w + h * 0.55} ${-h}H${w - h * 0.55}L${w + 3} 0 ${w - h * 0.55} ${h}H${-w + h * 0.55}Z`;
    case 'note':
      return `M${-w + h * 0.7} ${-h + 1}H${w - h * 0.7}Q${w} ${-h + 1} ${w} 0T${w - h * 0.7} ${h - 1}H${-w + h * 0.7}Q${-w} ${h - 1} ${-w} 0T${-w + h * 0.7} ${-h + 1}Z`;
    case 'altered':
      return `M${-w + 5} ${-h}H${w - 5}L${w} ${-h + 5}V${h - 5}L${w - 5} ${h}H${-w + 5}L${-w} ${h - 5}V${-h + 5}Z`;
    case 'outside':
      // A patch of ground behind the label; its style draws the bar below it.
      return `M${-w * 0.75} -9H${w * 0.75}V9H${-w * 0.75}Z`;
  }
}
