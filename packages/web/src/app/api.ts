import {
  type ApiError,
  type Binned,
  type Backup,
  type Chart,
  type ChartChange,
  type ChartDraft,
  type ChartList,
  type Demo,
  type KeptInstrument,
  type Settings,
} from '@crow-ladder/contract';
import { type Instrument } from '@crow-ladder/core';
import { createApi, fetchBaseQuery, type BaseQueryFn } from '@reduxjs/toolkit/query/react';

/** An error of the server, or of the way to it, ready to be shown. `current` is what stands there after a conflict. */
export interface Trouble extends ApiError {
  readonly current?: Chart;
}

const keyed = (key: string | undefined): { headers?: Record<string, string> } =>
  key ? { headers: { 'Idempotency-Key': key } } : {};

/** Something in the library, by name. */
type Kind = Pick<Binned, 'kind' | 'id'>;

/** The code of a request that no answer came to. */
export const UNREACHABLE = 'unreachable';

const raw = fetchBaseQuery({ baseUrl: '/api', timeout: 15_000 });

const query: BaseQueryFn<
  string | { url: string; method: string; body?: unknown; headers?: Record<string, string> },
  unknown,
  Trouble
> = async (args, api, extra) => {
  const result = await raw(args, api, extra);
  if (!result.error) return { data: result.data };
  const data = result.error.data as { error?: ApiError; current?: Chart } | undefined;
  if (data?.error) return { error: { ...data.error, ...(data.current ? { current: data.current } : {}) } };
  return {
    error: {
      code: UNREACHABLE,
      message: 'The server cannot be reached. Your work is still here, and is saved when it is back.',
    },
  };
};

/** The server, as hooks. Lists are refetched after every change to them. */
export const server = createApi({
  reducerPath: 'server',
  refetchOnFocus: true,
  baseQuery: query,
  tagTypes: ['charts', 'instruments', 'settings', 'known', 'bin'],
  endpoints: (build) => ({
    charts: build.query<ChartList, void>({ query: () => '/charts', providesTags: ['charts'] }),
    chart: build.query<Chart, string>({ query: (id) => `/charts/${id}`, keepUnusedDataFor: 0 }),
    /** A row as it stands, for one that cannot be read. */
    rawChart: build.query<unknown, string>({ query: (id) => `/charts/${id}/raw`, keepUnusedDataFor: 0 }),
    known: build.query<readonly string[], void>({ query: () => '/known', providesTags: ['known'] }),
    /** Says of one shape that it is known, or that it is not. */
    setKnown: build.mutation<unknown, { shape: string; known: boolean }>({
      query: ({ shape, known }) => ({ url: '/known', method: known ? 'POST' : 'DELETE', body: { shape } }),
      invalidatesTags: ['known'],
    }),
    /** `key`: asked again under it after the answer was lost, no second chart is made. */
    createChart: build.mutation<Chart, { draft: ChartDraft; key?: string }>({
      query: ({ draft, key }) => ({ url: '/charts', method: 'POST', body: draft, ...keyed(key) }),
      invalidatesTags: ['charts'],
    }),
    /** `leaving`: the page may be gone before the answer comes. */
    changeChart: build.mutation<Chart, { id: string; change: ChartChange; leaving?: boolean; key?: string }>({
      query: ({ id, change, leaving = false, key }) => ({
        ...keyed(key),
        url: `/charts/${id}`,
        method: 'PUT',
        body: change,
        keepalive: leaving,
      }),
      invalidatesTags: ['charts'],
    }),
    instruments: build.query<readonly KeptInstrument[], void>({
      query: () => '/instruments',
      providesTags: ['instruments'],
    }),
    keepInstrument: build.mutation<KeptInstrument, { id?: string | undefined; instrument: Instrument }>({
      query: ({ id, instrument }) => ({
        url: id ? `/instruments/${id}` : '/instruments',
        method: id ? 'PUT' : 'POST',
        body: instrument,
      }),
      invalidatesTags: ['instruments'],
    }),
    bin: build.query<readonly Binned[], void>({ query: () => '/bin', providesTags: ['bin'] }),
    /** Deletes into the bin, brings back out of it, or discards for good what is in it. */
    remove: build.mutation<unknown, Kind>({
      query: ({ kind, id }) => ({ url: `/${kind}s/${id}`, method: 'DELETE' }),
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
      invalidatesTags: ['charts', 'instruments', 'bin'],
    }),
    settings: build.query<Settings, void>({ query: () => '/settings', providesTags: ['settings'] }),
    changeSettings: build.mutation<Settings, Partial<Settings>>({
      query: (body) => ({ url: '/settings', method: 'PATCH', body }),
      // Shown at once; taken back if the server refuses.
      async onQueryStarted(part, { dispatch, queryFulfilled }) {
        const shown = dispatch(
          server.util.updateQueryData('settings', undefined, (now) => ({ ...now, ...part })),
        );
        await queryFulfilled.catch(() => shown.undo());
      },
    }),
    backup: build.mutation<Backup, void>({ query: () => ({ url: '/backup', method: 'GET' }) }),
    restore: build.mutation<{ charts: number; instruments: number }, unknown>({
      query: (body) => ({ url: '/restore', method: 'POST', body }),
      invalidatesTags: ['charts', 'instruments', 'settings', 'known', 'bin'],
    }),
  }),
});
