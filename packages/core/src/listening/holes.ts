/** Sound is looked at in pieces of so many seconds, and what was loud is remembered for so many. */
const PIECE = 0.00067;
const REMEMBERED = 0.024;
/** Less than this part of what was loud is nothing; where less than that part of it came just before, it died away. */
const NOTHING = 0.02;
const DYING = 0.1;
const JUST_BEFORE = 3;
/** Nothing for so many seconds is a hole, for more than so many a silence; the edges of a hole ring for so many. */
const HOLE = { least: 0.003, most: 0.06, edge: 0.0014 };
/** So many holes are kept. */
const KEPT = 8;

/** A piece of sound, from a sample to another. */
export interface Clip {
  readonly from: number;
  readonly to: number;
}

/** Where sound is lost. */
export interface Holes {
  /** Takes the next samples. */
  readonly hear: (samples: Float32Array) => void;
  /** How many it took until now. */
  readonly known: () => number;
  /** The longest piece without a hole, of those that are known, of a clip; samples are counted from the first one. */
  readonly clear: (from: number, to: number) => Clip;
}

/**
 * Where sound is lost at a rate in Hz: a device, or a browser whose processor is busy, drops some milliseconds of it. There is nothing then,
 * which begins and ends more abruptly than any string does.
 *
 * @example holesOf(48000).clear(0, 1024) // {"from":0,"to":1024}
 */
export function holesOf(rate: number): Holes {
  const piece = Math.max(1, Math.round(PIECE * rate));
  const edge = Math.round(HOLE.edge * rate);
  const most = Math.ceil(REMEMBERED / PIECE);
  let holes: readonly Clip[] = [];
  /** How loud the last pieces were that were not within a hole. */
  let peaks: readonly number[] = [];
  let at = 0;
  let peak = 0;
  /** Where it began that there is nothing, after something. */
  let began: number | null = null;

  function pieceEnds(): void {
    const loud = Math.max(0, ...peaks);
    if (peak >= NOTHING * loud) began = null;
    else if (began === null && Math.max(...peaks.slice(-JUST_BEFORE)) >= DYING * loud) began = at - piece;
    if (began !== null && at - began > HOLE.most * rate) {
      began = null;
      peaks = [];
    }
    if (began === null) peaks = [...peaks, peak].slice(-most);
    else if (at - began >= HOLE.least * rate) {
      const it = { from: began - edge, to: at + edge };
      // One that goes on is the same.
      holes = [...holes.filter(({ from }) => from !== it.from), it].slice(-KEPT);
    }
  }

  return {
    hear: (samples) => {
      for (const sample of samples) {
        peak = Math.max(peak, Math.abs(sample));
        if (++at % piece) continue;
        pieceEnds();
        peak = 0;
      }
    },
    known: () => at,
    clear: (from, to) => {
      const between = holes.filter((it) => it.from < to && it.to > from);
      const pieces = [...between, { from: to, to }].map((it, i) => ({
        from: i ? between[i - 1]!.to : from,
        to: Math.min(to, it.from),
      }));
      return pieces.reduce((best, it) => (it.to - it.from > best.to - best.from ? it : best));
    },
  };
}
