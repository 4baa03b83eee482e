import { usualOf } from '@crow-ladder/core/kinds';
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE, PLAN_AT_FIRST } from '@crow-ladder/contract';
import { instrumentOf, tuningById } from '@crow-ladder/core';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { plan } from '@crow-ladder/core/plan';
import { type Fingered } from '@crow-ladder/core/run';
import { climbed } from './features/ladder/climbed.ts';
import { AT_FIRST as LADDER_AT_FIRST } from './features/ladder/params.ts';
import { fingersOf } from './features/ladder/seen.ts';
import { drilled } from './features/practice/drilled.ts';
import { AT_FIRST as PRACTICE_AT_FIRST } from './features/practice/params.ts';
import { shownFingering } from './features/shape/shown.ts';
import { climbingOf } from './model/climbing.ts';
import { type Model, modelOf } from './model/model.ts';
import { withInstrument } from './model/moves.ts';
import { taskOf } from './model/planTask.ts';

// The same run has the same fingers in every task that shows it or plays it.

const held = (steps: readonly Fingered[]): readonly string[] =>
  steps.map(
    ({ spot, finger, hand }) => `${spot.string}.${spot.fret} ${finger}${finger ? ` at ${hand}` : ''}`,
  );
const chart = (part: Partial<ChartState>): ChartState => ({ ...FIRST_STATE, ...part });
const on = (tuning: string, state: ChartState): ChartState =>
  withInstrument(state, instrumentOf(tuningById(tuning)!), null);
const AT5 = { string: 6, fret: 5 };
const A_MINOR_PENTATONIC = {
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: AT5,
  layout: { kind: 'count', counts: [2] },
};

const CHARTS: Readonly<Record<string, ChartState>> = {
  'an open box': chart({
    key: { root: 'E', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 0 },
    layout: { kind: 'count', counts: [2] },
  }),
  'two a string': chart(A_MINOR_PENTATONIC),
  'a diagonal': chart({
    key: { root: 'D', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 10 },
    layout: { kind: 'diagonal' },
  }),
  'three a string': chart({ key: { root: 'G', scale: 'major' }, at: { string: 6, fret: 3 } }),
  'by reach': chart({
    key: { root: 'A', scale: 'natural-minor' },
    at: AT5,
    layout: { kind: 'reach', reach: 3 },
  }),
  'one string': chart({
    key: { root: 'C', scale: 'major' },
    at: { string: 2, fret: 1 },
    layout: { kind: 'single', string: 2 },
  }),
  'a pair': chart({
    key: { root: 'C', scale: 'major' },
    at: { string: 2, fret: 1 },
    layout: { kind: 'pair', lower: 2 },
  }),
  'a bass': on('bass-four', chart({ key: { root: 'A', scale: 'dorian' }, at: { string: 4, fret: 5 } })),
  'seven strings': on(
    'seven-standard',
    chart({ key: { root: 'B', scale: 'phrygian' }, at: { string: 7, fret: 12 } }),
  ),
  'D A D G A D': on(
    'dadgad',
    chart({ key: { root: 'D', scale: 'mixolydian' }, at: { string: 6, fret: 12 } }),
  ),
};
const modelFor = (state: ChartState): Model => modelOf(state, DEFAULT_SETTINGS);
function practised(model: Model, material: string, topTwice = false): readonly string[] {
  const params = { ...PRACTICE_AT_FIRST, on: material, drill: { kind: 'up-and-down', topTwice } };
  const found = drilled(model, params)!.played;
  return found.ok ? held(found.value.run) : [found.error.message];
}

test.each(Object.entries(CHARTS))(
  '%s: shape, ladder and practice take it with the same fingers',
  (_, state) => {
    const model = modelFor(state);
    const shape = (down: boolean) =>
      held(shownFingering(model, { school: null, down, way: 0, slurred: false }).steps);
    const front = model.front!.position;
    expect(front.spots.length).toBeGreaterThan(6);
    expect(held(model.fingering()!.steps)).toEqual(shape(false));
    expect(held(fingersOf(model, front).steps)).toEqual(shape(false));
    expect(practised(model, 'position')).toEqual([...shape(false), ...shape(true).slice(1)]);
    const climbing = climbingOf(model)!;
    let many = 0;
    for (const climb of CLIMBS.all()) {
      const spec = usualOf(climb, climbing);
      const params = { ...LADDER_AT_FIRST, climb: spec, direction: 'both', topTwice: true } as const;
      const ladder = climbed(model, params)!.played;
      const here = practised(model, `climb.${climb.kind}`, true);
      expect([climb.kind, here]).toEqual([
        climb.kind,
        ladder.ok ? held(ladder.value.run) : [ladder.error.message],
      ]);
      if (ladder.ok) many++;
      // Each way alone is the same as within both.
      for (const direction of ['up', 'down'] as const) {
        const alone = climbed(model, { ...params, direction })!.played;
        if (!alone.ok) continue;
        const half = here.length / 2;
        expect(held(alone.value.run)).toEqual(direction === 'up' ? here.slice(0, half) : here.slice(half));
      }
    }
    expect(many).toBeGreaterThan(2);
  },
);

test('a plan that goes there and back is practised as it was planned', () => {
  const asked = {
    ...PLAN_AT_FIRST,
    from: { at: 'root' },
    to: { at: 'octaves', octaves: 2 },
    back: true,
  } as const;
  const state = chart({
    ...A_MINOR_PENTATONIC,
    runs: [{ type: 'plan', name: 'Gangway', plan: asked, pick: 0, root: 'A', at: AT5 }],
  });
  const model = modelFor(state);
  const task = taskOf(model, asked);
  if (!task.ok) throw new Error(task.error.message);
  const [best] = plan(task.value, 1);
  const run = practised(model, 'kept.Gangway', true);
  expect(run).toHaveLength(2 * best!.steps.length);
  expect(run.slice(0, best!.steps.length)).toEqual(held(best!.steps));
});
