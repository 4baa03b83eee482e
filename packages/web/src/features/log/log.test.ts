import { dayAfter, type DaySum, type TempoDay } from '@crow-ladder/contract';
import { aheadSaid } from './Ahead.tsx';
import { queryIn } from './query.ts';
import {
  daysSaid,
  goalSaid,
  keyNamed,
  longSaid,
  positionNamed,
  roundsSaid,
  thingName,
  wayBack,
  weeksOf,
} from './said.ts';
import { readLog } from './readLog.ts';
import { tempoSaid } from './Tempo.tsx';

const DAY = '2026-06-10';
const sum = (day: string, part: Partial<DaySum> = {}): DaySum => ({
  day,
  playedMs: 0,
  rounds: 0,
  clean: 0,
  recalledMs: 0,
  answers: 0,
  known: 0,
  ...part,
});

test('a part of the log is said as a player would say it', () => {
  expect([0, 20_000, 90_000, 3_600_000, 4_980_000].map(longSaid)).toEqual([
    '0 min',
    'under a minute',
    '2 min',
    '1 h',
    '1 h 23 min',
  ]);
  expect(daysSaid([])).toBe('Nothing yet.');
  expect(
    daysSaid([
      sum(DAY, { playedMs: 600_000, rounds: 4, clean: 3 }),
      sum('2026-06-11', { recalledMs: 120_000, answers: 1, known: 0 }),
    ]),
  ).toBe('12 min on 2 days: 4 rounds, 3 of them clean; 1 card answered, 0 of them known.');
  expect(keyNamed({ root: 'Eb', scale: 'mixolydian' })).toBe('E♭ Mixolydian');
  expect(positionNamed({ scale: 'dorian', start: 2 })).toBe('Dorian from its ♭3');
  expect(positionNamed({ scale: 'dorian', start: 0 })).toBe('Dorian from its root');
  expect(positionNamed({ scale: 'gone', start: 0 })).toBe('gone');
  // The last round is given first, and said last.
  const round = (tempo: number | null, clean: boolean | null) => ({ tempo, clean }) as never;
  expect(roundsSaid([round(95, null), round(null, false), round(90, true)])).toBe(
    '3 rounds: 90 clean, not yet, 95',
  );
  expect(roundsSaid([round(null, null)])).toBe('1 round');
  expect([thingName({ name: 'Spider', perBeat: null }), thingName({ name: 'groups', perBeat: 3 })]).toEqual([
    'Spider',
    'groups, in triplets',
  ]);
  const on = { chart: 'c1', chartName: '', root: 'A', scale: 'dorian', start: 0, back: 'root=A' };
  expect([wayBack(on), wayBack({ ...on, back: '' }), wayBack(null)]).toEqual([
    '/charts/c1/practice?root=A',
    null,
    null,
  ]);
});

test('weeks go from Monday to Sunday, with gaps where nothing was done', () => {
  // 10 June 2026 is a Wednesday (ISO 8601).
  const weeks = weeksOf([sum(DAY), sum('2026-06-14'), sum('2026-06-15')], '2026-06-04', '2026-06-16');
  expect(weeks.map(({ monday, days }) => [monday, days.map((it) => it?.day ?? null)])).toEqual([
    ['2026-06-01', [null, null, null, null, null, null, null]],
    ['2026-06-08', [null, null, DAY, null, null, null, '2026-06-14']],
    ['2026-06-15', ['2026-06-15', null, null, null, null, null, null]],
  ]);
  const query = (words: string) => queryIn(new URLSearchParams(words), DAY);
  expect(query('')).toEqual({ from: '2026-05-14', to: '', chart: '', what: '', tag: '' });
  expect(query('time=all&tag=blues')).toEqual({ from: '', to: '', chart: '', what: '', tag: 'blues' });
  expect(query('time=ever').from).toBe(query('').from);
});

test('a tempo, its goal and what comes to recall are told in a sentence', () => {
  const day = (n: number, clean: number | null, tried: number): TempoDay => ({
    day: dayAfter('2026-06-01', n),
    clean,
    tried,
  });
  expect(tempoSaid([day(0, null, 80), day(1, null, 90)])).toBe('Tried at 90 at most, not clean yet.');
  expect(tempoSaid([day(0, null, 80), day(1, 70, 90)])).toBe('Clean at 70 on 2 Jun.');
  expect(tempoSaid([day(0, 80, 80), day(1, 100, 100), day(8, 95, 95)])).toBe(
    'From 80 on 1 Jun to 95 on 9 Jun, 100 at most, on 3 days.',
  );
  const goal = { drill: 'd', shape: 's', perBeat: 2, name: 'n', tempo: 120, by: '2026-06-24' };
  expect(goalSaid(goal, 100, DAY)).toBe('120 by 24 Jun 2026: 10 more a week from 100, 14 days to go.');
  expect(goalSaid(goal, 121, DAY)).toBe('120 is reached: clean at 121.');
  expect(goalSaid(goal, null, DAY)).toContain('once something is clean');
  expect(goalSaid(goal, 100, '2026-06-24')).toBe(
    '120 was wanted by 24 Jun 2026; clean at 100 so far. Another day is as good.',
  );
  expect(aheadSaid({ cards: 0, known: 0, firm: 0, due: [0] })).toBe('Nothing is recalled yet.');
  expect(aheadSaid({ cards: 12, known: 11, firm: 3, due: [2, 0, 5] })).toBe(
    'Of 12 cards you would know about 11 today, and 3 hold for three weeks or longer. 2 come today, 7 cards within 30 days.',
  );
});

test('a table of many pieces is read whole, whatever its letters; one that is none is refused', async () => {
  const clock = { after: (ms: number, then: () => void) => (setTimeout(then, ms), () => undefined) };
  const of = (text: string) => readLog(new Blob([text]), clock);
  const lines = Array.from({ length: 3000 }, (_, i) => `2026-06-01,“♯♭ ${i}, läuft”,${i % 90}`);
  const { rounds, left } = await of(
    ['day,what,minutes', ...lines.map((it) => it.replace(/“(.*)”/, '"“$1”"'))].join('\n'),
  );
  expect(left).toEqual([]);
  expect(rounds.map(({ name }) => name)).toEqual(Array.from({ length: 3000 }, (_, i) => `“♯♭ ${i}, läuft”`));
  expect(await of('Date;Exercise\r\n2026-06-01;Spider\r\n\r\nsoon;Spider')).toMatchObject({
    rounds: [{ name: 'Spider' }],
    left: [{ line: 4 }],
  });
  await expect(of('a,b\n1,2')).rejects.toThrow('“day” and “what”');
  expect(await of('')).toEqual({ rounds: [], left: [], answers: 0 });
});
