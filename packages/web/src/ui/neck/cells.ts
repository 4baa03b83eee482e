import { type Place, placeId } from '@crow-ladder/core';
import { type Geometry, type Scene } from '@crow-ladder/picture';

const SVG = 'http://www.w3.org/2000/svg';
/** Names follow once a neck has come to rest: a key held down does not write hundreds of them at every step. */
const REST_MS = 150;

/** The neck as a grid for the keyboard and for screen readers: a row for each string, a cell for each fret. */
export interface Cells {
  readonly paint: (scene: Scene, g: Geometry) => void;
  /** Makes a cell the one that the tab key leads to, and puts focus on it where it is asked for. */
  readonly go: (place: Place, focus: boolean) => void;
  readonly placeOf: (element: Element) => Place | null;
  readonly clear: () => void;
}

function make(role: string, parent: Element, tag = 'g'): SVGElement {
  const e = document.createElementNS(SVG, tag);
  e.setAttribute('role', role);
  parent.append(e);
  return e;
}

/** Lays cells over a drawing. A marked cell has the name of its mark, another one what `nameOf` says of it by then. */
export function cellsOn(canvas: SVGGElement, nameOf: () => (place: Place) => string): Cells {
  let shown: Geometry | null = null;
  let cells = new Map<number, { readonly element: SVGElement; readonly place: Place; name: string }>();
  let current: SVGElement | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const lay = (g: Geometry, scene: Scene): void => {
    const held = current && document.activeElement === current ? placeOf(current) : null;
    canvas.replaceChildren();
    cells = new Map();
    current = null;
    const [w, h] = [g.mark.half + 5, g.mark.tall + 4];
    scene.figure.strings.forEach((_, i) => {
      const row = make('row', canvas);
      row.setAttribute('aria-rowindex', String(i + 1));
      for (let fret = g.from; fret <= g.to; fret++) {
        const place = { string: i + 1, fret };
        const { x, y } = g.at(place.string, fret);
        const element = make('gridcell', row, 'rect');
        const box = {
          x: x - w,
          y: y - h,
          width: 2 * w,
          height: 2 * h,
          tabindex: -1,
          'aria-colindex': fret + 1,
        };
        for (const [name, value] of Object.entries(box)) element.setAttribute(name, String(value));
        element.setAttribute('class', 'cell');
        cells.set(placeId(place), { element, place, name: '' });
      }
    });
    if (held) go(held, true);
  };
  const name = ({ layers, figure }: Scene): void => {
    const marks = new Map(layers.marks.map((m) => [placeId(m), m]));
    const other = nameOf();
    for (const [i, row] of [...canvas.children].entries())
      row.setAttribute('aria-label', `String ${i + 1}, ${figure.strings[i]?.pitch}`);
    for (const [id, cell] of cells) {
      const said = marks.get(id)?.name() ?? other(cell.place);
      if (said !== cell.name) cell.element.setAttribute('aria-label', (cell.name = said));
    }
  };
  const placeOf = (element: Element): Place | null =>
    [...cells.values()].find((c) => c.element === element)?.place ?? null;
  const go = (place: Place, focus: boolean): void => {
    const next = cells.get(placeId(place))?.element;
    if (!next) return;
    current?.setAttribute('tabindex', '-1');
    next.setAttribute('tabindex', '0');
    current = next;
    if (focus) next.focus();
  };
  return {
    paint: (scene, g) => {
      if (shown !== g) lay((shown = g), scene);
      clearTimeout(timer);
      timer = setTimeout(() => name(scene), REST_MS);
    },
    go,
    placeOf,
    clear: () => {
      clearTimeout(timer);
      canvas.replaceChildren();
    },
  };
}
