import { type Place, roman } from '@crow-ladder/core';
import { type Geometry } from './geometry.ts';
import { type Figure, type FretBand, type Layers, type Link } from './scene.ts';

/** A line or area, or a word around its middle; its class says how it looks. */
export interface Shape {
  readonly class: string;
  /** Outline of a line or area; a word has none. */
  readonly d?: string;
  readonly width?: number;
  readonly x?: number;
  readonly y?: number;
  readonly word?: string;
}

const INLAYS = new Set([3, 5, 7, 9, 15, 17, 19, 21, 27, 29, 31, 33]);

/** A line between two points given along and across the neck. */
const line = (g: Geometry, u1: number, v1: number, u2: number, v2: number): string =>
  g.vertical ? `M${v1} ${u1}L${v2} ${u2}` : `M${u1} ${v1}L${u2} ${v2}`;
const point = (g: Geometry, u: number, v: number) => (g.vertical ? { x: v, y: u } : { x: u, y: v });

/** The bare neck: inlays, wires, strings, fret numbers, the capo. */
export function boardShapes({ strings, capo, wound }: Figure, g: Geometry): readonly Shape[] {
  const count = strings.length;
  const [a, b] = g.edges;
  const firstWire = Math.max(0, g.from - 1);
  const wires = Array.from({ length: g.to - firstWire + 1 }, (_, i) => firstWire + i);
  const frets = wires.filter((f) => f >= Math.max(1, g.from));
  // The pair lies between strings, about a quarter of the neck from its edges, where no mark covers it.
  const between = (Math.round((count - 3) / 4) + 0.5) / (count - 1);
  const pair = [a + (b - a) * between, b - (b - a) * between];
  const inlays = frets.flatMap((f) => {
    const at = f + capo;
    if (at % 12 === 0) return pair.map((v) => ({ f, v }));
    return INLAYS.has(at) ? [{ f, v: (a + b) / 2 }] : [];
  });
  const numbers = g.vertical ? 12 : b + 33;
  const nut = capo ? 9 : 4;
  return [
    ...inlays.map(({ f, v }): Shape => {
      const { x, y } = point(g, g.centre(f), v);
      return { class: 'inlay', d: `M${x - 5} ${y}l5-5 5 5-5 5z` };
    }),
    ...wires.map((f): Shape => ({
      class: f === 0 ? (capo ? 'nut capo' : 'nut') : 'wire',
      width: f === 0 ? nut : 1.4,
      d: line(g, g.wire(f), a - 6, g.wire(f), b + 6),
    })),
    ...strings.map((_, i): Shape => {
      const v = g.across(i + 1);
      const end = g.from === 0 ? g.centre(0) : g.wire(g.from - 1);
      return {
        class: i >= count - wound ? 'string wound' : 'string',
        width: 1 + i * 0.25,
        d: line(g, end, v, g.wire(g.to), v),
      };
    }),
    ...frets.map((f): Shape => ({
      class: 'fret-number',
      ...point(g, g.centre(f), numbers),
      word: String(f),
    })),
    ...(capo > 0 && g.from === 0
      ? [
          {
            class: 'capo-name',
            ...point(g, g.centre(0), g.vertical ? 12 : numbers),
            word: `capo ${roman(capo)}`,
          },
        ]
      : []),
  ];
}

/** The names of the open strings beside the nut, string 1 first. */
export function nutShapes({ strings }: Figure, g: Geometry): readonly Shape[] {
  const along = g.vertical || g.body > 0 ? 14 : g.width - 14;
  return strings.map(({ name }, i) => ({
    class: 'open-name',
    ...point(g, along, g.across(i + 1)),
    word: name,
  }));
}

/** Frets as an area over all strings, with its word above it. */
function bandShapes({ from, to, label }: FretBand, kind: string, g: Geometry): readonly Shape[] {
  const [low, high] = [Math.max(from, g.from), Math.min(to, g.to)];
  if (low > high) return [];
  const [a, b] = [g.edges[0] - 14, g.edges[1] + 14];
  const start = low === 0 ? g.centre(0) - 15 * g.body : g.wire(low - 1);
  const end = g.wire(high);
  const corners = [point(g, start, a), point(g, end, a), point(g, end, b), point(g, start, b)];
  const area: Shape = { class: kind, d: `M${corners.map(({ x, y }) => `${x} ${y}`).join('L')}Z` };
  return label
    ? [area, { class: `${kind}-word`, ...point(g, (start + end) / 2, a - 7), word: label }]
    : [area];
}

