import { ok, refuse, type Result } from '../result.ts';
import { articulate, tapped, type Touch } from './articulate.ts';
import { type Fingering } from './fingers.ts';
import { type Arrive, type Articulated, type Route } from './run.ts';

/** How the notes of a run are struck. */
export const STRIKES = [
  { id: 'picked', name: 'pick, and slide where a finger keeps its string' },
  { id: 'every', name: 'pick every note' },
  { id: 'slurred', name: 'hammer on and pull off where the fingers can' },
  { id: 'hammered', name: 'hammer on going up, pick the rest' },
  { id: 'pulled', name: 'pull off coming down, pick the rest' },
  { id: 'slid', name: 'slide to the last note of a group or string' },
  { id: 'tapped', name: 'tap the highest note on each string' },
] as const satisfies readonly { readonly id: string; readonly name: string }[];
export type Strike = (typeof STRIKES)[number]['id'];

/** The ways that any run can be struck in. */
type Always = 'picked' | 'every';
/** What each other way of striking must bring about somewhere, else it is refused. */
const BRINGS: Readonly<Record<Exclude<Strike, Always>, readonly Arrive[]>> = {
  slurred: ['hammer', 'pull'],
  hammered: ['hammer'],
  pulled: ['pull'],
  slid: ['slide'],
  tapped: ['tap'],
};

const sameString = (route: Route, i: number): boolean =>
  i > 0 && route[i - 1]!.string === route[i]!.string && route[i - 1]!.fret !== route[i]!.fret;

/** Notes that a slide is asked for: the last of each group, or of each string where there are no groups, if the one before is on its string. */
function slides(route: Route, group: number): ReadonlySet<number> {
  const ends = (i: number): boolean =>
    group > 1 ? i % group === group - 1 : route[i + 1]?.string !== route[i]!.string;
  return new Set(route.flatMap((_, i) => (sameString(route, i) && ends(i) ? [i] : [])));
}

/** Why a way of striking cannot be played on a route. */
function refused(route: Route, how: Exclude<Strike, Always>): Result<never> {
  if (!route.some((_, i) => sameString(route, i)))
    return refuse(
      'strike.string',
      'No two different notes in a row lie on one string here, and a slur never crosses strings: pick every note, or take a layout with more notes on a string.',
    );
  const why = {
    slurred: 'for each of them the hand would have to travel',
    hammered: 'no note in a row on one string goes up to a higher finger in the same place of the hand',
    pulled: 'no note in a row on one string goes down to a lower finger in the same place of the hand',
    slid: 'no group ends with two fretted notes on one string',
    tapped: 'no string has a higher note to be tapped',
  }[how];
  return refuse('strike.reach', `This cannot be struck so: ${why}. Strike it otherwise.`);
}

/**
 * A route with its fingers, struck in a way; `group` is how many notes make a group, 1 where there are none. Where every note is
 * picked the hand moves silently. Codes: `strike.string`
 * (no two notes in a row on a string) and `strike.reach` (nothing that the fingers could take so).
 *
 * @example strikeAs(box.spots, 'every', (route) => fingers(neck, route, hand)).ok // true
 */
export function strikeAs(
  route: Route,
  how: Strike,
  fingersOf: (route: Route) => Fingering,
  group = 1,
): Result<{ readonly fingering: Fingering; readonly steps: readonly Articulated[] }> {
  const touch: Touch = how === 'slid' || how === 'every' ? 'picked' : how === 'tapped' ? 'slurred' : how;
  let fingering = fingersOf(how === 'tapped' ? tapped(route) : route);
  const on = how === 'slid' ? slides(route, group) : how === 'every' ? new Set<number>() : undefined;
  if (on?.size) {
    const { steps } = fingering;
    // A finger that slides takes the hand along.
    const sliding = route.map(({ hand: _, ...note }, i) => {
      const by = on.has(i) ? steps[i - 1]!.finger : on.has(i + 1) ? steps[i]!.finger : 0;
      return by ? { ...note, by } : note;
    });
    fingering = fingersOf(sliding);
  }
  const steps = articulate(fingering.steps, touch, on);
  if (how === 'picked' || how === 'every' || steps.some((s) => BRINGS[how].includes(s.arrive)))
    return ok({ fingering, steps });
  return refused(route, how);
}
