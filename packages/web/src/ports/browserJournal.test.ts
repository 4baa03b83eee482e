import { FIRST_STATE } from '@crow-ladder/contract';
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { handClock, settled } from '../../test/world.tsx';
import { browserJournal, openJournal } from './browserJournal.ts';
import { type Step, type Work } from './journal.ts';
import { lastWords, type Shelf } from './lastWords.ts';
import { type Entry } from './outbox.ts';
import { leases } from './leases.ts';

beforeEach(() => {
  globalThis.indexedDB = new IDBFactory();
});
const never = (): void => {
  throw new Error('It was closed.');
};
/** A browser's shelf, while a test lasts; with what stands on another one. */
function handShelf(of?: Shelf): Shelf {
  const names = Array.from({ length: of?.length ?? 0 }, (_, nth) => of!.key(nth)!);
  const all = new Map(names.map((name) => [name, of!.getItem(name)!]));
  return {
    getItem: (name) => all.get(name) ?? null,
    setItem: (name, text) => void all.set(name, text),
    removeItem: (name) => void all.delete(name),
    key: (nth) => [...all.keys()][nth] ?? null,
    get length() {
      return all.size;
    },
  };
}
const words = (tab = 'a', shelf = handShelf()) => lastWords(tab, () => shelf);
const journal = (last = words()) => browserJournal(openJournal(never), Promise.resolve(), last);

const WORK: Work = {
  id: 'one',
  tab: 'a',
  library: 'here',
  revision: 4,
  draft: { name: 'Keel', tags: [], notes: '', state: FIRST_STATE },
  kept: false,
  at: 1,
  sent: [],
  back: 0,
  of: null,
};
const step = (name: string): Step => ({ back: { words: { name: `not ${name}` } }, on: { words: { name } } });
const entry = (key: string, at: number, tab = 'a'): Entry => ({
  key,
  at,
  nth: 0,
  tab,
  library: 'here',
  what: { kind: 'known', shape: key, known: true },
});

test('work is kept by chart and tab, the newest of each, and is there when the browser is opened again', async () => {
  const first = journal();
  expect(await first.opened).toBe(true);
  await first.keep(WORK);
  await first.keep({ ...WORK, at: 2 });
  await first.keep({ ...WORK, tab: 'b' });
  const again = journal();
  await again.opened;
  expect((await again.works()).map(({ tab, at }) => [tab, at])).toEqual([
    ['a', 2],
    ['b', 1],
  ]);
  await again.drop(WORK);
  expect((await again.works()).map((w) => w.tab)).toEqual(['b']);
});

test('work goes on in another tab with its steps, once; a new step ends those that led on', async () => {
  const it = journal();
  await it.opened;
  await it.keep({ ...WORK, back: 1 }, { at: 0, step: step('a'), ends: false });
  await it.keep({ ...WORK, back: 2 }, { at: 1, step: step('b'), ends: false });
  await it.keep({ ...WORK, back: 3 }, { at: 2, step: step('c'), ends: false });
  await it.keep({ ...WORK, back: 2 }, { at: 1, step: step('d'), ends: true });
  // Of another chart, whose steps stay where they are.
  await it.keep({ ...WORK, id: 'two', back: 1 }, { at: 0, step: step('x'), ends: false });
  const going = await it.adopt(WORK, 'b');
  expect(going).toEqual({ work: { ...WORK, tab: 'b', back: 2 }, steps: [step('a'), step('d')] });
  expect(await it.adopt(WORK, 'c')).toBeNull();
  expect((await it.works()).map(({ id, tab }) => `${id} ${tab}`).sort()).toEqual(['one b', 'two a']);
  expect((await it.adopt({ id: 'two', tab: 'a' }, 'b'))!.steps).toEqual([step('x')]);
});

