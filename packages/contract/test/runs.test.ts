import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { LIMITS } from '@crow-ladder/core';
import { type Climb, CLIMBS, type ClimbSpec } from '@crow-ladder/core/climbs';
import { type Option } from '@crow-ladder/core/kinds';
import { STRIKES } from '@crow-ladder/core/run';
import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  FIRST_STATE,
  instrumentFrom,
  instrumentWord,
  type KeptRun,
  type OtherInstrument,
  otherFrom,
  otherWord,
  PLAN_AT_FIRST,
  runFrom,
  runWord,
  type UnreadRun,
  WAYS,
} from '../src/index.ts';
import { readDocument, readDraft } from '../src/schemas.ts';

const kept = (run: unknown) => {
  const read = readDocument({ ...FIRST_STATE, runs: [run] });
  return read.ok ? null : [read.error.field, read.error.message];
};
const A = { at: { string: 6, fret: 5 }, root: 'A' } as const;
const CLIMB: KeptRun = {
  ...A,
  name: 'Gangway',
  type: 'climb',
  climb: { kind: 'zigzag', through: 2 },
  direction: 'both',
  topTwice: true,
  touch: 'slurred',
  start: 1,
  low: 7,
};
const PLAN: KeptRun = { ...A, name: 'Pier', type: 'plan', plan: PLAN_AT_FIRST, pick: 2 };

test('climbs and plans of version 2 mean today what they meant; nothing of what cannot be read is lost', () => {
  // As version 2 wrote them, from its first day on.
  const frozen = JSON.parse(readFileSync(join(__dirname, 'frozen/v2-runs.json'), 'utf8')) as {
    readonly runs: readonly object[];
  };
  const read = readDocument(frozen);
  if (!read.ok) throw new Error(read.error.message);
  const early = { direction: 'up', topTwice: false, low: 7, touch: 'slurred' };
  expect(read.value.runs).toEqual([
    CLIMB,
    // Kept before there was more to say, and counted from the fret of the chart's root.
    { ...CLIMB, ...early, name: 'Early' },
    {
      ...PLAN,
      name: 'Pier; north',
      plan: {
        from: { at: 'place', place: { string: 6, fret: 5 } },
        to: { at: 'position', ref: { start: 1, low: 7, nth: 0 } },
        back: true,
        reach: 4,
        mm: 90,
        strings: [2, 5],
        least: 1,
        most: 3,
        ways: ['change', 'slide'],
        shifts: 2,
        tempo: 132,
      },
    },
    { ...PLAN, name: 'Slipway', pick: 0 },
    { type: 'unread', was: frozen.runs[4] },
    { type: 'unread', was: frozen.runs[5] },
  ]);
  // What was read is of today's version, and reads as itself.
  expect(readDocument(JSON.parse(JSON.stringify(read.value)))).toEqual(read);
});

test('a kept climb is refused by the field that is wrong', () => {
  for (const run of [CLIMB, PLAN, { type: 'unread', was: { any: ['thing'] } }]) expect(kept(run)).toBeNull();
  for (const [change, field] of [
    [{ name: ' ' }, 'name'],
    [{ name: 'x'.repeat(61) }, 'name'],
    [{ at: { string: 0, fret: 1 } }, 'at.string'],
    [{ root: 'H' }, 'root'],
    [{ climb: { kind: 'zigzag', through: 99 } }, 'climb'],
    [{ direction: 'across' }, 'direction'],
    [{ topTwice: 'yes' }, 'topTwice'],
    [{ touch: 'kicked' }, 'touch'],
    [{ start: -1 }, 'start'],
    [{ low: LIMITS.frets[1] + 1 }, 'low'],
  ] as const)
    expect([change, kept({ ...CLIMB, ...change })?.[0]]).toEqual([change, `runs[0].${field}`]);
  for (const [change, field] of [
    [{ from: { at: 'octaves', octaves: 9 } }, 'from'],
    [{ to: { at: 'nowhere' } }, 'to'],
    [{ to: { at: 'place' } }, 'to'],
    [{ back: 1 }, 'back'],
    [{ reach: 5 }, 'reach'],
    [{ mm: 201 }, 'mm'],
    [{ strings: [0, 3] }, 'strings'],
    [{ strings: [1] }, 'strings'],
    [{ least: 0 }, 'least'],
    [{ most: 13 }, 'most'],
    [{ ways: ['jump'] }, 'ways[0]'],
    [{ shifts: -2 }, 'shifts'],
    [{ tempo: 29 }, 'tempo'],
  ] as const)
    expect([change, kept({ ...PLAN, plan: { ...PLAN_AT_FIRST, ...change } })?.[0]]).toEqual([
      change,
      `runs[0].plan.${field}`,
    ]);
  expect(kept({ ...PLAN, plan: 'root.o2' })?.[0]).toBe('runs[0].plan');
  for (const odd of [{ type: 'verse' }, { type: 'unread' }, {}]) expect(kept(odd)![0]).toMatch(/^runs\[0\]/);
});

