import {
  boardShapes,
  type Geometry,
  geometryOf,
  isLong,
  LABEL_DROP,
  layerShapes,
  type Mark,
  markClass,
  marksByString,
  nutShapes,
  outline,
  type Scene,
  type Shape,
} from '@crow-ladder/picture';

const SVG = 'http://www.w3.org/2000/svg';
const make = <K extends keyof SVGElementTagNameMap>(name: K): SVGElementTagNameMap[K] =>
  document.createElementNS(SVG, name);
/** What a new element shows, and the attributes that a shape's fields stand for. */
const NOTHING: Shape = { class: '' };
const FIELDS = [
  ['d', 'd'],
  ['width', 'stroke-width'],
  ['x', 'x'],
  ['y', 'y'],
] as const;

/** Paints shapes into a group; elements are kept where they are of the same sort. */
function shapePainter(group: SVGGElement): (shapes: readonly Shape[]) => void {
  let last: readonly Shape[] = [];
  return (shapes) => {
    shapes.forEach((shape, i) => {
      const tag = shape.word === undefined ? 'path' : 'text';
      const kept = group.children[i];
      let element = kept;
      if (element?.tagName !== tag) {
        const other = make(tag);
        if (element) element.replaceWith(other);
        else group.append(other);
        element = other;
      }
      // What is there is known: reading it from the document would cost more than the change.
      const was = element === kept ? last[i]! : NOTHING;
      if (was.class !== shape.class) element.setAttribute('class', shape.class);
      for (const [field, name] of FIELDS) {
        const value = shape[field];
        if (was[field] === value) continue;
        if (value === undefined) element.removeAttribute(name);
        else element.setAttribute(name, String(value));
      }
      if (shape.word !== undefined && was.word !== shape.word) {
        // A text that is there already is changed, which costs less than one that is made.
        const text = element.firstChild;
        if (text) text.nodeValue = shape.word;
        else element.append(shape.word);
      }
    });
    while (group.children.length > shapes.length) group.lastElementChild!.remove();
    last = shapes;
  };
}

/** A mark's elements, and what they show now, so that a repaint touches only what differs. */
interface Drawn {
  readonly group: SVGGElement;
  readonly path: SVGPathElement;
  readonly text: SVGTextElement;
  readonly label: Text;
  /** The group's place, moved without writing and reading a transform attribute, which takes five times as long. */
  readonly place: SVGTransform;
  mark: Mark | null;
  x: number;
  y: number;
  half: number;
}

function drawn(): Drawn {
  const group = make('g');
  const path = make('path');
  const text = make('text');
  text.setAttribute('y', String(LABEL_DROP));
  const label = document.createTextNode('');
  text.append(label);
  group.append(path, text);
  group.setAttribute('transform', 'translate(0 0)');
  const place = group.transform.baseVal.getItem(0);
  return { group, path, text, label, place, mark: null, x: 0, y: 0, half: 0 };
}

function paintMark(it: Drawn, mark: Mark, { at, mark: { half, tall } }: Geometry): void {
  const { mark: was } = it;
  const { x, y } = at(mark.string, mark.fret);
  if (it.x !== x || it.y !== y) it.place.setTranslate((it.x = x), (it.y = y));
  if (it.half !== half || was?.kind !== mark.kind || was.root !== mark.root || was.heard !== mark.heard) {
    it.half = half;
    it.path.setAttribute('d', outline(mark.kind, half, tall));
    it.group.setAttribute('class', markClass(mark));
  }
  if (was?.label !== mark.label) {
    it.label.data = mark.label;
    const long = isLong(mark.label);
    if (long !== (was ? isLong(was.label) : false)) it.text.setAttribute('class', long ? 'long' : '');
  }
  if (was?.fill !== mark.fill) {
    it.path.style.fill = mark.fill ?? '';
    it.text.style.fill = mark.text ?? '';
  }
  it.mark = mark;
}

