import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Chart, type ChartPage, type ChartSummary } from '@crow-ladder/contract';
import { appOn, type Serving } from '../src/app.ts';
import { backupsOf } from '../src/backup/backups.ts';
import { openDatabase } from '../src/database.ts';
import { clearDemoLog } from '../src/demo.ts';
import { doorOf } from '../src/door.ts';
import { hostNames } from '../src/guard.ts';
import { type Library, libraryOn } from '../src/library.ts';
import { type World, WORLD } from '../src/world.ts';

interface Refusal {
  readonly error: { readonly code: string; readonly field?: string; readonly message: string };
}

/** A row that nobody can read as a chart. */
export const TORN_ROW = {
  id: 'torn',
  name: 'Torn',
  tags: '[',
  notes: '',
  state: '{',
  revision: 1,
  created_at: 'x',
  updated_at: 'x',
} as const;
/** A round of practice, without an id. */
export const ROUND = {
  drill: 'updown',
  shape: 'x',
  perBeat: 2,
  name: 'Up and down',
  tempo: 90,
  clean: true,
  at: '2026-06-01T20:00:00.000Z',
  day: '2026-06-01',
  ms: 90_000,
  on: null,
  note: '',
} as const;

/** The whole application on a library of its own in a file, without a port; parts of it can be put in place of others. */
export async function served(serving: Partial<Serving> = {}, world: World = WORLD) {
  const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const path = join(folder, 'library.sqlite');
  const { db } = await openDatabase(path);
  // The log of practice is the test's own.
  await clearDemoLog(db);
  const backups = backupsOf(path, db, world);
  const library = libraryOn(db, backups.settled, world);
  const usual: Serving = {
    webRoot: '.',
    hosts: hostNames('127.0.0.1', 'galley'),
    files: () => Promise.resolve(null),
    isStopping: () => false,
    backups,
    door: doorOf(db, null, 4780, world),
    version: 'of-a-test',
  };
  const with_ = (other: Partial<Library> = {}) => appOn({ ...library, ...other }, { ...usual, ...serving });
  let app = with_();
  const send = (
    method: string,
    to: string,
    body?: unknown,
    headers: Record<string, string> = {},
    from = '127.0.0.1',
  ) =>
    app.request(
      to,
      {
        method,
        headers: { 'content-type': 'application/json', ...headers },
        ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      },
      { incoming: { socket: { remoteAddress: from } } },
    );
  const call = async <T = Refusal>(
    method: string,
    to: string,
    body?: unknown,
    headers = {},
    from?: string,
  ) => {
    const res = await send(method, `/api${to}`, body, headers, from);
    return { status: res.status, body: (await res.json()) as T, headers: res.headers };
  };
  const page = async (query = ''): Promise<ChartPage> =>
    (await call<ChartPage>('GET', `/charts${query}`)).body;
  let restores = 0;
  return {
    db,
    path,
    library,
    send,
    call,
    /** Has other functions of the library stand in for its own. */
    instead: (other: Partial<Library>) => (app = with_(other)),
    page,
    /** Every chart of the list, whole. */
    charts: async (): Promise<readonly Chart[]> => {
      const all: ChartSummary[] = [];
      for (let found = 1; all.length < found;) {
        const some = await page(`?from=${all.length}`);
        all.push(...some.charts);
        found = some.found;
      }
      return Promise.all(all.map(async ({ id }) => (await call<Chart>('GET', `/charts/${id}`)).body));
    },
    remove: (kind: 'chart' | 'instrument', { id, revision }: { id: string; revision: number }) =>
      call('DELETE', `/${kind}s/${id}`, undefined, { 'if-match': `"${revision}"` }),
    /** Brings a backup back: the answer to reading it where that is refused, else the one to putting it in place. */
    restore: async (file: unknown) => {
      const to = `/restores/restore-${++restores}`;
      const read = await call('PUT', to, file);
      return read.status === 200 ? call('POST', `${to}/replace`) : read;
    },
    close: async () => {
      await backups.close();
      await db.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
export type Served = Awaited<ReturnType<typeof served>>;

/** The charts of a server that runs, page by page. */
export async function listed(base: string): Promise<readonly ChartSummary[]> {
  const all: ChartSummary[] = [];
  for (let found = 1; all.length < found;) {
    const page = (await (await fetch(`${base}/api/charts?from=${all.length}`)).json()) as ChartPage;
    all.push(...page.charts);
    ({ found } = page);
  }
  return all;
}

/** A world whose time stands until it is moved, and whose ids are counted. */
export function handWorld(begin = Date.UTC(2026, 5, 1, 20)) {
  let now = begin;
  let ids = 0;
  const due: { readonly at: number; readonly work: () => void }[] = [];
  return {
    now: () => now,
    id: () => `id-${String(++ids).padStart(9, '0')}`,
    later: (ms: number, work: () => void) => void due.push({ at: now + ms, work }),
    /** Moves the time so many ms on, and does what falls due. */
    advance: (ms: number): void => {
      now += ms;
      for (const it of due.filter((d) => d.at <= now)) {
        due.splice(due.indexOf(it), 1);
        it.work();
      }
    },
  };
}
