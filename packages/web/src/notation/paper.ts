import { type Drawn, type Ink, type Lettered, type Tone } from '@crow-ladder/picture';
import { SVGContext } from 'vexflow/bravura';

/** A part of a drawing that is written out as text: what the notation library asks of an element of a page, where there is no page. */
class Part {
  readonly style: Record<string, string> = {};
  textContent = '';
  readonly #attributes = new Map<string, string>();
  #parts: Part[] = [];
  readonly nodeName: string;
  constructor(nodeName: string) {
    this.nodeName = nodeName;
  }
  appendChild(part: Part): void {
    this.#parts.push(part);
  }
  setAttribute(name: string, value: unknown): void {
    // The library counts everything that it makes; nobody asks for the numbers.
    if (name !== 'id' && name !== 'pointer-events') this.#attributes.set(name, String(value));
  }
  setAttributeNS(_: null, name: string, value: unknown): void {
    this.setAttribute(name, value);
  }
  /** Its parts, those of groups that nobody asks for too: a page draws twice as fast what has half as many. */
  #flat(): readonly Part[] {
    return this.#parts.flatMap((part) =>
      part.nodeName === 'g' &&
      ![...part.#attributes].some(([key, value]) => key !== 'class' || ASKED.has(value))
        ? part.#flat()
        : part,
    );
  }
  /** How it looks, which is all but its way. */
  #look(): string {
    return [...this.#attributes]
      .filter(([key]) => key !== 'd')
      .map(([key, value]) => ` ${key}="${escaped(value)}"`)
      .join('');
  }
  /** It, in one with what looks alike and follows it, with nothing but lines and shapes between them. */
  #written(alike: readonly Part[]): string {
    const { nodeName: name, textContent } = this;
    const ways = alike.map((part) => part.#attributes.get('d')).join('');
    const parts: Part[][] = [];
    let paths = new Map<string, Part[]>();
    for (const part of this.#flat()) {
      const isPath = part.nodeName === 'path';
      const others = isPath ? paths.get(part.#look()) : undefined;
      if (others) {
        others.push(part);
        continue;
      }
      const begun = [part];
      parts.push(begun);
      if (isPath) paths.set(part.#look(), begun);
      else paths = new Map();
    }
    const inside = parts.map((same) => same[0]!.#written(same)).join('');
    return `<${name}${this.#look()}${ways && ` d="${ways}"`}>${escaped(textContent)}${inside}</${name}>`;
  }
  toString(): string {
    return this.#written([this]);
  }
  /** It as it is put on paper, by what it and what it stands in say of its look; `top` comes to be the highest. */
  inks(top: number, around: Look = {}): readonly Ink[] {
    const look = { ...around, ...Object.fromEntries(this.#attributes) };
    const here = INKED[this.nodeName]?.(look, this.textContent, top);
    return [...(here ? [here] : []), ...this.#parts.flatMap((part) => part.inks(top, look))];
  }
}

type Look = Readonly<Record<string, string>>;
/** What words are by their class, in px; others tell of themselves. */
const SIZES: Readonly<Record<string, number>> = {
  finger: 12,
  count: 11,
  accidental: 11,
  joint: 11,
  sign: 13,
};
const TONES: Readonly<Record<string, Tone | null>> = { none: null, white: 'paper', '#999999': 'soft' };
const toneOf = (paint: string | undefined): Tone | null => {
  const tone = TONES[paint ?? 'black'];
  return tone === undefined ? 'ink' : tone;
};
const drawn = (look: Look, d: string, top: number): Drawn => ({
  d,
  x: 0,
  y: -top,
  stroke: toneOf(look['stroke']),
  width: Number(look['stroke-width'] ?? 1),
  dash: [],
  fill: toneOf(look['fill']),
});
/** From the line that letters stand on up to their middle, beside their size. */
const MIDDLE = 0.36;
/** How parts of a drawing are put on paper. */
const INKED: Readonly<Record<string, (look: Look, text: string, top: number) => Ink>> = {
  path: (look, _, top) => drawn(look, look['d']!, top),
  rect: (look, _, top) => {
    const [x, y, width, height] = ['x', 'y', 'width', 'height'].map((name) => Number(look[name]));
    return drawn(look, `M${x} ${y}h${width}v${height}h${-width!}Z`, top);
  },
  text: (look, text, top): Lettered => {
    const own = SIZES[look['class'] ?? ''];
    const size = own ?? parseFloat(look['font-size']!) * PX_A_PT;
    // The library's own words begin where it says, ours are around it.
    const half = own ? 0 : (text.length * size * LETTER.width) / 2;
    return {
      word: text,
      x: Number(look['x']) + half,
      y: Number(look['y']) - top - MIDDLE * size,
      size,
      bold: look['class'] === 'sign' || Number(look['font-weight']) >= 600 || look['font-weight'] === 'bold',
      tone: toneOf(look['fill']) ?? 'ink',
      align: 'center',
    };
  },
};

/** Groups that are asked for by name. */
const ASKED = new Set(['vf-stave', 'vf-tabnote', 'vf-stroke']);

const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => ENTITIES[c]!);

/** A font as the library writes it: "italic 600 10.5pt Marks". */
const FONT = /^(?:(italic|normal) )?(?:(\w+) )?([\d.]+)(pt|px) (.+)$/;
/** How wide and high a letter is, beside its size, where nothing can be measured. */
const LETTER = { width: 0.56, height: 1.2 };
const PX_A_PT = 4 / 3;

/** Paper that the notation library draws on without a page: what is drawn comes out as the text of an SVG. */
export class Paper extends SVGContext {
  constructor() {
    super(new Part('div') as never);
  }
  override create(name: string): never {
    return new Part(name) as never;
  }
  override setFont(...asked: Parameters<SVGContext['setFont']>): this {
    const [font] = asked;
    const [, style, weight, size, unit, family] = (typeof font === 'string' && FONT.exec(font)) || [];
    if (!family) return super.setFont(...asked);
    return super.setFont({
      family,
      size: `${size}${unit}`,
      weight: weight ?? 'normal',
      style: style ?? 'normal',
    });
  }
  override measureText(text: string): ReturnType<SVGContext['measureText']> {
    const size = parseFloat(String(this.attributes['font-size'])) * PX_A_PT;
    return { x: 0, y: 0, width: text.length * size * LETTER.width, height: size * LETTER.height };
  }
  /** A text with its middle at x. */
  put(text: string, x: number, y: number, kind: string): void {
    const it = new Part('text');
    it.setAttribute('x', x.toFixed(1));
    it.setAttribute('y', y.toFixed(1));
    it.setAttribute('class', kind);
    it.textContent = text;
    this.svg.appendChild(it as never);
  }
  /** Shows so much of it: all that is so wide, from a height on down, `by` times as large. */
  cut(width: number, top: number, height: number, by: number): void {
    this.resize(width * by, height * by);
    this.svg.setAttribute('viewBox', `0 ${top} ${width} ${height}`);
  }
  /** What was drawn, as it is put on paper, from a height on. */
  inks(top: number): readonly Ink[] {
    return (this.svg as unknown as Part).inks(top);
  }
  /** What was drawn. */
  override toString(): string {
    return (this.svg as unknown as Part).toString();
  }
}