const GLIDE: KeyframeAnimationOptions = { duration: 450, easing: 'ease-in-out' };
const motionless = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/** Marks of a string that would change their shape or label if the elements that show them took the place `by` further on. */
const changes = (pool: readonly Drawn[], marks: readonly Mark[], by: number): number =>
  marks.filter((m, i) => pool[i - by]?.mark?.kind !== m.kind || pool[i - by]?.mark?.label !== m.label).length;

/**
 * Gives a string as many elements as it has marks; what it has too many of waits among the spares. Where a note came in or
 * went out at the low end, as when the key moves by a half step, the elements move along, so that most of them keep their
 * shape and label. Their order in the document says nothing.
 */
function fit(pool: Drawn[], marks: readonly Mark[], parent: SVGGElement, spares: Drawn[]): void {
  const stay = changes(pool, marks, 0);
  if (stay > 2 && pool.length)
    if (changes(pool, marks, 1) < stay) pool.unshift(pool.pop()!);
    else if (changes(pool, marks, -1) < stay) pool.push(pool.shift()!);
  for (const spare of pool.splice(marks.length)) {
    spare.group.remove();
    spares.push(spare);
  }
  while (pool.length < marks.length) {
    const one = spares.pop() ?? drawn();
    parent.append(one.group);
    pool.push(one);
  }
}

/** Paints marks, a group for each string, read string by string from the highest. */
function markPainter(layer: SVGGElement): (scene: Scene, g: Geometry) => void {
  const rows: { readonly group: SVGGElement; readonly pool: Drawn[] }[] = [];
  const spares: Drawn[] = [];
  /** Where followed notes were in the last drawing. */
  let places = new Map<string, { readonly x: number; readonly y: number }>();
  /** Followed notes that now lie elsewhere glide there from where they were. */
  const follow = (): void => {
    const before = places;
    places = new Map();
    for (const { pool } of rows)
      for (const { mark, group, x, y } of pool) {
        if (mark?.follows === undefined) continue;
        places.set(mark.follows, { x, y });
        const was = before.get(mark.follows);
        if (was && (was.x !== x || was.y !== y) && !motionless())
          group.animate(
            [{ transform: `translate(${was.x}px,${was.y}px)` }, { transform: `translate(${x}px,${y}px)` }],
            GLIDE,
          );
      }
  };
  return ({ figure: { strings }, layers: { marks } }, g) => {
    while (rows.length < strings.length) {
      const group = make('g');
      layer.append(group);
      rows.push({ group, pool: [] });
    }
    for (const { group } of rows.splice(strings.length)) group.remove();
    marksByString(marks, g, strings.length).forEach((row, i) => {
      const { group, pool } = rows[i]!;
      fit(pool, row, group, spares);
      row.forEach((mark, j) => paintMark(pool[j]!, mark, g));
    });
    follow();
  };
}

export interface Painter {
  readonly paint: (scene: Scene) => void;
  readonly clear: () => void;
}

/**
 * Paints scenes into an SVG group. Every change of a chart repaints hundreds of marks, which is why elements are kept and
 * changed in place rather than rendered as components.
 */
export function painter(canvas: SVGGElement): Painter {
  const group = (): SVGGElement => {
    const g = make('g');
    canvas.append(g);
    return g;
  };
  const [board, under, nut] = [group(), group(), group()].map(shapePainter);
  const marks = markPainter(group());
  const over = shapePainter(group());
  let onBoard = '';
  let bare: Geometry | null = null;
  return {
    paint: (scene) => {
      const { figure, layers } = scene;
      const g = geometryOf(figure);
      const wound = `${figure.wound}/${figure.strings.length}`;
      if (bare !== g || onBoard !== wound) board!(boardShapes(figure, g));
      [bare, onBoard] = [g, wound];
      const shapes = layerShapes(layers, g);
      under!(shapes.under);
      nut!(nutShapes(figure, g));
      marks(scene, g);
      over(shapes.over);
    },
    clear: () => canvas.replaceChildren(),
  };
}
