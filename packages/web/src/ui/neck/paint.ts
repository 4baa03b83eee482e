import { type Geometry } from './geometry.ts';
import { type NeckMark, outline } from './Mark.ts';

const SVG = 'http://www.w3.org/2000/svg';

/** A mark's elements, and what they show now, so that a repaint touches only what differs. */
interface Drawn {
  readonly group: SVGGElement;
  readonly path: SVGPathElement;
  readonly text: SVGTextElement;
  readonly label: Text;
  /** The group's place, moved without writing and reading a transform attribute, which takes five times as long. */
  readonly place: SVGTransform;
  mark: NeckMark | null;
  x: number;
  y: number;
  half: number;
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
  group.setAttribute('transform', 'translate(0 0)');
  const place = group.transform.baseVal.getItem(0);
  return { group, path, text, label, place, mark: null, x: 0, y: 0, half: 0 };
}

function paintMark(it: Drawn, mark: NeckMark, { at, mark: { half, tall } }: Geometry): void {
  const { mark: was } = it;
  const { x, y } = at(mark.string, mark.fret);
  if (it.x !== x || it.y !== y) it.place.setTranslate((it.x = x), (it.y = y));
  if (it.half !== half || was?.kind !== mark.kind) {
    it.half = half;
    it.path.setAttribute('d', outline(mark.kind, half, tall));
    it.group.setAttribute('class', `mark mark-${mark.kind}`);
  }
  if (was?.label !== mark.label) {
    it.label.data = mark.label;
    const long = mark.label.length > 2;
    if (long !== (was ? was.label.length > 2 : false)) it.text.setAttribute('class', long ? 'long' : '');
  }
  if (was?.fill !== mark.fill) {
    it.path.style.fill = mark.fill ?? '';
    it.text.style.fill = mark.text ?? '';
  }
  it.mark = mark;
}

const GLIDE: KeyframeAnimationOptions = { duration: 450, easing: 'ease-in-out' };
const still = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

export interface Painter {
  /** `open` are the names of the open strings, string 1 first. */
  readonly paint: (marks: readonly NeckMark[], open: readonly string[], geometry: Geometry) => void;
  /** Gives every mark its name for screen readers; it may follow a moment after the paint. */
  readonly name: () => void;
}

/** Marks of a string that would change their shape or label if the elements that show them took the place `by` further on. */
const changes = (pool: readonly Drawn[], marks: readonly NeckMark[], by: number): number =>
  marks.filter((m, i) => pool[i - by]?.mark?.kind !== m.kind || pool[i - by]?.mark?.label !== m.label).length;

/**
 * Gives a string as many elements as it has marks. Where a note came in or went out at the low end, as when the key
 * moves by a half step, the elements move along, so that most of them keep their shape and label.
 */
function fit(pool: Drawn[], marks: readonly NeckMark[], parent: SVGGElement): void {
  const stay = changes(pool, marks, 0);
  if (stay > 2 && pool.length)
    if (changes(pool, marks, 1) < stay) {
      pool.unshift(pool.pop()!);
      parent.prepend(pool[0]!.group);
    } else if (changes(pool, marks, -1) < stay) {
      pool.push(pool.shift()!);
      parent.append(pool.at(-1)!.group);
    }
  while (pool.length < marks.length) pool.push(drawn(parent));
  for (const spare of pool.splice(marks.length)) spare.group.remove();
}

/**
 * Paints marks into a group per string, and the names of the open strings into a text each. Every change of a chart
 * repaints hundreds of marks, which is why they are kept and changed in place rather than rendered as components.
 */
export function painter(strings: readonly SVGGElement[], nut: readonly Element[]): Painter {
  const names = nut.map((text) => {
    const name = document.createTextNode('');
    text.replaceChildren(name);
    return name;
  });
  const pools = strings.map((): Drawn[] => []);
  /** Where followed notes were in the last drawing. */
  let places = new Map<string, { readonly x: number; readonly y: number }>();
  /** Followed notes that now lie elsewhere glide there from where they were. */
  const follow = (): void => {
    const before = places;
    places = new Map();
    for (const pool of pools)
      for (const { mark, group, x, y } of pool) {
        if (mark?.follows === undefined) continue;
        places.set(mark.follows, { x, y });
        const was = before.get(mark.follows);
        if (was && (was.x !== x || was.y !== y) && !still())
          group.animate(
            [{ transform: `translate(${was.x}px,${was.y}px)` }, { transform: `translate(${x}px,${y}px)` }],
            GLIDE,
          );
      }
  };
  return {
    paint: (marks, open, geometry) => {
      names.forEach((name, i) => {
        if (name.data !== open[i]) name.data = open[i]!;
      });
      const rows = strings.map((): NeckMark[] => []);
      for (const mark of marks)
        if (mark.fret >= geometry.from && mark.fret <= geometry.to) rows[mark.string - 1]?.push(mark);
      rows.forEach((row, i) => {
        const pool = pools[i]!;
        fit(pool, row, strings[i]!);
        row.forEach((mark, j) => paintMark(pool[j]!, mark, geometry));
      });
      follow();
    },
    name: () => {
      for (const pool of pools) for (const it of pool) it.group.setAttribute('aria-label', it.mark!.name());
    },
  };
}
