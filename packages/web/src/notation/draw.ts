import { countOf } from '@crow-ladder/core/notation';
import { fingerSign } from '@crow-ladder/core/run';
import {
  BarlineType,
  Curve,
  Formatter,
  Glyph,
  type RenderContext,
  Renderer,
  Stave,
  type StaveNote,
  StaveTie,
  TabNote,
  TabSlide,
  TabStave,
  TabTie,
} from 'vexflow/bravura';
import {
  addHead,
  type Breathe,
  type Drawable,
  type Line,
  type Page,
  pageOf,
  type PlacedBar,
  SIZE,
} from './page.ts';
import { SLURS } from './voices.ts';

/** A note of the run as it is drawn: on which line, and its middle. */
interface DrawnNote {
  readonly line: number;
  readonly x: number;
}
export interface DrawnScore {
  readonly lines: readonly Pick<Line, 'top' | 'height'>[];
  /** By the step of the run. */
  readonly notes: readonly DrawnNote[];
}

const SVG = 'http://www.w3.org/2000/svg';
/** What draws: the library's context, and the drawing that it draws into. */
interface Pen {
  readonly ctx: RenderContext;
  readonly svg: SVGSVGElement;
}

/** A text with its middle at x. */
function put({ svg }: Pen, text: string, x: number, y: number, kind: string): void {
  const it = document.createElementNS(SVG, 'text');
  it.setAttribute('x', x.toFixed(1));
  it.setAttribute('y', y.toFixed(1));
  it.setAttribute('class', kind);
  it.textContent = text;
  svg.append(it);
}

/** A sign of music type with its middle at x. */
function putGlyph({ ctx }: Pen, code: string, x: number, y: number): void {
  ctx.openGroup('stroke');
  Glyph.renderGlyph(ctx, x - 4, y, 26, code);
  ctx.closeGroup();
}

const FRET_FONT = '600 10.5pt Marks';
const BOWS = { down: 'stringsDownBow', up: 'stringsUpBow' } as const;

/** Draws a bar; `head` is the width of what stands before it at the beginning of a line. */
function drawBar(
  pen: Pen,
  it: Drawable,
  line: Line,
  bar: PlacedBar,
  head: number,
  is: { readonly first: boolean; readonly last: boolean },
): void {
  const { ctx } = pen;
  const { x, width, notes, ends } = bar;
  const begins = bar === line.bars[0];
  const options = { space_above_staff_ln: 0 };
  const staff = new Stave(x, line.staff, width, options);
  const strings = { ...options, num_lines: it.strings, spacing_between_lines_px: SIZE.strings };
  const tab = new TabStave(x, line.high, width, strings);
  for (const s of [staff, tab])
    s.setBegBarType(BarlineType.NONE)
      .setEndBarType(is.last ? BarlineType.END : ends ? BarlineType.SINGLE : BarlineType.NONE)
      .setContext(ctx);
  if (begins) addHead(staff, it, is.first).setNoteStartX(x + head);
  tab.setNoteStartX(staff.getNoteStartX());
  if (it.staff) staff.draw();
  tab.draw();
  for (const note of bar.tab) if (note instanceof TabNote) note.render_options.font = FRET_FONT;
  const [written, fretted] = bar.voices;
  written.setStave(staff);
  fretted.setStave(tab);
  new Formatter()
    .joinVoices([written])
    .joinVoices([fretted])
    .format([written, fretted], x + width - staff.getNoteStartX() - SIZE.bar * 0.6, { context: ctx });
  for (const note of [...bar.staff, ...bar.tab]) note.setContext(ctx);
  if (it.staff) {
    written.draw(ctx, staff);
    // Of a bar that goes on on the next line all notes stand by its end.
    if (ends) for (const part of [...notes.beams, ...notes.tuplets]) part.setContext(ctx).draw();
  }
  fretted.draw(ctx, tab);
}

/** A note with where it stands on the page. */
interface Placed {
  readonly step: number;
  readonly line: number;
  readonly staff: StaveNote;
  readonly tab: TabNote;
}

/** A slide without the library's own word: its sign stands over the strings, as of every slur. */
class Slide extends TabSlide {
  override renderText(): void {
    // Nothing is written.
  }
}