test('the last two hundred steps are kept, counted from the first that is left', async () => {
  const it = journal();
  await it.opened;
  for (let at = 0; at < 203; at++)
    await it.keep({ ...WORK, back: at + 1 }, { at, step: step(String(at)), ends: false });
  const { work, steps } = (await it.adopt(WORK, 'b'))!;
  expect([steps.length, work.back, steps[0], steps.at(-1)]).toEqual([200, 200, step('3'), step('202')]);
});

test('what is to be sent stands in the order in which it was made; another one under its key takes its place', async () => {
  const it = journal();
  await it.opened;
  await it.post(entry('second', 2));
  await it.post(entry('first', 1));
  await it.post(entry('second', 3));
  expect((await it.entries()).map((e) => [e.key, e.at])).toEqual([
    ['first', 1],
    ['second', 3],
  ]);
  // What was sent before the other took its place takes nothing away.
  await it.sent(entry('second', 2));
  await it.sent(entry('first', 1, 'b'));
  expect(await it.entries()).toHaveLength(2);
  await it.sent(entry('second', 3));
  expect((await it.entries()).map((e) => e.key)).toEqual(['first']);
});

test('where nothing can be kept it says so, and refuses what is put; so it does before it is open', async () => {
  const it = browserJournal(Promise.reject(new Error('private')), Promise.resolve(), words());
  await expect(it.keep(WORK)).rejects.toThrow('Nothing can be kept in this browser.');
  expect(await it.opened).toBe(false);
  await expect(it.post(entry('x', 1))).rejects.toThrow();
  await expect(it.works()).rejects.toThrow();
});

test('storage is asked to persist once there is something to lose', async () => {
  let asked = 0;
  const it = browserJournal(openJournal(never), Promise.resolve(), words(), () => asked++);
  await it.opened;
  expect(asked).toBe(0);
  await it.keep(WORK);
  await it.keep(WORK);
  expect(asked).toBe(1);
});

test('what waits in a database that is behind when the page goes is there for the next one, with its way back, and once', async () => {
  const shelf = handShelf();
  const last = words('a', shelf);
  const it = journal(last);
  await it.opened;
  await it.keep({ ...WORK, back: 1 }, { at: 0, step: step('a'), ends: false });
  await it.post(entry('known', 1));
  last.say();
  expect(shelf.length).toBe(0);
  // The page goes while these are on their way, and the browser calls them off: nothing of this database is there afterwards.
  void it.keep({ ...WORK, back: 2, at: 2 }, { at: 1, step: step('b'), ends: true });
  void it.keep({ ...WORK, back: 3, at: 2, revision: 5 }, { at: 2, step: step('c'), ends: false });
  void it.keep({ ...WORK, id: 'dropped' });
  void it.drop({ id: 'dropped', tab: 'a' });
  void it.post(entry('waits', 2));
  last.say();
  globalThis.indexedDB = new IDBFactory();
  const then = handShelf(shelf);
  const next = journal(words('b', then));
  await next.opened;
  expect((await next.entries()).map(({ key }) => key)).toEqual(['waits']);
  expect(await next.works()).toMatchObject([{ id: 'one', tab: 'a', revision: 5 }]);
  expect((await next.adopt(WORK, 'b'))!.steps).toEqual([step('b'), step('c')]);
  expect([await next.works(), then.length]).toMatchObject([[{ tab: 'b' }], 0]);
});

test('what a tab said last takes the place of nothing newer, and is unsaid once it is kept', async () => {
  const shelf = handShelf();
  const last = words('a', shelf);
  const it = journal(last);
  await it.opened;
  const kept = it.keep({ ...WORK, at: 2 });
  last.say();
  const said = shelf.getItem(shelf.key(0)!)!;
  // Nobody takes in its own.
  expect([last.said().length, words('b', shelf).said().length]).toEqual([0, 1]);
  await kept;
  await settled();
  expect(shelf.length).toBe(0);
  await it.keep({ ...WORK, at: 3 });
  shelf.setItem('crow-ladder.last.a', said);
  // Nor does one that cannot be read keep the others away.
  shelf.setItem('crow-ladder.last.c', '{');
  shelf.setItem('crow-ladder.last.d', '{"works": [7, null, {"work": {"id": "two"}}], "entries": {}}');
  shelf.setItem('crow-ladder.last.e', 'null');
  const next = journal(words('b', shelf));
  await next.opened;
  expect((await next.works()).map(({ at }) => at)).toEqual([3]);
  expect(shelf.length).toBe(0);
});

