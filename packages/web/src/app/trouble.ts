import { type ApiError, type Chart } from '@crow-ladder/contract';

/** An error of the server, or of the way to it, ready to be shown. `current` is what stands there after a conflict. */
export interface Trouble<Current = Chart> extends ApiError {
  readonly current?: Current;
}

/** The code of a request that no answer came to. */
export const UNREACHABLE = 'unreachable';
/** What may be otherwise a moment later: what failed by it is sent again as soon as it can be. */
const FOR_NOW = new Set([
  UNREACHABLE,
  'stopping',
  'busy',
  'disk-full',
  'not-writable',
  'library-gone',
  'locked',
  'server',
]);
export const isForNow = ({ code }: Pick<ApiError, 'code'>): boolean => FOR_NOW.has(code);

/** How long to wait before it is asked whether the server is back, or tried again what it refused, in ms; longer each time, up to a minute. */
const AGAIN_MS = { away: 3000, refused: 15_000, most: 60_000 };
const LONGER = 1.5;
export const againAfter = ({ code }: Pick<ApiError, 'code'>, times: number): number =>
  Math.min(AGAIN_MS.most, (code === UNREACHABLE ? AGAIN_MS.away : AGAIN_MS.refused) * LONGER ** times);
