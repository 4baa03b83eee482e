import { ALL_OF_LOG, dayAfter, type LogQuery } from '@crow-ladder/contract';

/** How far back is looked. */
export const TIMES = [
  { id: '4w', name: 'the last four weeks', days: 28 },
  { id: '12w', name: 'the last twelve weeks', days: 84 },
  { id: 'year', name: 'the last year', days: 365 },
  { id: 'all', name: 'all the time', days: null },
] as const;
export type TimeId = (typeof TIMES)[number]['id'];

/** Which part of the log an address asks for. */
export function timeIn(params: URLSearchParams): (typeof TIMES)[number] {
  return TIMES.find(({ id }) => id === params.get('time')) ?? TIMES[0];
}
export function queryIn(params: URLSearchParams, today: string): LogQuery {
  const { days } = timeIn(params);
  const part = (name: 'chart' | 'what' | 'tag'): string => params.get(name) ?? '';
  return {
    ...ALL_OF_LOG,
    from: days === null ? '' : dayAfter(today, 1 - days),
    chart: part('chart'),
    what: part('what'),
    tag: part('tag'),
  };
}