test('what a tab says while the last of it is taken in stays said', () => {
  const shelf = handShelf();
  const last = words('a', shelf);
  const onItsWay = new Promise<void>(() => undefined);
  const say = (at: number): void => {
    last.hold({ work: { ...WORK, at }, stepping: null }, onItsWay);
    last.say();
  };
  const other = words('b', shelf);
  say(1);
  const [first] = other.said();
  say(2);
  first!.done();
  const [second] = other.said();
  expect(second!.last.works.map(({ work }) => work.at)).toEqual([2]);
  second!.done();
  expect(other.said()).toEqual([]);
});

test('where there is no room for the way back the work itself is kept', async () => {
  const shelf = handShelf();
  const narrow: Shelf = {
    ...shelf,
    setItem: (name, text) => {
      if (text.includes('not b')) throw new Error('full');
      shelf.setItem(name, text);
    },
  };
  const last = lastWords('a', () => narrow);
  const it = journal(last);
  await it.opened;
  await it.keep({ ...WORK, back: 1 }, { at: 0, step: step('a'), ends: false });
  void it.keep({ ...WORK, back: 2, revision: 5 }, { at: 1, step: step('b'), ends: false });
  last.say();
  const then = handShelf(shelf);
  await settled();
  await it.keep({ ...WORK, back: 1 });
  const next = journal(words('b', then));
  await next.opened;
  await next.works();
  expect(await next.adopt(WORK, 'b')).toMatchObject({ work: { revision: 5, back: 0 }, steps: [] });
});

test('a later version in another tab closes this one, which is told', async () => {
  const closed: boolean[] = [];
  const it = browserJournal(
    openJournal((outdated) => closed.push(outdated)),
    Promise.resolve(),
    words(),
  );
  await it.opened;
  await new Promise((done, failed) => {
    const later = indexedDB.open('crow-ladder', 2);
    later.onsuccess = done;
    later.onerror = failed;
    later.onblocked = failed;
  });
  expect(closed).toEqual([true]);
  await expect(it.keep(WORK)).rejects.toThrow();
});

describe('turns by leases, where there are no locks', () => {
  const two = () => {
    const clock = handClock();
    const opening = openJournal(never);
    return { clock, a: leases(opening, clock, 'a'), b: leases(opening, clock, 'b') };
  };

  test('one holds a name until it lets it go, and then the other', async () => {
    const { clock, a, b } = two();
    const letGo = await a.hold('outbox');
    let isHeld = false;
    const second = b.hold('outbox').then((it) => {
      isHeld = true;
      return it;
    });
    // It is renewed for as long as it is held.
    await clock.advance(160_000);
    expect([isHeld, [...(await b.held())]]).toEqual([false, ['outbox']]);
    letGo();
    await settled();
    await clock.advance(1000);
    (await second)();
    await settled();
    expect([...(await a.held())]).toEqual([]);
  });

  test('what a tab held that is gone without a word is free once its time is over', async () => {
    const { clock, a, b } = two();
    const dead = handClock(clock.now());
    await leases(openJournal(never), dead, 'dead').hold('tab.dead');
    expect([...(await a.held())]).toEqual(['tab.dead']);
    await clock.advance(149_999);
    expect([...(await b.held())]).toEqual(['tab.dead']);
    await clock.advance(1);
    expect([...(await b.held())]).toEqual([]);
    expect(await b.hold('tab.dead')).toBeInstanceOf(Function);
  });
});
