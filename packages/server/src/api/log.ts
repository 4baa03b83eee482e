import { type KeptRound, type LogQuery } from '@crow-ladder/contract';
import {
  answerCells,
  LOG_COLUMNS,
  type LogCells,
  type LoggedAnswer,
  roundCells,
} from '@crow-ladder/contract/logFile';
import { daySchema, logQuerySchema, validate } from '@crow-ladder/contract/schemas';
import { type Context, Hono } from 'hono';
import papa from 'papaparse';
import { type Library } from '../library.ts';
import { right } from './reading.ts';

/** The part of the log that an address asks for. */
function queryOf(c: Context): LogQuery {
  const { from = '', to = '', chart = '', what = '', tag = '' } = c.req.query();
  return right(validate<LogQuery>(logQuerySchema, { from, to, chart, what, tag }));
}

/** Rows of a table for other programs, with its first line where they begin it; no cell of it is computed by them. */
const table = (cells: readonly LogCells[], first: boolean): string =>
  cells.length || first
    ? papa.unparse(
        { fields: [...LOG_COLUMNS], data: cells.map((row) => LOG_COLUMNS.map((name) => row[name] ?? '')) },
        {
          header: first, // Of more than one line as well.
          escapeFormulae: /^[=+\-@\t\r]/,
          newline: '\r\n',
        },
      ) + '\r\n'
    : '';

async function* asTable(library: Library, query: LogQuery): AsyncGenerator<string> {
  yield table([], true);
  for await (const rounds of library.eachLogged(query)) yield table(rounds.map(roundCells), false);
  for await (const answers of library.eachAnswered(query)) yield table(answers.map(answerCells), false);
}

/** A list as JSON, some entries at a time. */
async function* listed(
  name: string,
  entries: AsyncIterable<readonly (KeptRound | LoggedAnswer)[]>,
): AsyncGenerator<string> {
  let between = `,\n"${name}":[`;
  for await (const some of entries) {
    yield between + some.map((it) => JSON.stringify(it)).join(',\n');
    between = ',\n';
  }
  yield between === ',\n' ? ']' : `${between}]`;
}
async function* asJson(library: Library, query: LogQuery): AsyncGenerator<string> {
  yield '{"format":"crow-ladder-log","version":1';
  yield* listed('rounds', library.eachLogged(query));
  yield* listed('answers', library.eachAnswered(query));
  yield '}\n';
}
const FILES = {
  csv: { type: 'text/csv; charset=utf-8', write: asTable },
  json: { type: 'application/json; charset=utf-8', write: asJson },
} as const;

/** Text as it is made, in bytes. */
function streamOf(text: AsyncGenerator<string>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    pull: async (to) => {
      const next = await text.next();
      if (next.done) return to.close();
      to.enqueue(encoder.encode(next.value));
    },
    cancel: async () => void (await text.return(undefined)),
  });
}

/** The log of practice and recall: its days, what it comes to, and all of it in a file. */
export function logOn(library: Library): Hono {
  const api = new Hono();
  api.get('/log', async (c) => {
    const before = c.req.query('before') ?? '';
    if (before) right(validate<string>(daySchema, before));
    return c.json(await library.log(queryOf(c), before));
  });
  api.get('/log/sum', async (c) => c.json(await library.logSum(queryOf(c))));
  api.get('/log/parts', async (c) => c.json(await library.logParts()));
  for (const [name, { type, write }] of Object.entries(FILES))
    api.get(`/log.${name}`, (c) => {
      c.header('Content-Type', type);
      c.header('Content-Disposition', `attachment; filename="crow-ladder-log.${name}"`);
      return c.body(streamOf(write(library, queryOf(c))));
    });
  return api;
}
