/** Most characters and entries of what a player types about a chart, and of a name. */
export const CHART_LIMITS = { name: 80, tag: 30, tags: 12, notes: 20_000 } as const;

/** The longest id of a scale: one of the player’s own spells it. */
export const SCALE_ID = 120;
/** The longest name of a scale. */
export const SCALE_NAME = 60;
/** The comfortable span that can be set, in mm. */
export const SPAN_MM = [50, 200] as const;
/** Most instruments that a chart has beside the one that it shows. */
export const MOST_OTHERS = 8;
/** Most entries of a part of a chart that may be left out. */
export const MOST_PARTS = 200;
/** Most charts, instruments, known shapes, rounds of practice, cards and answers to them of a library. */
export const LIBRARY_LIMITS = {
  charts: 100_000,
  instruments: 1000,
  known: 5000,
  practice: 100_000,
  cards: 10_000,
  reviews: 500_000,
};
export type LibraryLimits = Readonly<typeof LIBRARY_LIMITS>;
/** The highest revision that a backup brings: whatever is counted on from it stays a whole number. */
export const MOST_REVISION = 1_000_000_000_000;
/** The largest chart, as it is sent and kept: bytes of its JSON. */
export const CHART_BYTES = 300_000;
/** The largest request that the server reads, but for a backup, which may be as large as its pieces make it: one chart and what goes with it. */
export const BODY_LIMIT = CHART_BYTES + 10_000;
/** The longest passcode, in characters. */
export const PASSCODE_LIMIT = 200;
