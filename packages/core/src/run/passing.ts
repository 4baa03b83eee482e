import { type Route } from './run.ts';

/**
 * A line in which passing notes fall between the beats: one that would fall on a beat is left out, which moves what follows by one. With one note a beat
 * there is no room for them.
 *
 * @example passingBetween([{ ...box.spots[0], added: 'passing' }, box.spots[1]], 2).length // 1
 */
export function passingBetween(route: Route, perBeat: number): Route {
  const line: Route[number][] = [];
  for (const note of route) if (note.added !== 'passing' || line.length % perBeat !== 0) line.push(note);
  return line;
}
