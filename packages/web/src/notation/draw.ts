import { LETTERS } from '@crow-ladder/core';
import { alteredBy, countOf, heightOf, LINES, type ScoreItem } from '@crow-ladder/core/notation';
import { fingerSign } from '@crow-ladder/core/run';
import { type Ink } from '@crow-ladder/picture';
import type { TabNote } from 'vexflow/bravura';
import {
  BarlineType,
  Curve,
  Formatter,
  Glyph,
  Stave,
  type StaveNote,
  StaveTie,
  TabSlide,
  TabStave,
  TabTie,
  TextBracket,
} from 'vexflow/bravura';
import { addHead, type Drawable, type Line, type Page, pageOf, type PlacedBar, SIZE } from './page.ts';
import { Paper } from './paper.ts';
import { SLURS } from './voices.ts';

/** A note of the run as it is drawn: on which line, and the middle of its fret. */
interface DrawnNote {
  readonly line: number;
  readonly x: number;
  readonly y: number;
}
export interface DrawnScore {
  /** The text of it, each line by itself, so that what is out of sight costs nothing. */
  readonly html: string;
  readonly lines: readonly Pick<Line, 'top' | 'height'>[];
  /** By the step of the run. */
  readonly notes: readonly DrawnNote[];
  /** How large it is beside its own size. */
  readonly by: number;
}

/** A sign of music type with its middle at x. */
function putGlyph(paper: Paper, code: string, x: number, y: number): void {
  paper.openGroup('stroke');
  Glyph.renderGlyph(paper, x - 4, y, 26, code);
  paper.closeGroup();
}

const BOWS = { down: 'stringsDownBow', up: 'stringsUpBow' } as const;

