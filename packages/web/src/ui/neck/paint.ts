import { type Geometry } from './geometry.ts';
import { type NeckMark, outline } from './Mark.ts';

const SVG = 'http://www.w3.org/2000/svg';

/** A mark's elements, and what they show now, so that a repaint touches only what differs. */
interface Drawn {
  readonly group: SVGGElement;
  readonly path: SVGPathElement;
  readonly text: SVGTextElement;
  readonly label: Text;
  mark: NeckMark | null;
  at: string;
  shape: string;
}

const make = <K extends keyof SVGElementTagNameMap>(name: K): SVGElementTagNameMap[K] =>
  document.createElementNS(SVG, name);

function drawn(parent: SVGGElement): Drawn {
  const group = make('g');
  const path = make('path');
  const text = make('text');
  group.setAttribute('role', 'img');
  text.setAttribute('y', '0.5');
  const label = document.createTextNode('');
  text.append(label);
  group.append(path, text);
  parent.append(group);
  return { group, path, text, label, mark: null, at: '', shape: '' };
}

export interface Painter {
  readonly paint: (marks: readonly NeckMark[], geometry: Geometry) => void;
  /** Gives every mark its name for screen readers; it may follow a moment after the paint. */
  readonly name: () => void;
}

/**
 * Paints marks into a group per string. Every change of a chart repaints hundreds of marks, which is why they are kept
 * and changed in place rather than rendered as components.
 */
export function painter(strings: readonly SVGGElement[]): Painter {
  const pools = strings.map((): Drawn[] => []);
  return {
    paint: (marks, geometry) => {
      const used = strings.map(() => 0);
      const { half, tall } = geometry.mark;
      for (const mark of marks) {
        const row = mark.string - 1;
        const parent = strings[row];
        if (!parent || mark.fret < geometry.from || mark.fret > geometry.to) continue;
        const it = (pools[row]![used[row]!++] ??= drawn(parent));
        const { mark: was } = it;
        const { x, y } = geometry.at(mark.string, mark.fret);
        const at = `translate(${x} ${y})`;
        if (it.at !== at) it.group.setAttribute('transform', (it.at = at));
        const shape = `${mark.kind} ${half} ${tall}`;
        if (it.shape !== shape) {
          it.shape = shape;
          it.path.setAttribute('d', outline(mark.kind, half, tall));
          it.group.setAttribute('class', `mark mark-${mark.kind}`);
        }
        if (was?.label !== mark.label) it.label.data = mark.label;
        if ((was?.fill ?? null) !== (mark.fill ?? null)) {
          it.path.style.fill = mark.fill ?? '';
          it.text.style.fill = mark.text ?? '';
        }
        it.mark = mark;
      }
      pools.forEach((pool, row) => {
        for (const spare of pool.splice(used[row]!)) spare.group.remove();
      });
    },
    name: () => {
      for (const pool of pools) for (const it of pool) it.group.setAttribute('aria-label', it.mark!.name());
    },
  };
}
