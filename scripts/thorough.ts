/**
 * How often something drawn by chance is drawn: as often as is said in `npm run thorough`, a tenth of it in `npm test`. Bounds on
 * what was met meanwhile go down with it.
 */
export const drawn = (times: number): number => (process.env['THOROUGH'] ? times : Math.ceil(times / 10));
