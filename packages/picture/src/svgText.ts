import { geometryOf } from './geometry.ts';
import { isLong, LABEL_DROP, markClass, marksByString, outline } from './marks.ts';
import { type Mark, type Scene } from './scene.ts';
import { boardShapes, layerShapes, nutShapes, type Shape } from './shapes.ts';

export interface SvgOptions {
  /** What the picture shows, for those who cannot see it. */
  readonly title: string;
  /** The stylesheet of scenes, and the values of its variables by name, without the dashes. */
  readonly css: string;
  readonly values: Readonly<Record<string, string>>;
  /** Rules that bring the fonts along, where they are to be embedded. */
  readonly fonts?: string;
}

/** Text as it stands in a file of marks. */
export const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
/** Numbers as short as they can be without being seen to move. */
export const short = (text: string): string =>
  text.replace(/-?\d+\.\d{3,}/g, (n) => String(Math.round(Number(n) * 100) / 100));

function shapeText(s: Shape): string {
  if (s.word !== undefined) return `<text class="${s.class}" x="${s.x}" y="${s.y}">${escaped(s.word)}</text>`;
  return `<path class="${s.class}"${s.width ? ` stroke-width="${s.width}"` : ''} d="${s.d}"/>`;
}

function markText(mark: Mark, scene: Scene): string {
  const g = geometryOf(scene.figure);
  const { x, y } = g.at(mark.string, mark.fret);
  const paint = (value: string | undefined): string => (value ? ` style="fill:${escaped(value)}"` : '');
  return [
    `<g class="${markClass(mark)}" transform="translate(${x} ${y})" role="img" aria-label="${escaped(mark.name())}">`,
    `<path d="${outline(mark.kind, g.mark.half, g.mark.tall)}"${paint(mark.fill)}/>`,
    `<text y="${LABEL_DROP}"${isLong(mark.label) ? ' class="long"' : ''}${paint(mark.text)}>${escaped(mark.label)}</text>`,
    '</g>',
  ].join('');
}

/** A scene as an SVG file that stands by itself: its own style, text as text. */
export function svgText(scene: Scene, { title, css, values, fonts = '' }: SvgOptions): string {
  const { figure, layers } = scene;
  const g = geometryOf(figure);
  const { under, over } = layerShapes(layers, g);
  const style = css.replace(/var\(--([\w-]+)\)/g, (_, name: string) => values[name] ?? 'currentColor');
  const all = (shapes: readonly Shape[]): string => shapes.map(shapeText).join('\n');
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" class="neck${g.vertical ? ' upright' : ''}" viewBox="0 0 ${g.width} ${g.height}" width="${g.width}" height="${g.height}" role="img" aria-label="${escaped(title)}">`,
    `<title>${escaped(title)}</title>`,
    `<style>${fonts}${style.replace(/&|</g, (c) => (c === '&' ? '&amp;' : '&lt;'))}</style>`,
    `<rect width="100%" height="100%" fill="${escaped(values['ground'] ?? 'none')}"/>`,
    all(boardShapes(figure, g)),
    all(under),
    all(nutShapes(figure, g)),
    ...marksByString(layers.marks, g, figure.strings.length).flatMap((row) =>
      row.map((m) => markText(m, scene)),
    ),
    all(over),
    '</svg>',
  ];
  return `${short(lines.filter(Boolean).join('\n'))}\n`;
}
