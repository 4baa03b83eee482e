import { usualOf } from '@crow-ladder/core/kinds';
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { instrumentOf, tuningById } from '@crow-ladder/core';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { DRILLS } from '@crow-ladder/core/drills';
import { STRIKES } from '@crow-ladder/core/run';
import { modelOf } from '../../model/model.ts';
import { CHANGES, withProgression } from '../../model/progression.ts';
import { withInstrument, withRoot } from '../../model/moves.ts';
import { answersAt } from '../../ui/answersAt.ts';
import { answerOf, answersOf } from './asking.ts';
import { drilled, stretchesOf } from './drilled.ts';
import { materialOf, materialsOf } from './material.ts';
import { AT_FIRST, type PracticeParams } from './params.ts';
import { drillFrom, drillWord } from './words.ts';

const A_DORIAN: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'dorian' },
  at: { string: 6, fret: 5 },
};
const modelFor = (state: ChartState) => modelOf(state, DEFAULT_SETTINGS);
const model = modelFor(A_DORIAN);
const on = (part: Partial<PracticeParams>, of = model) => drilled(of, { ...AT_FIRST, ...part })!;
const many = (part: Partial<PracticeParams>, of = model): number => {
  const { played } = on(part, of);
  return played.ok ? played.value.run.length : 0;
};

/** Instruments of four to twelve strings, with the root on their lowest string and on their highest. */
const NECKS = [
  'bass-four',
  'standard',
  'seven-standard',
  'dadgad',
  'open-g',
  'eight-standard',
  'nine-standard',
].flatMap((id) => {
  const tuning = tuningById(id);
  if (!tuning) return [];
  const state = withInstrument(
    { ...A_DORIAN, key: { root: 'E', scale: 'lydian' } },
    instrumentOf(tuning),
    null,
  );
  return [1, tuning.tuning.length].map((string) => withRoot({ ...state, at: { ...state.at, string } }, 'Eb'));
});

test('every drill is played on every instrument, however it is struck, or says in a sentence why it cannot be', () => {
  expect(NECKS.length).toBeGreaterThan(8);
  let played = 0;
  for (const state of NECKS) {
    const of = modelFor(state);
    for (const drill of DRILLS.all())
      for (const { id: touch } of STRIKES) {
        const material = materialOf(of, 'position', 2)!;
        const spec = usualOf(drill, material.ok ? material.value.lots[0]! : (null as never));
        const now = on({ drill: spec, touch }, of);
        if (now.played.ok) {
          played++;
          const { run, fingering } = now.played.value;
          expect(run.length).toBeGreaterThan(1);
          expect(fingering.steps).toHaveLength(run.length);
          run.slice(1).forEach((step, i) => expect(step.start).toBeGreaterThan(run[i]!.start));
        } else expect(now.played.error.message).toMatch(/^[A-Z].*[.]$/);
      }
  }
  expect(played).toBeGreaterThan(400);
});

test('the position, all of them, every climb and what was kept are drilled', () => {
  const state: ChartState = {
    ...A_DORIAN,
    runs: [
      {
        type: 'climb',
        name: 'Gangway',
        climb: { kind: 'zigzag', through: 2 },
        direction: 'up',
        topTwice: false,
        touch: 'picked',
        start: 0,
        low: 5,
        at: { string: 6, fret: 5 },
        root: 'A',
      },
      { type: 'unread', was: { name: 'something else' } },
    ],
  };
  const withKept = modelFor(state);
  const all = materialsOf(withKept, 'chord.2.4.1.all');
  expect(all.map((m) => m.id)).toEqual([
    'position',
    'ladder',
    'chord.all.3.0.octave',
    'chord.all.4.0.octave',
    'chord.2.4.1.all',
    ...CLIMBS.all().map((c) => `climb.${c.kind}`),
    'kept.Gangway',
  ]);
  expect(all.at(-1)!.name).toBe('“Gangway”');
  const drill = drillFrom('up-and-down.once');
  const lengths = Object.fromEntries(all.map(({ id }) => [id, many({ drill, on: id }, withKept)]));
  expect(lengths['position']).toBe(35);
  expect(lengths['ladder']).toBeGreaterThan(150);
  expect(lengths['climb.one']).toBeLessThan(40);
  expect(lengths['kept.Gangway']).toBeGreaterThan(20);
  // What there is no longer is the position in front.
  expect(many({ drill, on: 'kept.Plank' }, withKept)).toBe(35);
});

