import {
  type ApiError,
  type Binned,
  type Chart,
  type ChartChange,
  type ChartDraft,
  type ChartLook,
  type ChartPage,
  type ChartQuery,
  type Demo,
  type InstrumentChange,
  type KeptInstrument,
  type KeptCard,
  type KeptRound,
  type PhrasePage,
  type PhraseQuery,
  type Practised,
  type Recall,
  type Review,
  type Restore,
  type RoundQuery,
  type Settings,
  type SettingsPatch,
  type Tagged,
  type UsedInstrument,
} from '@crow-ladder/contract';
import { type Instrument } from '@crow-ladder/core';
import { nanoid } from '@reduxjs/toolkit';
import { createApi, type FetchArgs, fetchBaseQuery, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import { type ChartPort } from '../ports/chartPort.ts';
import { type Network, type Outside } from '../ports/outside.ts';
import { librarySeen, locked, otherLibrary, versionSeen, type WithStanding } from './standing.ts';
import { type Trouble, UNREACHABLE } from './trouble.ts';

/** Something in the library. */
type Kind = Pick<Binned, 'kind' | 'id'>;
/** The revision that something had when it was decided to delete it. */
export interface Removing extends Kind {
  readonly revision: number;
}

/** How long a backup may be on its way, in ms. */
const RESTORE_MS = 6 * 3_600_000;

/** How long an answer is waited for, in ms. */
const ANSWER_MS = 15_000;

/** Keys of the changes whose answer was lost, by what was asked for: the same one asked for again is not made twice. */
const LOST = new Map<string, string>();
/** What says with every request of which library it is, so that nothing is changed on another one. */
const OF_LIBRARY = 'Crow-Ladder-Library';
/** A change under a key; what can do without is as it was: a chart is changed by its id and revision. */
function underKey(args: string | FetchArgs): {
  readonly sent: string | FetchArgs;
  readonly forget: (lost: boolean) => void;
} {
  const asked: FetchArgs = typeof args === 'string' ? { url: args } : args;
  const { url, method, headers } = asked;
  if (headers || !/^(POST \/charts|(POST|PUT) \/instruments)(\/|$)/.test(`${method} ${url}`))
    return { sent: args, forget: () => undefined };
  const what = JSON.stringify([method, url, asked.body]);
  const key = LOST.get(what) ?? nanoid();
  return {
    sent: { ...asked, headers: { 'Idempotency-Key': key } },
    forget: (lost) => (lost ? LOST.set(what, key) : LOST.delete(what)),
  };
}

const ofLibrary = (asked: string | FetchArgs, library: string | null): string | FetchArgs =>
  typeof asked === 'string' || library === null || asked.method === undefined
    ? asked
    : { ...asked, headers: { ...(asked.headers as Record<string, string>), [OF_LIBRARY]: library } };

const query: BaseQueryFn<string | FetchArgs, unknown, Trouble<unknown>> = async (args, api, extra) => {
  const { network } = api.extra as Outside;
  const raw = fetchBaseQuery({ baseUrl: network.base, timeout: ANSWER_MS, fetchFn: network.fetch });
  const { sent, forget } = underKey(args);
  const { library, cameIn } = (api.getState() as WithStanding).standing;
  const result = await raw(ofLibrary(sent, library), api, extra);
  const data = result.error?.data as { error?: ApiError; current?: unknown } | undefined;
  forget(Boolean(result.error && !data?.error));
  const version = result.meta?.response?.headers.get('crow-ladder-version');
  if (version) api.dispatch(versionSeen(version));
  const now = result.meta?.response?.headers.get(OF_LIBRARY);
  const { library: last, cameIn: since } = (api.getState() as WithStanding).standing;
  if (now && now !== last) {
    if (last !== null) api.dispatch(otherLibrary());
    api.dispatch(librarySeen(now));
  }
  if (!result.error) return { data: result.data };
  if (data?.error?.code === 'locked') {
    // What was sent before the passcode was given, and is refused after it, is asked once more.
    if (since !== cameIn) return query(args, api, extra);
    api.dispatch(locked());
  }
  if (data?.error) return { error: { ...data.error, ...(data.current ? { current: data.current } : {}) } };
  return {
    error: {
      code: UNREACHABLE,
      message: 'The server cannot be reached. Your work is still here, and is saved when it is back.',
    },
  };
};

/** The charts changed last: the first page as it is asked for at first. */
export const LAST_CHANGED = { find: '', tag: '', order: 'changed', from: 0 } as const;
const ALL = ['charts', 'instruments', 'settings', 'known', 'bin', 'practice', 'recall'] as const;

/** What was practised, in an address; notes a beat are left out where they are not known. */
export const paramsOf = ({ drill, shape, perBeat }: RoundQuery) => ({
  drill,
  shape,
  ...(perBeat !== null && { perBeat }),
});

/** The server, as hooks. Lists are refetched after every change to them. */
export const server = createApi({
  reducerPath: 'server',
  refetchOnFocus: true,
  baseQuery: query,
  tagTypes: [...ALL, 'visit'],
  endpoints: (build) => ({
    charts: build.query<ChartPage, ChartQuery & { readonly from: number }>({
      query: (params) => ({ url: '/charts', params: { ...params } }),
      providesTags: ['charts'],
    }),
    phrases: build.query<PhrasePage, PhraseQuery & { readonly from: number }>({
      query: (params) => ({ url: '/phrases', params: { ...params } }),
      providesTags: ['charts'],
    }),
    tags: build.query<readonly Tagged[], void>({ query: () => '/tags', providesTags: ['charts'] }),
    chart: build.query<Chart, string>({ query: (id) => `/charts/${id}`, keepUnusedDataFor: 0 }),
    /** A row as it stands, for one that cannot be read. */
    rawChart: build.query<unknown, string>({ query: (id) => `/charts/${id}/raw`, keepUnusedDataFor: 0 }),
    known: build.query<readonly string[], void>({ query: () => '/known', providesTags: ['known'] }),
    practised: build.query<Practised, RoundQuery>({
      query: (asked) => ({ url: '/practice', params: paramsOf(asked) }),
      providesTags: ['practice'],
    }),
    addRounds: build.mutation<unknown, readonly KeptRound[]>({
      query: (rounds) => ({ url: '/practice', method: 'PUT', body: { rounds } }),
      invalidatesTags: ['practice'],
    }),
    noteRound: build.mutation<unknown, { readonly id: string; readonly note: string }>({
      query: ({ id, note }) => ({ url: `/practice/${id}`, method: 'PATCH', body: { note } }),
      invalidatesTags: ['practice'],
    }),
    addRound: build.mutation<unknown, KeptRound>({
      query: ({ id, ...body }) => ({ url: `/practice/${id}`, method: 'PUT', body }),
      invalidatesTags: ['practice'],
    }),
    removeRound: build.mutation<unknown, string>({
      query: (id) => ({ url: `/practice/${id}`, method: 'DELETE' }),
      invalidatesTags: ['practice'],
    }),
    /** What there is to recall on a day. */
    recall: build.query<Recall, string>({
      query: (day) => ({ url: '/recall', params: { day } }),
      providesTags: ['recall'],
    }),
    addCards: build.mutation<unknown, readonly KeptCard[]>({
      query: (cards) => ({ url: '/cards', method: 'PUT', body: { cards } }),
      invalidatesTags: ['recall'],
    }),
    restCard: build.mutation<unknown, { readonly id: string; readonly rested: boolean }>({
      query: ({ id, rested }) => ({ url: `/cards/${id}`, method: 'PATCH', body: { rested } }),
      invalidatesTags: ['recall'],
    }),
    removeCard: build.mutation<unknown, string>({
      query: (id) => ({ url: `/cards/${id}`, method: 'DELETE' }),
      invalidatesTags: ['recall'],
    }),
    addReview: build.mutation<unknown, Review>({
      query: ({ id, ...body }) => ({ url: `/reviews/${id}`, method: 'PUT', body }),
      invalidatesTags: ['recall'],
    }),
    removeReview: build.mutation<unknown, string>({
      query: (id) => ({ url: `/reviews/${id}`, method: 'DELETE' }),
      invalidatesTags: ['recall'],
    }),
    /** Says of one shape that it is known, or that it is not. */
    setKnown: build.mutation<unknown, { shape: string; known: boolean }>({
      query: ({ shape, known }) => ({ url: '/known', method: known ? 'POST' : 'DELETE', body: { shape } }),
      invalidatesTags: ['known'],
    }),
    createChart: build.mutation<Chart, ChartDraft>({
      query: (body) => ({ url: '/charts', method: 'POST', body }),
      invalidatesTags: ['charts'],
    }),
    /** `leaving`: the page may be gone before the answer comes. */
    changeChart: build.mutation<Chart, { id: string; change: ChartChange; leaving?: boolean }>({
      query: ({ id, change, leaving = false }) => ({
        url: `/charts/${id}`,
        method: 'PUT',
        body: change,
        keepalive: leaving,
      }),
      invalidatesTags: ['charts'],
    }),
    /** How a chart is looked at, kept without a revision. */
    lookAt: build.mutation<unknown, { id: string; look: ChartLook }>({
      query: ({ id, look }) => ({ url: `/charts/${id}/look`, method: 'PUT', body: look }),
    }),
    instruments: build.query<readonly UsedInstrument[], void>({
      query: () => '/instruments',
      providesTags: ['instruments', 'charts'],
    }),
    createInstrument: build.mutation<KeptInstrument, Instrument>({
      query: (body) => ({ url: '/instruments', method: 'POST', body }),
      invalidatesTags: ['instruments'],
    }),
    changeInstrument: build.mutation<KeptInstrument, { id: string; change: InstrumentChange }>({
      query: ({ id, change }) => ({ url: `/instruments/${id}`, method: 'PUT', body: change }),
      invalidatesTags: ['instruments'],
    }),
    bin: build.query<readonly Binned[], void>({ query: () => '/bin', providesTags: ['bin'] }),
    /** Deletes into the bin, brings back out of it, or discards for good what is in it. */
    remove: build.mutation<unknown, Removing>({
      query: ({ kind, id, revision }) => ({
        url: `/${kind}s/${id}`,
        method: 'DELETE',
        headers: { 'If-Match': `"${revision}"` },
      }),
      invalidatesTags: (_, __, { kind }) => [`${kind}s`, 'bin'],
    }),
    bringBack: build.mutation<unknown, Kind>({
      query: ({ kind, id }) => ({ url: `/${kind}s/${id}/restore`, method: 'POST' }),
      invalidatesTags: (_, __, { kind }) => [`${kind}s`, 'bin'],
    }),
    discard: build.mutation<unknown, Kind>({
      query: ({ kind, id }) => ({ url: `/bin/${kind}s/${id}`, method: 'DELETE' }),
      invalidatesTags: ['bin'],
    }),
    demo: build.query<Demo, void>({ query: () => '/demo', providesTags: ['charts', 'instruments'] }),
    clearDemo: build.mutation<Demo, void>({
      query: () => ({ url: '/demo/clear', method: 'POST' }),
      invalidatesTags: ['charts', 'instruments', 'bin', 'practice', 'recall'],
    }),
    settings: build.query<Settings, void>({ query: () => '/settings', providesTags: ['settings'] }),
    changeSettings: build.mutation<Settings, SettingsPatch>({
      query: (body) => ({ url: '/settings', method: 'PATCH', body }),
    }),
    /** Has the server read a backup and check all of it; nothing is changed yet. */
    takeBackup: build.mutation<Restore, { id: string; file: Blob }>({
      query: ({ id, file }) => ({
        url: `/restores/${id}`,
        method: 'PUT',
        body: file,
        headers: { 'Content-Type': 'application/json' },
        timeout: RESTORE_MS,
      }),
    }),
    /** How a backup that is brought back stands. */
    restore: build.query<Restore, string>({ query: (id) => `/restores/${id}`, keepUnusedDataFor: 0 }),
    replaceLibrary: build.mutation<Restore, string>({
      query: (id) => ({ url: `/restores/${id}/replace`, method: 'POST', timeout: RESTORE_MS }),
      invalidatesTags: [...ALL],
    }),
    callOffRestore: build.mutation<unknown, string>({
      query: (id) => ({ url: `/restores/${id}`, method: 'DELETE' }),
    }),
    visit: build.query<{ readonly asks: boolean; readonly in: boolean }, void>({
      query: () => '/visit',
      providesTags: ['visit'],
    }),
    comeIn: build.mutation<unknown, string>({
      query: (passcode) => ({ url: '/visit', method: 'POST', body: { passcode } }),
      invalidatesTags: (_, error) => (error ? [] : [...ALL, 'visit']),
    }),
    leave: build.mutation<unknown, void>({
      query: () => ({ url: '/visit', method: 'DELETE' }),
      invalidatesTags: ['visit'],
    }),
  }),
});

/** A state that holds what was read of the server. */
export interface WithServer {
  readonly server: ReturnType<typeof server.reducer>;
}

/** Nobody looks at the request itself: what comes of it is in the session. */
const UNTRACKED = { track: false } as const;

/** The charts that the server keeps. */
export const serverCharts =
  (network: Network): Outside['charts'] =>
  (send): ChartPort => ({
    get: (id) => {
      const reading = send(server.endpoints.chart.initiate(id, { forceRefetch: true }));
      return reading.unwrap().finally(() => reading.unsubscribe());
    },
    put: (id, change, sending = {}) =>
      send(server.endpoints.changeChart.initiate({ id, change, ...sending }, UNTRACKED)).unwrap(),
    isThere: () =>
      network.fetch(`${network.base}/health`).then(
        (res) => res.ok,
        () => false,
      ),
  });
