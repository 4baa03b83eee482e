import { type KeptRound } from '@crow-ladder/contract';
import { columnsIn, type LogCells, logReader } from '@crow-ladder/contract/logFile';
import papa from 'papaparse';
import { type Clock } from '../../ports/clock.ts';

/** Characters that are read at a time, so that the page answers meanwhile, the largest file in bytes, and its most rounds. */
const FILE = { piece: 16_000, most: 20_000_000, rounds: 20_000 };

export interface LogRead {
  readonly rounds: readonly KeptRound[];
  /** Answers to cards, which come with a backup alone. */
  readonly answers: number;
  readonly left: readonly { readonly line: number; readonly why: string }[];
}

/** What stands between cells, by the first line of a table. */
function betweenCells(text: string): string {
  const first = text.slice(0, /\r|\n|$/.exec(text)!.index);
  const many = (mark: string): number => first.split(mark).length;
  return [',', ';', '\t', '|'].reduce((most, mark) => (many(mark) > many(most) ? mark : most));
}

/** What a table of a log holds, read piece by piece; refused with why. */
export async function readLog(file: Blob, clock: Pick<Clock, 'after'>): Promise<LogRead> {
  if (file.size > FILE.most)
    throw new Error(`This file is larger than ${FILE.most / 1_000_000} MB: cut it into parts.`);
  // As a whole, as a piece of a file may end in the middle of a character.
  const text = await file.text();
  const read = logReader();
  const rounds: KeptRound[] = [];
  const left: { line: number; why: string }[] = [];
  let answers = 0;
  let head: readonly string[] = [];
  let columns: ReturnType<typeof columnsIn> = null;
  let line = 0;
  const take = (cells: readonly string[]): void => {
    line++;
    if (cells.every((cell) => cell.trim() === '')) return;
    if (!columns) {
      columns = columnsIn(cells);
      if (!columns)
        throw new Error(
          'The first line of this file does not name its columns. It has to name at least “day” and “what”, and can name “minutes”, “tempo”, “clean”, “note” and “chart”.',
        );
      head = cells;
      return;
    }
    const named: LogCells = Object.fromEntries(
      head.flatMap((name, i) => {
        const column = columns!.get(name);
        return column ? [[column, cells[i] ?? '']] : [];
      }),
    );
    const it = read(named);
    if (it.is === 'round') rounds.push(it.round);
    else if (it.is === 'answer') answers++;
    else left.push({ line, why: it.why });
    if (rounds.length > FILE.rounds)
      throw new Error(`This file has more than ${FILE.rounds} rounds: cut it into parts.`);
  };
  return new Promise((resolve, reject) => {
    papa.parse<string[]>(text, {
      chunkSize: FILE.piece,
      delimiter: betweenCells(text),
      chunk: ({ data }: papa.ParseResult<string[]>, parser: papa.Parser) => {
        try {
          data.forEach(take);
        } catch (error) {
          reject(error as Error);
          return parser.abort();
        }
        parser.pause();
        clock.after(0, () => parser.resume());
      },
      complete: () => resolve({ rounds, answers, left }),
    });
  });
}