/** A line of what joins two notes: whole, or in two halves where the page breaks between them. */
function joined<N>(from: N, to: N, broken: boolean) {
  const indices = { first_indices: [0], last_indices: [0] };
  const ends = broken ? [{ first_note: from }, { last_note: to }] : [{ first_note: from, last_note: to }];
  return ends.map((end) => ({ ...end, ...indices }) as unknown as ConstructorParameters<typeof StaveTie>[0]);
}

/** How a slurred note is joined to the one before, with the sign of it. */
function drawSlur(pen: Pen, it: Drawable, before: Placed, now: Placed, { signs }: Line): void {
  const { arrive } = it.run[now.step]!;
  const sign = SLURS[arrive];
  if (!sign) return;
  const broken = before.line !== now.line;
  if (it.staff && !broken) new Curve(before.staff, now.staff, {}).setContext(pen.ctx).draw();
  for (const ends of joined(before.tab, now.tab, broken)) {
    const line = arrive === 'slide' && !broken ? new Slide(ends) : new TabTie(ends);
    line.setContext(pen.ctx).draw();
  }
  const x = now.tab.getStemX();
  put(pen, sign, broken ? x - 14 : (before.tab.getStemX() + x) / 2, signs + 4, 'joint');
}

/** Draws the notes of a line that go on in the one after, or from a beat into the next. */
function drawTies(pen: Pen, page: Page): void {
  let before: { readonly note: StaveNote; readonly line: Line } | null = null;
  for (const line of page.lines)
    for (const { items, staff } of line.bars)
      items.forEach((item, i) => {
        const note = staff[i]!;
        if (before && item.step !== null && !item.first)
          for (const ends of joined(before.note, note, before.line !== line))
            new StaveTie(ends).setContext(pen.ctx).draw();
        before = { note, line };
      });
}

/** What stands over and under the strings for a note: its stroke, finger and count. */
function drawSigns(pen: Pen, it: Drawable, { step, tab }: Placed, { signs, low }: Line): void {
  const x = tab.getStemX();
  const { finger, arrive, start } = it.run[step]!;
  const stroke = it.strokes[step];
  if (stroke) putGlyph(pen, BOWS[stroke], x, signs + 4);
  if (arrive === 'tap') put(pen, 't', x, signs + 4, 'joint');
  put(pen, fingerSign(finger), x, low + SIZE.fingers, 'finger');
  put(pen, countOf(start, it.score.beats), x, low + SIZE.fingers + SIZE.count, 'count');
}

/** Draws the sign of tablature at the beginning of a line. */
function drawSign(pen: Pen, { high, low }: Line): void {
  const gap = Math.min(SIZE.strings * 1.3, (low - high + SIZE.strings) / 3);
  [...'TAB'].forEach((letter, i) => put(pen, letter, 12, (high + low) / 2 + (i - 1) * gap + 4.5, 'sign'));
}

/** Draws a line, and gives its notes. */
function drawLine(pen: Pen, it: Drawable, { lines, head }: Page, n: number): readonly Placed[] {
  const line = lines[n]!;
  drawSign(pen, line);
  return line.bars.flatMap((bar, i) => {
    const last = n === lines.length - 1 && i === line.bars.length - 1;
    drawBar(pen, it, line, bar, head, { first: n === 0, last });
    return bar.items.flatMap(({ step, first }, k): readonly Placed[] =>
      step !== null && first ? [{ step, line: n, staff: bar.staff[k]!, tab: bar.tab[k] as TabNote }] : [],
    );
  });
}

/** Draws a run into an empty element of the document, `width` px wide, line by line. */
export async function drawScore(
  host: HTMLDivElement,
  it: Drawable,
  width: number,
  breathe: Breathe,
): Promise<DrawnScore> {
  const renderer = new Renderer(host, Renderer.Backends.SVG);
  renderer.resize(width, 10);
  const pen: Pen = { ctx: renderer.getContext(), svg: host.querySelector('svg')! };
  const page = await pageOf(it, width, breathe);
  const placed: Placed[] = [];
  for (let n = 0; n < page.lines.length; n++) {
    placed.push(...drawLine(pen, it, page, n));
    await breathe();
  }
  if (it.staff) drawTies(pen, page);
  for (const [i, now] of placed.entries()) {
    const line = page.lines[now.line]!;
    drawSigns(pen, it, now, line);
    if (i) drawSlur(pen, it, placed[i - 1]!, now, line);
    await breathe();
  }
  renderer.resize(width, page.height);
  const notes = placed.map(({ line, tab }): DrawnNote => ({ line, x: tab.getStemX() }));
  return { lines: page.lines, notes };
}
