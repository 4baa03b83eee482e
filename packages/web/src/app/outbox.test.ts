/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS } from '@crow-ladder/contract';
import { handBrowser } from '../../test/browser.ts';
import { type Answer, handClock, handNetwork, refusal, settled, storeOf } from '../../test/world.tsx';
import { type Posted } from '../ports/outbox.ts';
import { server } from './api.ts';
import { isForLibrary, post, sendAll, sendLeft, tabLock } from './outbox.ts';
import { rebased, withKnown, withRounds } from './sending.ts';
import { changeSettings, settingsIn } from './settings.ts';
import { librarySeen } from './standing.ts';

const known = (shape: string): Posted => ({ kind: 'known', shape, known: true });
const round = (id: string) => ({
  id,
  at: `2026-06-01T20:00:0${id.length}.000Z`,
  day: '2026-06-01',
  ms: 60_000,
  on: null,
  note: '',
  drill: 'groups.3.twice',
  shape: 'dorian 6:0 2 3',
  name: 'groups',
  perBeat: 2,
  tempo: 90,
  clean: true,
});
/** Tabs of one browser on a server that answers as the test says; `away` while it does not. */
function pages() {
  const browser = handBrowser();
  const clock = handClock();
  let answer: () => Answer | undefined = () => undefined;
  const network = handNetwork(
    ({ method, path }) =>
      answer() ?? (method === 'GET' ? { body: path === '/settings' ? DEFAULT_SETTINGS : [] } : { body: {} }),
  );
  const changes = () => network.asked.filter((a) => a.method !== 'GET').map((a) => `${a.method} ${a.path}`);
  const tab = async (name: string) => {
    const given = browser.tab(name);
    await given.locks.hold(tabLock(name));
    return storeOf({ clock, network, ...given });
  };
  return {
    browser,
    clock,
    network,
    changes,
    tab,
    goes: () => (answer = () => 'lost'),
    comes: () => (answer = () => undefined),
    answers: (it: () => Answer | undefined) => (answer = it),
  };
}

test('what is posted is in the journal before anything else, is sent in order, and leaves it once the server took it', async () => {
  const { browser, changes, tab } = pages();
  const store = await tab('a');
  const first = store.dispatch(post(known('one')));
  expect(browser.entries().map((e) => e.what)).toEqual([known('one')]);
  void store.dispatch(post({ kind: 'round', round: round('r') }));
  void store.dispatch(post({ kind: 'roundOut', id: 'old' }));
  await first;
  await settled();
  expect(changes()).toEqual(['POST /known', 'PUT /practice/r', 'DELETE /practice/old']);
  expect([browser.entries(), store.getState().outbox.entries]).toEqual([[], []]);
});

test('while the server is away all of it waits, in order, and is tried less and less often until it is back', async () => {
  const { browser, clock, changes, tab, goes, comes } = pages();
  goes();
  const store = await tab('a');
  await store.dispatch(post(known('one')));
  await store.dispatch(post(known('two')));
  expect(store.getState().outbox).toMatchObject({ trouble: { code: 'unreachable' } });
  const tries = changes().length;
  await clock.advance(600_000);
  const more = changes().length - tries;
  expect([more > 8, more < 25]).toEqual([true, true]);
  expect(new Set(changes())).toEqual(new Set(['POST /known']));
  comes();
  await clock.advance(60_000);
  expect(browser.entries()).toEqual([]);
  expect(store.getState().outbox).toMatchObject({ entries: [], trouble: null });
  expect(clock.waiting()).toBe(0);
});

test('how a chart is looked at is sent once it rests, and the last look alone', async () => {
  const { clock, network, tab } = pages();
  const store = await tab('a');
  for (const low of [3, 5, 7]) {
    const look = { front: { start: 0, low, nth: 0 } };
    void store.dispatch(post({ kind: 'look', id: 'one', look }, 'look:one'));
    await clock.advance(500);
  }
  expect(network.asked).toEqual([]);
  await clock.advance(200);
  expect(network.asked.map((a) => [a.path, a.body])).toEqual([
    ['/charts/one/look', { front: { start: 0, low: 7, nth: 0 } }],
  ]);
});