/** How far over a mark the arc of a step rises on a lying neck. */
const RISE = 5;

/**
 * The line of a link and the place of its word. Along a string it is an arc over the marks of a lying neck, under them
 * for a miscount; on an upright one there is room between the marks, so the word stands there.
 */
function linkShapes(link: Link, g: Geometry): readonly Shape[] {
  const [a, b] = [g.at(link.from.string, link.from.fret), g.at(link.to.string, link.to.fret)];
  const [x, y] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  const word = (at: number): Shape[] =>
    link.label ? [{ class: `link-word link-word-${link.kind}`, x, y: at, word: link.label }] : [];
  const path = (d: string): Shape => ({ class: `link link-${link.kind}`, d });
  if (link.kind === 'was' || link.from.string !== link.to.string || g.vertical)
    return [path(`M${a.x} ${a.y}L${b.x} ${b.y}`), ...word(y)];
  const over = link.kind === 'miss' ? 1 : -1;
  const edge = y + over * (g.mark.tall + 1);
  return [
    path(`M${a.x} ${edge}Q${x} ${edge + 2 * over * RISE} ${b.x} ${edge}`),
    ...word(y + over * Math.max(g.mark.tall + 1 + RISE, g.gap / 2)),
  ];
}

const within = (g: Geometry, { fret }: Place): boolean => fret >= g.from && fret <= g.to;

/** A frame around a spot. */
export function ringShape({ string, fret }: Place, kind: string, g: Geometry): Shape {
  const { x, y } = g.at(string, fret);
  const [w, h] = [g.mark.half + 5, g.mark.tall + 4];
  return { class: `ring ring-${kind}`, d: `M${x - w} ${y - h}h${2 * w}v${2 * h}h${-2 * w}z` };
}

/**
 * The lamp around a note: four corners that leave open what stands between them, as far from its middle as said.
 */
export function lampPath(x: number, y: number, wide: number, high: number): string {
  const [a, b] = [wide * 0.4, high * 0.4];
  const across = (to: number): string => {
    const back = y + to - Math.sign(to) * b;
    return `M${x - a} ${back}L${x} ${y + to}L${x + a} ${back}`;
  };
  const along = (to: number): string => {
    const back = x + to - Math.sign(to) * a;
    return `M${back} ${y - b}L${x + to} ${y}L${back} ${y + b}`;
  };
  return across(-high) + along(wide) + across(high) + along(-wide);
}
/** The lamp around a spot that sounds, or that is the next one. */
const lampShape = ({ string, fret }: Place, kind: string, g: Geometry): Shape => {
  const { x, y } = g.at(string, fret);
  return { class: `ring ring-${kind}`, d: lampPath(x, y, g.mark.half + 13, g.mark.tall + 11) };
};

/** What lies under the marks and what lies over them. Words stand after lines, so that they are clear of them. */
export function layerShapes(
  layers: Layers,
  g: Geometry,
): { readonly under: readonly Shape[]; readonly over: readonly Shape[] } {
  const links = layers.links
    .filter((l) => within(g, l.from) && within(g, l.to))
    .flatMap((l) => linkShapes(l, g));
  const path = layers.path.filter((p) => within(g, p)).map((p) => g.at(p.string, p.fret));
  const { cursor } = layers;
  return {
    under: [
      ...layers.regions.flatMap((r) => bandShapes(r, 'region', g)),
      ...(layers.hand ? bandShapes(layers.hand, 'hand', g) : []),
      ...(path.length > 1 ? [{ class: 'path', d: `M${path.map(({ x, y }) => `${x} ${y}`).join('L')}` }] : []),
      ...links.filter((s) => s.word === undefined),
      ...links.filter((s) => s.word !== undefined),
    ],
    over: cursor
      ? [
          ...(cursor.next && within(g, cursor.next) ? [lampShape(cursor.next, 'next', g)] : []),
          ...(within(g, cursor.at) ? [lampShape(cursor.at, 'sounding', g)] : []),
        ]
      : [],
  };
}