test('the log of practice knows a shape in every key, and what is asked of it by its drill and its lengths', () => {
  const log = (state: ChartState, part: Partial<PracticeParams> = {}) => on(part, modelFor(state)).log!;
  const a = log(A_DORIAN);
  expect(a).toMatchObject({
    drill: drillWord(on({}).spec),
    perBeat: 2,
    name: 'up and down on Dorian position',
  });
  expect(log(withRoot(A_DORIAN, 'B')).shape).toBe(a.shape);
  expect(log({ ...A_DORIAN, key: { root: 'A', scale: 'major' } }).shape).not.toBe(a.shape);
  expect(log(A_DORIAN, { perBeat: 4 }).perBeat).toBe(4);
  expect(log(A_DORIAN, { on: 'climb.zigzag' }).shape).not.toBe(a.shape);
});

test('where two bars sound and two are free, what is asked waits for its answer', () => {
  const drill = drillFrom('jumps.1.32.2');
  const starts = (answer: boolean): readonly number[] => {
    const { played } = on({ drill, answer });
    return played.ok ? [...new Set(played.value.run.map((s) => Math.floor(s.start / (4 * 960))))] : [];
  };
  expect(starts(false)).toEqual([0, 1, 2, 3]);
  expect(starts(true)).toEqual([0, 1, 4, 5]);
});

describe('what is said of a note', () => {
  const { played } = on({ drill: drillFrom('up-and-down.once') });
  const spots = played.ok ? played.value.run.map((s) => s.spot) : [];

  test('is its name or its degree, and of the drill of roots the chord on it', () => {
    const said = (say: 'note' | 'degree', drill: string) =>
      spots.slice(0, 4).map((s) => answerOf(model, say, drill, s));
    expect(said('degree', 'up-and-down')).toEqual(['1', '2', '♭3', '4']);
    expect(said('note', 'up-and-down')).toEqual(['A', 'B', 'C', 'D']);
    expect(said('note', 'roots')).toEqual(['A minor', 'B minor', 'C major', 'D major']);
  });

  test('is one of all that can be answered, in the order of the scale', () => {
    expect(answersOf(model, 'degree', 'up-and-down', spots)).toEqual(['1', '2', '♭3', '4', '5', '6', '♭7']);
    expect(answersOf(model, 'note', 'roots', spots)[0]).toBe('A minor');
    expect(answersOf(model, 'note', 'roots', spots)).toHaveLength(7);
  });

  test('is found by its letter or its digit', () => {
    const names = ['A', 'B', 'C♯', 'C', 'A minor'];
    expect(answersAt(names, 'a')).toEqual(['A', 'A minor']);
    expect(answersAt(names, 'C')).toEqual(['C♯', 'C']);
    expect([answersAt(['F', 'G♭'], 'g'), answersAt(['6', '♭7'], '7'), answersAt(['1', '2'], '1')]).toEqual([
      ['G♭'],
      ['♭7'],
      ['1'],
    ]);
    expect(answersAt(['1', '♭3', '3', '♯4'], '3')).toEqual(['♭3', '3']);
    for (const other of ['h', '8', '0', 'Enter', ' ']) expect(answersAt(names, other)).toEqual([]);
  });
});

test('a line through chords is played in its own order, whatever is asked', () => {
  const chord = { above: 0, suffix: 'm', degrees: ['1', 'b3', '5'], bass: null };
  const over = modelFor(withProgression(A_DORIAN, { beats: 4, bars: [[chord]], scales: {} }));
  const drill = drillFrom('up-and-down.once');
  expect([on({ drill }).drill.kind, on({ drill, on: CHANGES }, over).drill.kind]).toEqual([
    'up-and-down',
    'straight',
  ]);
});

test('a line of bars and a bar are played alone, those of the note that is looked at', () => {
  const { played } = on({ drill: drillFrom('groups.4.once') });
  const run = played.ok ? played.value.run : [];
  const parts = (step: number) => stretchesOf(run, 4, step).map(({ name, part }) => [name, part]);
  expect(run.length).toBeGreaterThan(41);
  expect(parts(41)).toEqual([
    ['all of it', null],
    ['bars 5 to 8', [32, 63]],
    ['bar 6', [40, 47]],
  ]);
  // What is one bar long has no bars to choose from.
  expect(stretchesOf(run.slice(0, 8), 4, 3)).toHaveLength(1);
});
