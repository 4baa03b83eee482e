import { type Geometry } from './geometry.ts';

export interface Place {
  readonly string: number;
  readonly fret: number;
}

/** What joins two spots: a step of the scale, a move of the hand, a note's way to another string, or a miscount. */
export type LinkKind = 'step' | 'move' | 'travel' | 'miss';

/** A line between two spots, with a word on it where there is one. */
export interface NeckLink {
  readonly from: Place;
  readonly to: Place;
  readonly kind: LinkKind;
  readonly label: string;
}

/** How far over a mark the arc of a step rises on a lying neck. */
const RISE = 5;

interface Drawing {
  readonly path: string;
  readonly x: number;
  readonly y: number;
}

/**
 * The line of a link and the place of its word. Along a string it is an arc over the marks of a lying neck, under them
 * for a miscount; on an upright one there is room between the marks, so the word stands there.
 */
function drawing(link: NeckLink, g: Geometry): Drawing {
  const [a, b] = [g.at(link.from.string, link.from.fret), g.at(link.to.string, link.to.fret)];
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  if (link.from.string !== link.to.string || g.vertical)
    return { path: `M${a.x} ${a.y}L${b.x} ${b.y}`, x, y };
  const over = link.kind === 'miss' ? 1 : -1;
  const edge = y + over * (g.mark.tall + 1);
  return { path: `M${a.x} ${edge}Q${x} ${edge + 2 * over * RISE} ${b.x} ${edge}`, x, y: edge + over * RISE };
}

/** The links of a neck: lines first, so that the words of all stand clear of them. */
export function Links({ links, geometry: g }: { links: readonly NeckLink[]; geometry: Geometry }) {
  const shown = links
    .filter((l) => [l.from, l.to].every((p) => p.fret >= g.from && p.fret <= g.to))
    .map((link) => ({ ...link, ...drawing(link, g) }));
  return (
    <g aria-hidden="true" pointerEvents="none">
      {shown.map((l, i) => (
        <path key={i} className={`link link-${l.kind}`} d={l.path} />
      ))}
      {shown.map(
        (l, i) =>
          l.label && (
            <text key={i} className={`link-word link-word-${l.kind}`} x={l.x} y={l.y}>
              {l.label}
            </text>
          ),
      )}
    </g>
  );
}
