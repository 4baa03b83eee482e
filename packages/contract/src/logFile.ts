import './locale.ts';
import { textId } from '@crow-ladder/core';
import { type Checked } from './checked.ts';
import { ELSEWHERE, type KeptRound, type PlayedOn, ROUND_LIMITS } from './practice.ts';
import { type Grade, GRADES } from './recall/card.ts';
import { keptRoundSchema } from './roundSchema.ts';
import { cutText } from './text.ts';
import { validate } from './validate.ts';

/** An answer to a card, as the log has it in a file. */
export interface LoggedAnswer {
  readonly id: string;
  readonly at: string;
  readonly day: string;
  readonly grade: Grade;
  readonly ms: number;
  /** What the card asks. */
  readonly name: string;
  readonly root: string;
  readonly scale: string;
}

/** The columns of the log in a file: first those that a person reads, then what it takes to come back as it was. */
export const LOG_COLUMNS = [
  ...['day', 'what', 'minutes', 'tempo', 'clean', 'note', 'chart', 'root', 'scale', 'kind'],
  ...['at', 'drill', 'shape', 'notes a beat', 'chart id', 'position', 'way back', 'id'],
] as const;
export type LogCells = Readonly<Partial<Record<(typeof LOG_COLUMNS)[number], string>>>;
/** What the column "kind" says. */
const KINDS = { round: 'practice', answer: 'recall' } as const;

/** Exact to the ms. */
const minutes = (ms: number): string => String(Number((ms / 60_000).toFixed(5)));
const CLEAN = new Map<boolean | null, string>([
  [true, 'yes'],
  [false, 'no'],
  [null, ''],
]);

/** A round as cells of the file. */
export const roundCells = ({ on, ...round }: KeptRound): LogCells => ({
  day: round.day,
  what: round.name,
  minutes: minutes(round.ms),
  tempo: String(round.tempo ?? ''),
  clean: CLEAN.get(round.clean)!,
  note: round.note,
  chart: on?.chartName ?? '',
  root: on?.root ?? '',
  scale: on?.scale ?? '',
  kind: KINDS.round,
  at: round.at,
  drill: round.drill,
  shape: round.shape,
  'notes a beat': String(round.perBeat ?? ''),
  'chart id': on?.chart ?? '',
  position: String(on?.start ?? ''),
  'way back': on?.back ?? '',
  id: round.id,
});
/** An answer as cells of the file. */
export const answerCells = ({ id, at, day, grade, ms, name, root, scale }: LoggedAnswer): LogCells => ({
  day,
  what: name,
  minutes: minutes(ms),
  clean: GRADES.find((it) => it.id === grade)!.name,
  root,
  scale,
  kind: KINDS.answer,
  at,
  id,
});

/** What columns of logs that were kept elsewhere are called (common practice, no source). */
const CALLED: Readonly<Record<string, (typeof LOG_COLUMNS)[number]>> = {
  date: 'day',
  exercise: 'what',
  drill: 'what',
  name: 'what',
  practice: 'what',
  practiced: 'what',
  practised: 'what',
  piece: 'what',
  time: 'minutes',
  min: 'minutes',
  mins: 'minutes',
  duration: 'minutes',
  bpm: 'tempo',
  ok: 'clean',
  notes: 'note',
  comment: 'note',
  comments: 'note',
  tune: 'chart',
};

/** What stands in the first line of a file, by its column of the log; null where it has no day or nothing that was played. */
export function columnsIn(
  headers: readonly string[],
): ReadonlyMap<string, (typeof LOG_COLUMNS)[number]> | null {
  const found = new Map<string, (typeof LOG_COLUMNS)[number]>();
  const plain = (header: string): string => header.trim().toLowerCase().replace(/[_-]/g, ' ');
  const isOurs = headers.some((h) => plain(h) === 'shape');
  for (const header of headers) {
    const is = plain(header);
    const column =
      LOG_COLUMNS.find((it) => it === is && (isOurs || it !== 'drill')) ?? (isOurs ? undefined : CALLED[is]);
    if (column && ![...found.values()].includes(column)) found.set(header, column);
  }
  const has = new Set(found.values());
  return has.has('day') && has.has('what') ? found : null;
}

