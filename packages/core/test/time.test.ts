import fc from 'fast-check';
import {
  accentHome,
  afterRound,
  betterStart,
  crossingsOf,
  inTime,
  type Neck,
  type NotesPerBeat,
  partOf,
  QUARTER,
  type Run,
  type Rung,
  scheduleOf,
  strokesOf,
  TEMPO,
} from './core.ts';
import { neckWith } from './helpers.ts';

/** A run of picked notes on some strings, in time. */
const picked = (neck: Neck, strings: readonly number[], perBeat: NotesPerBeat): Run =>
  inTime(
    strings.map((string, i) => ({
      spot: { string, fret: 5 + (i % 3), midi: neck.open[string - 1]! + 5, degree: 0 },
      finger: 1,
      hand: 5,
      arrive: 'pick',
    })),
    perBeat,
  );
const said = (strokes: readonly (string | null)[]): string =>
  strokes.map((s) => (s === null ? '-' : s[0])).join('');

describe('strokes, handbook section 8', () => {
  const neck = neckWith();
  test('triplets: down up down, up down up by the strict school, down up down twice by the beat', () => {
    const run = picked(neck, [6, 6, 6, 6, 6, 6], 3);
    expect(said(strokesOf(run, 'strict'))).toBe('dududu');
    expect(said(strokesOf(run, 'beat'))).toBe('duddud');
    expect(said(strokesOf(run, 'strict', 'up'))).toBe('ududud');
  });
  test('a slur takes no stroke: the strict school alternates with the last one played, the other goes on with the beat', () => {
    const run = picked(neck, [6, 6, 6, 5, 5, 5], 2).map((s, i) =>
      i % 3 === 1 ? { ...s, arrive: 'hammer' as const } : s,
    );
    expect(said(strokesOf(run, 'strict'))).toBe('d-ud-u');
    expect(said(strokesOf(run, 'beat'))).toBe('d-du-u');
  });
  test('crossings: down on the lower string and up on the higher one is outside; the other way round inside; two alike are equal', () => {
    const count_ = (
      strings: readonly number[],
      perBeat: NotesPerBeat,
      school: 'strict' | 'beat',
      first: 'down' | 'up' = 'down',
    ) => {
      const run = picked(neck, strings, perBeat);
      return crossingsOf(neck, run, strokesOf(run, school, first));
    };
    // Three notes a string from string 6 to 4: the first crossing is down on 6 and up on 5, the second up on 5 and down on 4.
    const three = [6, 6, 6, 5, 5, 5, 4, 4, 4];
    expect(count_(three, 4, 'strict')).toEqual({ outside: 1, inside: 1, equal: 0 });
    // Two notes a string: up on the lower one, down on the higher one, each time.
    const two = [6, 6, 5, 5, 4, 4];
    expect(count_(two, 4, 'strict')).toEqual({ outside: 0, inside: 2, equal: 0 });
    expect(count_(two, 4, 'strict', 'up')).toEqual({ outside: 2, inside: 0, equal: 0 });
    // By the beat in triplets the last and the first stroke are both down.
    expect(count_(three, 3, 'beat')).toEqual({ outside: 0, inside: 0, equal: 2 });
    expect(betterStart(neck, picked(neck, two, 4), 'strict')).toBe('up');
    expect(betterStart(neck, picked(neck, three, 4), 'strict')).toBeNull();
    expect(betterStart(neck, picked(neck, two, 4), 'beat')).toBeNull();
  });
});

describe('the ladder of tempos', () => {
  const ladder = { to: 100, step: 5, rounds: 2 };
  const climb = (marks: string, from: Rung = { tempo: 80, clean: 0, best: null }): Rung =>
    [...marks].reduce((at, mark) => afterRound(ladder, at, mark === 'c'), from);
  test('two clean rounds are a step up; one that is not clean begins the count anew', () => {
    expect(climb('c')).toEqual({ tempo: 80, clean: 1, best: null });
    expect(climb('cc')).toEqual({ tempo: 85, clean: 0, best: 80 });
    expect(climb('cxc')).toEqual({ tempo: 80, clean: 1, best: null });
    expect(climb('cccc')).toEqual({ tempo: 90, clean: 0, best: 85 });
    expect(climb('c'.repeat(30))).toEqual({ tempo: 100, clean: 0, best: 100 });
  });
  test('whatever is said of the rounds, it is never faster than the last clean tempo and a step, nor than its end, and never falls', () => {
    fc.assert(
      fc.property(
        fc.array(fc.boolean(), { maxLength: 60 }),
        fc.integer({ min: 30, max: 140 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 6 }),
        (marks, from, step, rounds) => {
          // A fastest tempo of before does not let it leap.
          let at: Rung = { tempo: from, clean: 0, best: 200 };
          for (const mark of marks) {
            const next = afterRound({ to: 120, step, rounds }, at, mark);
            expect(next.tempo).toBeGreaterThanOrEqual(at.tempo);
            expect(next.tempo).toBeLessThanOrEqual(mark ? at.tempo + step : at.tempo);
            expect(next.tempo).toBeLessThanOrEqual(Math.max(from, 120));
            at = next;
          }
        },
      ),
    );
  });
});

