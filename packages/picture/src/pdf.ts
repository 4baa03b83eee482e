import { jsPDF } from 'jspdf';
import svgpath from 'svgpath';
import { type Book, type Laid, PAPERS } from './book.ts';
import { type Drawn, GREY, type Lettered, type Tone } from './printed.ts';

/** Static TrueType faces as base64 text, with the signs of sharps and flats. */
export interface Faces {
  readonly normal: string;
  readonly bold: string;
}
interface PdfOptions {
  readonly faces: Faces;
  /** The time that stands in the file. */
  readonly made: Date;
  /** Told how many pages are done. */
  readonly onPage?: (done: number) => void;
}

const grey = (tone: Tone): [number, number, number] => [GREY[tone], GREY[tone], GREY[tone]];
const FACE = 'Book';
/** Points of a letter's size to a mm. */
const POINTS = 72 / 25.4;

type Segment = readonly [string, ...number[]];
/** An outline as lines and cubic curves, in mm. */
function segments(d: string, { x, y, scale }: Laid, at: Drawn) {
  const ops: { op: 'm' | 'l' | 'c' | 'h'; c?: number[] }[] = [];
  let [nowX, nowY] = [0, 0];
  const path = svgpath(d).translate(at.x, at.y).scale(scale).translate(x, y).abs().unshort().unarc();
  path.iterate((segment: Segment) => {
    const [kind, ...n] = segment;
    const end = (a: number, b: number): void => void ([nowX, nowY] = [a, b]);
    if (kind === 'M' || kind === 'L') {
      ops.push({ op: kind === 'M' ? 'm' : 'l', c: n });
      end(n[0]!, n[1]!);
    } else if (kind === 'H' || kind === 'V') {
      end(kind === 'H' ? n[0]! : nowX, kind === 'V' ? n[0]! : nowY);
      ops.push({ op: 'l', c: [nowX, nowY] });
    } else if (kind === 'Q') {
      const [cx, cy, ex, ey] = n as [number, number, number, number];
      ops.push({
        op: 'c',
        c: [
          nowX + (2 / 3) * (cx - nowX),
          nowY + (2 / 3) * (cy - nowY),
          ex + (2 / 3) * (cx - ex),
          ey + (2 / 3) * (cy - ey),
          ex,
          ey,
        ],
      });
      end(ex, ey);
    } else if (kind === 'C') {
      ops.push({ op: 'c', c: n });
      end(n[4]!, n[5]!);
    } else ops.push({ op: 'h' });
  });
  return ops;
}

function draw(doc: jsPDF, laid: Laid, ink: Drawn): void {
  const { scale } = laid;
  doc.path(segments(ink.d, laid, ink));
  if (ink.fill) doc.setFillColor(...grey(ink.fill));
  if (ink.stroke) {
    doc.setDrawColor(...grey(ink.stroke));
    doc.setLineWidth(ink.width * scale);
    doc.setLineDashPattern(
      ink.dash.map((it) => it * scale),
      0,
    );
  }
  if (ink.fill && ink.stroke) doc.fillStroke();
  else if (ink.fill) doc.fill();
  else doc.stroke();
}

function letter(doc: jsPDF, { x, y, scale }: Laid, ink: Lettered): void {
  doc.setFont(FACE, ink.bold ? 'bold' : 'normal');
  doc.setFontSize(ink.size * scale * POINTS);
  doc.setTextColor(...grey(ink.tone));
  doc.text(ink.word, x + ink.x * scale, y + ink.y * scale, { align: ink.align, baseline: 'middle' });
}

/** A book as a PDF file: its words are words, its faces are in it, its pages have bookmarks. */
export function pdfOf(
  { title, paper, sheets, outline }: Book,
  { faces, made, onPage }: PdfOptions,
): Uint8Array<ArrayBuffer> {
  const { width, height } = PAPERS[paper];
  const doc = new jsPDF({ unit: 'mm', format: [width, height], compress: true });
  doc.setCreationDate(made);
  doc.setProperties({ title, creator: 'Crow Ladder' });
  doc.setLanguage('en');
  for (const style of ['normal', 'bold'] as const) {
    doc.addFileToVFS(`${style}.ttf`, faces[style]);
    doc.addFont(`${style}.ttf`, FACE, style);
  }
  sheets.forEach((sheet, i) => {
    if (i > 0) doc.addPage([width, height]);
    for (const laid of sheet)
      for (const ink of laid.inks)
        if ('d' in ink) draw(doc, laid, ink);
        else letter(doc, laid, ink);
    onPage?.(i + 1);
  });
  for (const { title: called, page } of outline) doc.outline.add(null, called, { pageNumber: page });
  return new Uint8Array(doc.output('arraybuffer'));
}
