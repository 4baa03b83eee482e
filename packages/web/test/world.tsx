import {
  type Chart,
  type ChartChange,
  type ChartDraft,
  FIRST_STATE,
  DEFAULT_SETTINGS,
} from '@crow-ladder/contract';
import { act, render } from '@testing-library/react';
import { type ReactElement } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { serverCharts } from '../src/app/api.ts';
import { type Trouble } from '../src/app/trouble.ts';
import { type ChartPort, type Sending } from '../src/ports/chartPort.ts';
import { type Clock, ClockProvider } from '../src/ports/clock.ts';
import { type Keeping } from '../src/ports/keeping.ts';
import { type Network, type Outside } from '../src/ports/outside.ts';
import { makeStore } from '../src/store.ts';
import { handBrowser } from './browser.ts';

/** The real turn of the machine, also where a test has taken the timers in hand. */
const turn = globalThis.setTimeout;
/** Lets everything go on that waits for nothing but its turn. */
export async function settled(): Promise<void> {
  for (let turns = 0; turns < 12; turns++) await new Promise((done) => turn(done));
}

/** A clock that stands until it is moved. */
export interface HandClock extends Clock {
  /** Moves it so many ms on, and does on the way what falls due. */
  readonly advance: (ms: number) => Promise<void>;
  /** How much is still to be done. */
  readonly waiting: () => number;
}
export function handClock(begin = Date.UTC(2026, 5, 1, 20)): HandClock {
  let now = begin;
  const due = new Set<{ readonly at: number; readonly work: () => void }>();
  return {
    now: () => now,
    after: (ms, work) => {
      const it = { at: now + ms, work };
      due.add(it);
      return () => void due.delete(it);
    },
    advance: async (ms) => {
      const end = now + ms;
      for (;;) {
        await settled();
        const next = [...due].sort((a, b) => a.at - b.at)[0];
        if (!next || next.at > end) break;
        due.delete(next);
        now = next.at;
        next.work();
      }
      now = end;
      await settled();
    },
    waiting: () => due.size,
  };
}

/** What a browser keeps, while a test lasts. */
export function handKeeping(): Keeping & { readonly all: Map<string, string> } {
  const all = new Map<string, string>();
  return {
    all,
    getItem: (name) => all.get(name) ?? null,
    setItem: (name, value) => void all.set(name, value),
  };
}

export const CHART: Chart = {
  id: 'one',
  name: 'Bow wave',
  tags: ['deck'],
  notes: '',
  state: FIRST_STATE,
  revision: 4,
  createdAt: '2026-06-01T20:00:00.000Z',
  updatedAt: '2026-06-01T20:00:00.000Z',
};

/** A request to the charts, which waits for what the test answers. */
export interface AskedChart extends Sending {
  readonly id: string;
  readonly draft: ChartDraft;
  /** The revision that a change was made from; 0 makes the chart. */
  readonly from: number;
  /** Done, as the chart of a revision. */
  readonly done: (revision: number) => Promise<void>;
  readonly refused: (trouble: Partial<Trouble>) => Promise<void>;
}
/** Charts that answer when the test says so. */
export function handCharts() {
  const asked: AskedChart[] = [];
  let isThere = true;
  let knocks = 0;
  const ask = (it: Omit<AskedChart, 'done' | 'refused'>): Promise<Chart> =>
    new Promise<Chart>((resolve, reject) => {
      asked.push({
        ...it,
        done: (revision) => {
          resolve({ ...CHART, ...it.draft, id: it.id, revision });
          return settled();
        },
        refused: (trouble) => {
          reject({ code: 'unreachable', message: 'Away.', ...trouble } as unknown as Error);
          return settled();
        },
      });
    });
  const port: ChartPort = {
    get: () => Promise.reject(new Error('Nobody reads here.')),
    put: (id, { revision, ...draft }: ChartChange, sending = {}) =>
      ask({ id, draft, from: revision, ...sending }),
    isThere: () => {
      knocks++;
      return Promise.resolve(isThere);
    },
  };
  return {
    port,
    asked,
    /** The one that was asked last. */
    last: (): AskedChart => asked.at(-1)!,
    /** How often it was asked whether they are there. */
    knocks: () => knocks,
    goes: () => (isThere = false),
    comes: () => (isThere = true),
  };
}

/** A request that was made of the server. */
export interface Asked {
  readonly method: string;
  readonly path: string;
  readonly query: URLSearchParams;
  readonly body: unknown;
  readonly headers: Headers;
}
/** What it answers: a body with 200, a status with a body, or nothing at all. */
export type Answer = { readonly status?: number; readonly body: unknown } | 'lost';
/** A server of a few lines: what no answer is given for has none. */
export function handNetwork(answer: (asked: Asked) => Answer | undefined | Promise<Answer>): Network & {
  readonly asked: readonly Asked[];
} {
  const asked: Asked[] = [];
  return {
    base: 'http://page.test/api',
    asked,
    fetch: async (input, init) => {
      const request = new Request(input, init);
      const { pathname, searchParams } = new URL(request.url);
      const text = await request.text();
      const it: Asked = {
        method: request.method,
        path: pathname.replace('/api', ''),
        query: searchParams,
        body: text ? JSON.parse(text) : null,
        headers: request.headers,
      };
      asked.push(it);
      const given = (await answer(it)) ?? (it.path === '/settings' ? { body: DEFAULT_SETTINGS } : 'lost');
      if (given === 'lost') throw new TypeError('Failed to fetch');
      return new Response(JSON.stringify(given.body), {
        status: given.status ?? 200,
        headers: { 'content-type': 'application/json' },
      });
    },
  };
}
/** A refusal as the server words it. */
export const refusal = (status: number, code: string, more: object = {}): Answer => ({
  status,
  body: { error: { code, message: `Refused: ${code}.` }, ...more },
});

/** The page's store with everything outside in the test's hands. */
export function storeOf(outside: Partial<Outside> = {}) {
  const network = outside.network ?? handNetwork(() => undefined);
  return makeStore({
    clock: handClock(),
    keeping: handKeeping(),
    charts: serverCharts(network),
    ...handBrowser().tab('tab'),
    ...outside,
    network,
  });
}

/** Shows a part of the page on a store, at an address. */
export function shown(
  part: ReactElement,
  {
    store = storeOf(),
    clock = handClock(),
    at = '/',
  }: { store?: ReturnType<typeof storeOf>; clock?: Clock; at?: string } = {},
) {
  const wrapped = (it: ReactElement) => (
    <Provider store={store}>
      <ClockProvider value={clock}>
        <MemoryRouter initialEntries={[at]}>{it}</MemoryRouter>
      </ClockProvider>
    </Provider>
  );
  const { rerender, ...rest } = render(wrapped(part));
  return { ...rest, store, rerender: (it: ReactElement) => rerender(wrapped(it)) };
}
const frame = globalThis.requestAnimationFrame;
/** Lets what was asked come in, and the page follow: the store tells its listeners with a frame. */
export const follows = (): Promise<void> =>
  act(async () => {
    await settled();
    await new Promise((done) => frame(done));
    await settled();
  });
