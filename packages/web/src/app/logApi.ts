import {
  type LogPage,
  type LogParts,
  type LogQuery,
  type LogSum,
  type PractisedThing,
  type RecallAhead,
  type RoundQuery,
  type TempoDay,
} from '@crow-ladder/contract';
import { type NextLesson } from '@crow-ladder/core/asking';
import { paramsOf, server } from './api.ts';

/** What the server tells of the log, as hooks; fetched with the pages that show it. */
export const logServer = server.injectEndpoints({
  endpoints: (build) => ({
    practisedLast: build.query<PractisedThing | null, void>({
      query: () => '/practice/last',
      providesTags: ['practice'],
    }),
    practisedThings: build.query<readonly PractisedThing[], void>({
      query: () => '/practice/things',
      providesTags: ['practice'],
    }),
    /** The tempo of something day by day. */
    tempoDays: build.query<readonly TempoDay[], RoundQuery>({
      query: (asked) => ({ url: '/practice/tempos', params: paramsOf(asked) }),
      providesTags: ['practice'],
    }),
    log: build.query<LogPage, LogQuery & { readonly before: string }>({
      query: (params) => ({ url: '/log', params: { ...params } }),
      providesTags: ['practice', 'recall'],
    }),
    logSum: build.query<LogSum, LogQuery>({
      query: (params) => ({ url: '/log/sum', params: { ...params } }),
      providesTags: ['practice', 'recall'],
    }),
    logParts: build.query<LogParts, void>({ query: () => '/log/parts', providesTags: ['practice'] }),
    recallAhead: build.query<RecallAhead, string>({
      query: (day) => ({ url: '/recall/ahead', params: { day } }),
      providesTags: ['recall'],
    }),
    nextToLearn: build.query<NextLesson | null, void>({
      query: () => '/recall/next',
      providesTags: ['recall'],
    }),
  }),
});