describe('time', () => {
  // Handbook, section 8: groups of three in sixteenths of 4/4 come home after 12 and after 48 notes.
  test('the accent of a group comes home', () => {
    expect(accentHome(3, 4, 4)).toEqual({ onBeat: 12, onBar: 48 });
    expect(accentHome(4, 3, 4)).toEqual({ onBeat: 12, onBar: 12 });
    expect(accentHome(5, 4, 4)).toEqual({ onBeat: 20, onBar: 80 });
    expect(accentHome(3, 4, 3)).toEqual({ onBeat: 12, onBar: 12 });
    for (const [group, perBeat] of [
      [3, 3],
      [3, 6],
      [4, 2],
      [1, 4],
      [6, 3],
    ] as const)
      expect(accentHome(group, perBeat, 4)).toBeNull();
  });
  test('sixteenths at 60 are a quarter of a second apart after a bar of clicks, the loop ends with its bar, and every beat is clicked', () => {
    const run = picked(neckWith(), [6, 6, 6, 6, 6, 6], 4);
    const { notes, clicks, from, end } = scheduleOf(run, {
      tempo: 60,
      swing: 50,
      beatsPerBar: 4,
      countIn: 1,
      endsOn: 4 * QUARTER,
    });
    expect(notes.map((n) => n.at)).toEqual([4, 4.25, 4.5, 4.75, 5, 5.25]);
    expect(notes.map((n) => n.until)).toEqual([4.25, 4.5, 4.75, 5, 5.25, 5.5]);
    expect([from, end]).toEqual([4, 8]);
    expect(clicks.map((c) => c.at)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(clicks.flatMap((c) => (c.accent ? [c.at] : []))).toEqual([0, 4]);
  });
  test('three notes by themselves begin at once, and begin again with the next beat', () => {
    const part = partOf(picked(neckWith(), [6, 5, 4, 3, 2, 1], 2), 1, 3);
    expect(part.map((s) => [s.spot.string, s.start])).toEqual([
      [5, 0],
      [4, 480],
      [3, 960],
    ]);
    const at = { tempo: 60, swing: 50, beatsPerBar: 4, countIn: 0 } as const;
    expect(scheduleOf(part, { ...at, endsOn: QUARTER }).end).toBe(2);
    expect(scheduleOf(part, { ...at, endsOn: 4 * QUARTER }).end).toBe(4);
  });
  test('eighths that swing: at two thirds of the beat they stand where the third triplet does', () => {
    const run = picked(neckWith(), [6, 6, 6, 6], 2);
    const { notes } = scheduleOf(run, {
      tempo: 60,
      swing: 200 / 3,
      beatsPerBar: 4,
      countIn: 0,
      endsOn: 4 * QUARTER,
    });
    notes.forEach(({ at }, i) => expect(at).toBeCloseTo([0, 2 / 3, 1, 1 + 2 / 3][i]!, 12));
  });
  test('times follow from ticks alone: no note drifts however long the run is', () => {
    fc.assert(
      fc.property(
        fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
        fc.integer({ min: TEMPO.least, max: TEMPO.most }),
        (perBeat, tempo) => {
          const run = picked(neckWith(), Array<number>(1500).fill(6), perBeat);
          const { notes } = scheduleOf(run, {
            tempo,
            swing: 50,
            beatsPerBar: 4,
            countIn: 0,
            endsOn: 4 * QUARTER,
          });
          expect(run.every((s, i) => s.start === (i * QUARTER) / perBeat && Number.isInteger(s.start))).toBe(
            true,
          );
          notes.forEach(({ at }, i) =>
            expect(Math.abs(at - (i / perBeat) * (60 / tempo))).toBeLessThan(1e-9),
          );
        },
      ),
      { numRuns: 20 },
    );
  });
});
