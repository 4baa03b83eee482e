/** A line of text that is a string of an instrument. */
export interface TabLine {
  /** From 1, as an editor counts. */
  readonly line: number;
  /** The column of the first sign of `text`, from 1. */
  readonly from: number;
  readonly name: string;
  readonly text: string;
}
/** Any other line. */
export interface Word {
  readonly line: number;
  readonly text: string;
}
/** Lines of tablature that stand together, with the lines beside them that may say something of them. */
export interface Block {
  readonly lines: readonly TabLine[];
  readonly above: Word | null;
  readonly below: Word | null;
}
export interface Lines {
  readonly blocks: readonly Block[];
  /** Every line that is no string, in order, without those that are empty. */
  readonly words: readonly Word[];
}

const LINE = /^(\s*)([A-Ga-g](?:#|♯|b|♭)?\d?)?(\s*)([|:\-–—\dhpstxX/\\(<[].*)$/u;
/** Signs that stand in a line of tablature. */
const SIGNS = /^[-–—|:\d½hpsbrtxX~v/\\()<>[\]{}^.*=_\s]+$/u;
/** What stands behind the last bar line: "x2", "(twice)". */
const BEHIND = /\|\s+[^|]*$|\|\s*x\s*\d+\s*$/iu;
const TAB = 8;

/** Tabulators as the spaces that they show as. */
function spread(text: string): string {
  if (!text.includes('\t')) return text;
  let out = '';
  for (const c of text) out += c === '\t' ? ' '.repeat(TAB - (out.length % TAB)) : c;
  return out;
}

/** A line of text as a string of an instrument; null where it is none. */
function tabLine(text: string, line: number): TabLine | null {
  const [, before = '', name = '', between = '', rest = ''] = LINE.exec(text.trimEnd()) ?? [];
  const signs = SIGNS.test(rest) ? rest : rest.replace(BEHIND, '|');
  if (!/[-–—|]/u.test(signs) || !SIGNS.test(signs)) return null;
  return { line, name, from: before.length + name.length + between.length + 1, text: signs };
}

/** Two systems without an empty line between them: cut where the names begin anew. */
function systems(lines: readonly TabLine[]): readonly (readonly TabLine[])[] {
  for (let many = 4; many <= lines.length / 2; many++) {
    const again = lines.every((it, i) => it.name !== '' && it.name === lines[i % many]!.name);
    if (again && lines.length % many === 0)
      return Array.from({ length: lines.length / many }, (_, i) => lines.slice(i * many, (i + 1) * many));
  }
  return [lines];
}

/** A text by its lines: those of strings that stand together, and all others. */
export function linesOf(text: string): Lines {
  const blocks: Block[] = [];
  const words: Word[] = [];
  let open: TabLine[] = [];
  let above: Word | null = null;
  const shut = (below: Word | null): void => {
    const parts = systems(open);
    if (open.length)
      parts.forEach((lines, i) =>
        blocks.push({
          lines,
          above: i === 0 ? above : null,
          below: i === parts.length - 1 ? below : null,
        }),
      );
    open = [];
    above = null;
  };
  text.split(/\r\n|\r|\n/u).forEach((raw, i) => {
    const shown = spread(raw);
    const it = tabLine(shown, i + 1);
    if (it) {
      open.push(it);
      return;
    }
    const word = shown.trim() === '' ? null : { line: i + 1, text: shown };
    shut(word);
    above = word;
    if (word) words.push(word);
  });
  shut(null);
  return { blocks, words };
}