/** A climb with each of its options as low as it goes. */
const first = ({ kind, options }: Climb): ClimbSpec => {
  const lowest = (option: Option): unknown => {
    switch (option.type) {
      case 'whole':
        return option.min;
      case 'wholes':
        return [option.min];
      case 'choice':
        return option.values[0]!.id;
      case 'switch':
        return false;
      case 'altered':
        return [];
    }
  };
  const lows = Object.entries(options).map(([name, option]) => [name, lowest(option)] as const);
  return { ...Object.fromEntries(lows), kind } as ClimbSpec;
};
const whole = (low: number, high: number) => fc.integer({ min: low, max: high });
const place = fc.record({ string: whole(1, LIMITS.strings[1]), fret: whole(0, LIMITS.frets[1]) });
const named = {
  name: fc.stringMatching(/^[A-Za-z0-9;.,:/%&+=“”♯]{1,20}$/),
  at: place,
  root: fc.constantFrom('A', 'Bb', 'F#', 'C##'),
};
const ref = fc.record({ start: whole(0, 11), low: whole(0, 36), nth: whole(0, 9) });
const end = fc.oneof(
  fc.constantFrom('root', 'lowest', 'highest').map((at) => ({ at }) as const),
  fc.constantFrom(-4, -1, 1, 4).map((octaves) => ({ at: 'octaves', octaves }) as const),
  place.map((it) => ({ at: 'place', place: it }) as const),
  ref.map((it) => ({ at: 'position', ref: it }) as const),
);
const strings = fc.oneof(
  fc.constant(null),
  fc.tuple(whole(1, 12), whole(1, 12)).map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const),
);
const words = fc.stringMatching(/^[a-z0-9;."]{1,8}$/);
const runs: fc.Arbitrary<KeptRun | UnreadRun> = fc.oneof(
  fc.record({
    ...named,
    type: fc.constant('climb' as const),
    climb: fc.constantFrom(...CLIMBS.all()).map(first),
    direction: fc.constantFrom('up', 'down', 'both'),
    topTwice: fc.boolean(),
    touch: fc.constantFrom(...STRIKES.map((s) => s.id)),
    start: whole(0, 11),
    low: whole(0, LIMITS.frets[1]),
  }),
  fc.record({
    ...named,
    type: fc.constant('plan' as const),
    pick: whole(0, 20),
    plan: fc.record({
      from: end,
      to: end,
      back: fc.boolean(),
      reach: whole(0, 4),
      mm: whole(0, 200),
      strings,
      least: whole(1, 12),
      most: whole(0, 12),
      ways: fc.subarray(WAYS.map((w) => w.id)),
      shifts: whole(-1, 99),
      tempo: whole(30, 300),
    }),
  }),
  fc.dictionary(words, fc.oneof(words, fc.integer(), fc.array(fc.integer()))).map((was) => ({
    type: 'unread' as const,
    was: JSON.parse(JSON.stringify(was)) as Record<string, unknown>,
  })),
);

test('a kept climb comes back from its word, and is taken as it is', () => {
  fc.assert(
    fc.property(runs, (run) => {
      expect(runFrom(runWord(run))).toEqual(run);
      const read = readDocument({ ...FIRST_STATE, runs: [run] });
      expect(read.ok && read.value.runs).toEqual([run]);
    }),
    { numRuns: drawn(1000) },
  );
  for (const word of ['', 'climb', 'plan;6.5', 'unread;{', 'verse;6.5;A'])
    expect([word, kept(runFrom(word))]).not.toEqual([word, null]);
});

test('another instrument comes back from its word', () => {
  const others: fc.Arbitrary<OtherInstrument> = fc.record({
    at: place,
    layout: fc.constantFrom({ kind: 'count', counts: [2, 3] }, { kind: 'diagonal' }),
    front: fc.option(ref),
    instrumentId: fc.option(fc.stringMatching(/^[\w-]{8,20}$/)),
    instrument: fc
      .record({ name: named.name, capo: whole(0, 5), scaleLength: fc.constantFrom(648, 647.7) })
      .map((it) => ({ ...FIRST_STATE.instrument, ...it })),
  });
  fc.assert(
    fc.property(others, (other) => {
      expect(otherFrom(otherWord(other))).toEqual(other);
      expect(instrumentFrom(instrumentWord(other.instrument))).toEqual(other.instrument);
    }),
    { numRuns: drawn(1000) },
  );
  for (const word of ['', 'E2.H2;22.648.0.3.right;x', 'E2.A2.D3;22.648'])
    expect(readDocument({ ...FIRST_STATE, instrument: instrumentFrom(word) }).ok).toBe(false);
});

test('a draft that holds climbs and plans is read whole', () => {
  const state = { ...FIRST_STATE, runs: [CLIMB, PLAN] };
  const read = readDraft({ name: 'Fog', tags: [], notes: '', state });
  expect(read.ok && read.value.state).toEqual(state);
});