test('what a tab left that is gone is sent by another one; what a tab has that is there is left to it', async () => {
  const { browser, changes, tab, goes, comes } = pages();
  goes();
  const [a, b] = [await tab('a'), await tab('b')];
  await a.dispatch(post(known('of a')));
  comes();
  await b.dispatch(sendLeft());
  expect(changes()).toEqual(['POST /known']);
  expect(b.getState().outbox.entries).toEqual([]);
  browser.close('a');
  await b.dispatch(sendLeft());
  expect(changes()).toEqual(['POST /known', 'POST /known']);
  expect(browser.entries()).toEqual([]);
  // Found by two, it is sent by the one that has its turn first.
  const [c, d] = [await tab('c'), await tab('d')];
  goes();
  await c.dispatch(post(known('of c')));
  const before = changes().length;
  browser.close('c');
  comes();
  await Promise.all([b.dispatch(sendLeft()), d.dispatch(sendLeft())]);
  expect(changes().length - before).toBe(1);
});

test('what was made on another library is not sent to this one', async () => {
  const { changes, tab, goes, comes, browser } = pages();
  goes();
  const store = await tab('a');
  store.dispatch(librarySeen('first'));
  await store.dispatch(post(known('one')));
  const tries = changes().length;
  store.dispatch(librarySeen('second'));
  comes();
  await store.dispatch(sendAll());
  await store.dispatch(post(known('two')));
  expect(changes().length - tries).toBe(1);
  expect(browser.entries().map((e) => e.what)).toEqual([known('one')]);
  expect(['first', 'second', null].map((it) => isForLibrary(it, store.getState()))).toEqual([
    false,
    true,
    true,
  ]);
});

test('where the browser keeps nothing it is sent all the same, and that nothing is kept is known', async () => {
  const { browser, changes, tab } = pages();
  browser.full(true);
  const store = await tab('a');
  await store.dispatch(post(known('one')));
  expect(changes()).toEqual(['POST /known']);
  expect(store.getState().standing.keeps).toBe(false);
});

test('a setting that waits is shown as it was chosen, in the next visit as well, until it is sent', async () => {
  const { browser, tab, goes, comes, answers } = pages();
  const first = await tab('a');
  await first.dispatch(server.endpoints.settings.initiate());
  goes();
  await first.dispatch(changeSettings(() => ({ theme: 'stage' })));
  await first.dispatch(changeSettings(({ favourites }) => ({ favourites: ['lydian', ...favourites] })));
  expect(settingsIn(first.getState())).toMatchObject({ theme: 'stage', favourites: ['lydian'] });
  browser.close('a');
  comes();
  answers(() => refusal(503, 'busy'));
  const next = await tab('b');
  await next.dispatch(sendLeft());
  expect(settingsIn(next.getState())).toMatchObject({ theme: 'stage', favourites: ['lydian'] });
});

test('lists that were changed in two places get both changes; of one value the later one stands', () => {
  const is = { ...DEFAULT_SETTINGS, favourites: ['major', 'dorian'], theme: 'paper' as const };
  const patch = (part: object, from: object) => rebased({ from, to: part }, is).to;
  expect(patch({ favourites: ['lydian', 'dorian'] }, { favourites: ['dorian'] })).toEqual({
    favourites: ['lydian', 'major', 'dorian'],
  });
  expect(patch({ favourites: [] }, { favourites: ['dorian'] })).toEqual({ favourites: ['major'] });
  expect(patch({ favourites: ['major'] }, { favourites: [] })).toEqual({ favourites: ['major', 'dorian'] });
  expect(rebased({ from: { theme: 'system' }, to: { theme: 'stage' } }, is)).toEqual({
    from: { theme: 'paper' },
    to: { theme: 'stage' },
  });
});

test('shapes and rounds that wait are shown with those that were read, once', () => {
  expect(withKnown(['a'], 'b', true)).toEqual(['a', 'b']);
  expect(withKnown(['a'], 'a', true)).toEqual(['a']);
  expect(withKnown(['a', 'b'], 'a', false)).toEqual(['b']);
  const log = { best: 100, rounds: [round('r')] };
  expect(withRounds(log, [round('r')])).toBe(log);
  const more = withRounds(log, [{ ...round('later'), tempo: 120 }]);
  expect([more.best, more.rounds.map((r) => r.id)]).toEqual([120, ['later', 'r']]);
  expect(withRounds(log, [{ ...round('later'), tempo: 120, clean: false }]).best).toBe(100);
  // One of which something was said since stands as it was said.
  expect(withRounds(log, [{ ...round('r'), clean: null }]).rounds.map((r) => r.clean)).toEqual([null]);
});