/** A line of a file: a round, an answer, which comes with a backup alone, or why it is left out. */
export type LogLine =
  | { readonly is: 'round'; readonly round: KeptRound }
  | { readonly is: 'answer' }
  | { readonly is: 'left'; readonly why: string };

const left = (why: string): LogLine => ({ is: 'left', why });
const YES = /^(y|yes|true|1|x|clean|ok|✓)$/i;
const NO = /^(n|no|false|0|-|not yet)$/i;
/** A cell that a spreadsheet would have computed is written with an apostrophe before it. */
const plain = (cell: string | undefined): string => (cell ?? '').trim().replace(/^'(?=[=+\-@\t\r])/, '');
const numberIn = (cell: string): number | null => (cell === '' ? null : Number(cell.replace(',', '.')));

/**
 * Reads lines of a log. One that comes again, in this file or another time, gets the same id, so that nothing is in the log twice;
 * of lines that are alike in one file each is one.
 */
export function logReader(): (cells: LogCells) => LogLine {
  const alike = new Map<string, number>();
  return (cells) => {
    const cell = (name: (typeof LOG_COLUMNS)[number]): string => plain(cells[name]);
    if (cell('kind') === KINDS.answer) return { is: 'answer' };
    const [, day, rest = ''] = /^(\d{4}-\d\d-\d\d)([T ].*)?$/.exec(cell('day')) ?? [];
    if (day === undefined) return left(`“${cutText(cell('day'), 40)}” is no day: write it as 2026-06-01.`);
    const what = cutText(cell('what'), ROUND_LIMITS.name);
    if (!what) return left('It does not say what was played.');
    const long = numberIn(cell('minutes'));
    if (long !== null && !(long >= 0 && long * 60_000 <= ROUND_LIMITS.ms))
      return left(
        `“${cutText(cell('minutes'), 20)}” is no number of minutes up to ${ROUND_LIMITS.ms / 60_000}.`,
      );
    const tempo = numberIn(cell('tempo').replace(/\s*bpm$/i, ''));
    if (tempo !== null && Number.isNaN(tempo))
      return left(`“${cutText(cell('tempo'), 20)}” is no tempo: write quarter notes a minute, as 90.`);
    const clean = YES.test(cell('clean')) ? true : NO.test(cell('clean')) ? false : null;
    const words = JSON.stringify(LOG_COLUMNS.map(cell));
    const nth = alike.get(words) ?? 0;
    alike.set(words, nth + 1);
    const at = cell('at') || `${day}T${/^[T ](\d\d:\d\d)/.exec(rest)?.[1] ?? '12:00'}:00.000Z`;
    const on: PlayedOn | null = cell('chart id')
      ? {
          chart: cell('chart id'),
          chartName: cell('chart'),
          root: cell('root'),
          scale: cell('scale'),
          start: Number(cell('position')),
          back: cell('way back'),
        }
      : null;
    const chart = on ? '' : cell('chart');
    const round = {
      id: cell('id') || `in-${textId(`${words} ${nth}`)}`,
      at,
      day,
      drill: cell('drill') || ELSEWHERE,
      shape: cell('shape') || what,
      name: chart && !what.includes(chart) ? cutText(`${what}, ${chart}`, ROUND_LIMITS.name) : what,
      perBeat: numberIn(cell('notes a beat')),
      tempo: tempo === null ? null : Math.round(tempo),
      clean,
      ms: Math.round((long ?? 0) * 60_000),
      on,
      note: cutText(cell('note'), ROUND_LIMITS.note),
    };
    const read: Checked<KeptRound> = validate<KeptRound>(keptRoundSchema, round);
    return read.ok ? { is: 'round', round: read.value } : left(read.error.message);
  };
}