/** Draws a bar. */
function drawBar(
  paper: Paper,
  it: Drawable,
  line: Line,
  bar: PlacedBar,
  is: { readonly first: boolean; readonly last: boolean },
): void {
  const { x, width, notes, ends } = bar;
  const begins = bar === line.bars[0];
  const options = { space_above_staff_ln: 0 };
  const staff = new Stave(x, line.staff, width, options);
  const strings = { ...options, num_lines: it.strings, spacing_between_lines_px: SIZE.strings };
  const tab = new TabStave(x, line.high, width, strings);
  for (const s of [staff, tab])
    s.setBegBarType(BarlineType.NONE)
      .setEndBarType(is.last ? BarlineType.END : ends ? BarlineType.SINGLE : BarlineType.NONE)
      .setContext(paper);
  if (begins) addHead(staff, it, is.first).setNoteStartX(x + line.head);
  tab.setNoteStartX(staff.getNoteStartX());
  if (it.staff) staff.draw();
  tab.draw();
  const [written, fretted] = bar.voices;
  written.setStave(staff);
  fretted.setStave(tab);
  new Formatter()
    .joinVoices([written])
    .joinVoices([fretted])
    .format([written, fretted], x + width - staff.getNoteStartX() - SIZE.bar * 0.6, { context: paper });
  for (const note of [...bar.staff, ...bar.tab]) note.setContext(paper);
  if (it.staff) {
    written.draw(paper, staff);
    // Of a bar that goes on on the next line all notes stand by its end.
    if (ends) for (const part of [...notes.beams, ...notes.tuplets]) part.setContext(paper).draw();
  }
  fretted.draw(paper, tab);
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

/** A line of what joins two notes: whole, or in two halves where the page breaks between them, each on the paper of its line. */
function joined<N>(from: N, to: N, [before, now]: readonly [Paper, Paper]) {
  const indices = { first_indices: [0], last_indices: [0] };
  const ends =
    before === now
      ? [{ on: now, first_note: from, last_note: to }]
      : [
          { on: before, first_note: from },
          { on: now, last_note: to },
        ];
  return ends.map(({ on, ...end }) => ({
    on,
    ends: { ...end, ...indices } as unknown as ConstructorParameters<typeof StaveTie>[0],
  }));
}

/** How a slurred note is joined to the one before, with the sign of it. */
function drawSlur(
  papers: readonly Paper[],
  it: Drawable,
  before: Placed,
  now: Placed,
  { signs }: Line,
): void {
  const { arrive } = it.run[now.step]!;
  const sign = SLURS[arrive];
  if (!sign) return;
  const broken = before.line !== now.line;
  const paper = papers[now.line]!;
  if (it.staff && !broken) new Curve(before.staff, now.staff, {}).setContext(paper).draw();
  for (const { on, ends } of joined(before.tab, now.tab, [papers[before.line]!, paper])) {
    const line = arrive === 'slide' && !broken ? new Slide(ends) : new TabTie(ends);
    line.setContext(on).draw();
  }
  const x = now.tab.getStemX();
  paper.put(sign, broken ? x - 14 : (before.tab.getStemX() + x) / 2, signs + 4, 'joint');
}

/** Draws the notes of a line that go on in the one after, or from a beat into the next. */
function drawTies(papers: readonly Paper[], page: Page): void {
  let before: { readonly note: StaveNote; readonly paper: Paper } | null = null;
  for (const [n, line] of page.lines.entries()) {
    const paper = papers[n]!;
    for (const { items, staff } of line.bars)
      items.forEach((item, i) => {
        const note = staff[i]!;
        if (before && item.step !== null && !item.first)
          for (const { on, ends } of joined(before.note, note, [before.paper, paper]))
            new StaveTie(ends).setContext(on).draw();
        before = { note, paper };
      });
  }
}

/** How far an accent stands beside a stroke. */
const BESIDE = 12;
/** What stands over and under the strings for a note: its stroke, finger and count. */
function drawSigns(paper: Paper, it: Drawable, { step, tab }: Placed, { signs, low }: Line): void {
  const x = tab.getStemX();
  const { finger, arrive, start, accent } = it.run[step]!;
  const stroke = it.strokes[step];
  if (stroke) putGlyph(paper, BOWS[stroke], x, signs + 4);
  if (accent) paper.put('>', stroke || arrive === 'tap' ? x + BESIDE : x, signs + 4, 'joint');
  if (arrive === 'tap') paper.put('t', x, signs + 4, 'joint');
  paper.put(fingerSign(finger), x, low + SIZE.fingers, 'finger');
  paper.put(countOf(start, it.score.beats), x, low + SIZE.fingers + SIZE.count, 'count');
}

/** How the brackets are named that notes stand under, by how many octaves they sound higher. */
const BRACKETS: Readonly<Record<number, readonly [text: string, above: string]>> = {
  2: ['15', 'ma'],
  1: ['8', 'va'],
  [-1]: ['8', 'va bassa'],
  [-2]: ['15', 'ma bassa'],
};
/** Draws brackets over and under notes of a line that are written in another octave. */
function drawBrackets(paper: Paper, { bars, staff, top, signs }: Line): void {
  const all = bars.flatMap((bar) => bar.items.map((item, i) => ({ item, note: bar.staff[i]! })));
  const shifted = all.filter(({ item }) => item.pitch !== null);
  for (let from = 0, to = 0; from < shifted.length; from = to) {
    const { shift } = shifted[from]!.item;
    while (to < shifted.length && shifted[to]!.item.shift === shift) to++;
    if (!shift) continue;
    const [text, superscript] = BRACKETS[shift]!;
    const bracket = new TextBracket({
      start: shifted[from]!.note,
      stop: shifted[to - 1]!.note,
      text,
      superscript,
      position: shift > 0 ? TextBracket.Position.TOP : TextBracket.Position.BOTTOM,
    });
    // Lines of text are a space apart, and begin a space over the staff, or under it.
    const far = shift > 0 ? staff - top - SIZE.bracket : signs - SIZE.signs / 2 - staff - 10 * SIZE.half;
    bracket
      .setLine(far / (2 * SIZE.half) - 1)
      .setContext(paper)
      .draw();
  }
}

const SIGNS: Readonly<Record<number, string>> = { [-2]: '♭♭', [-1]: '♭', 0: '♮', 1: '♯', 2: '𝄪' };
/** What a bent note is bent to, small on the staff beside it; a quarter tone has no note of its own. */
function drawTarget(paper: Paper, it: Drawable, item: ScoreItem, note: StaveNote, { staff }: Line): void {
  if (!item.target) return;
  const height = heightOf(item.target) - item.shift * LETTERS.length;
  const y = staff + (LINES[it.score.clef][1] - height) * SIZE.half;
  const { letter, alteration } = item.target.note;
  const altered = alteration !== alteredBy(it.score.signature, letter);
  const x = note.getAbsoluteX() + (altered ? 23 : 17);
  paper.openGroup('target');
  paper.beginPath();
  paper.moveTo(note.getAbsoluteX() + 12, note.getYs()[0]! - 3);
  paper.lineTo(x + 2, y);
  paper.stroke();
  Glyph.renderGlyph(paper, x + 3, y, 24, 'noteheadBlack');
  paper.closeGroup();
  if (altered) paper.put(SIGNS[alteration] ?? '', x - 3, y + 4, 'accidental');
}

/** Draws the sign of tablature at the beginning of a line. */
function drawSign(paper: Paper, { high, low }: Line): void {
  const gap = Math.min(SIZE.strings * 1.3, (low - high + SIZE.strings) / 3);
  [...'TAB'].forEach((letter, i) => paper.put(letter, 12, (high + low) / 2 + (i - 1) * gap + 4.5, 'sign'));
}

/** Draws a line, and gives its notes. */
function drawLine(paper: Paper, it: Drawable, { lines }: Page, n: number): readonly Placed[] {
  const line = lines[n]!;
  const placed: Placed[] = [];
  drawSign(paper, line);
  for (const [i, bar] of line.bars.entries()) {
    const last = n === lines.length - 1 && i === line.bars.length - 1;
    drawBar(paper, it, line, bar, { first: n === 0, last });
    bar.items.forEach((item, k) => {
      const { step, first } = item;
      if (step === null || !first) return;
      const staff = bar.staff[k]!;
      placed.push({ step, line: n, staff, tab: bar.tab[k] as TabNote });
      if (it.staff) drawTarget(paper, it, item, staff, line);
    });
  }
  if (it.staff) drawBrackets(paper, line);
  return placed;
}

/**
 * Draws a run, `width` px wide, line by line; `scale` is how large beside its own size, less where not even one beat would fit on a
 * line so.
 */
export function drawScore(it: Drawable, width: number, scale: number): DrawnScore {
  const { papers, placed, page, wide } = papersOf(it, width / scale);
  const by = width / wide;
  const notes = placed.map(({ line, tab }): DrawnNote => ({
    line,
    x: tab.getStemX() * by,
    y: tab.getYs()[0]! * by,
  }));
  const lines = page.lines.map(({ top, height }) => ({ top: top * by, height: height * by }));
  const html = papers.map((paper, n) => {
    const { top, height } = page.lines[n]!;
    paper.cut(wide, top, height, by);
    return `<div style="height:${height * by}px">${String(paper)}</div>`;
  });
  return { html: html.join(''), lines, notes, by };
}

/** A run drawn for paper, line by line. */
export interface ScoreInk {
  readonly lines: readonly { readonly high: number; readonly inks: readonly Ink[] }[];
  /** How large it is beside its own size. */
  readonly by: number;
}
/** Draws a run for paper, `width` px wide; smaller where not even one beat would fit on a line. */
export function scoreInk(it: Drawable, width: number): ScoreInk {
  const { papers, page, wide } = papersOf(it, width);
  return {
    lines: papers.map((paper, n) => {
      const { top, height } = page.lines[n]!;
      return { high: height, inks: paper.inks(top) };
    }),
    by: width / wide,
  };
}

/** Draws each line on a paper of its own, on a page of a width in the notation's own px, wider where not even one beat would fit. */
function papersOf(it: Drawable, asked: number) {
  const first = pageOf(it, asked);
  const wide = Math.max(asked, first.least);
  const page = wide > asked ? pageOf(it, wide) : first;
  const papers = page.lines.map(() => new Paper());
  const placed = papers.flatMap((paper, n) => drawLine(paper, it, page, n));
  if (it.staff) drawTies(papers, page);
  for (const [i, now] of placed.entries()) {
    const line = page.lines[now.line]!;
    drawSigns(papers[now.line]!, it, now, line);
    if (i) drawSlur(papers, it, placed[i - 1]!, now, line);
  }
  return { papers, placed, page, wide };
}
