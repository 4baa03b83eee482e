/** @jest-environment ./packages/web/test/environment.mjs */
import { FIRST_STATE } from '@crow-ladder/contract';
import { handBrowser } from '../../test/browser.ts';
import { CHART, handCharts, handClock, handNetwork, refusal, settled, storeOf } from '../../test/world.tsx';
import { server } from '../app/api.ts';
import { cameIn } from '../app/standing.ts';
import { guardLeaving, saveSession } from './saving.ts';
import { changed, entered, keptMine, left, named, opened, sessionOf, started, undone } from './sessions.ts';

const at = (fret: number) => ({ ...FIRST_STATE, at: { string: 6, fret } });
const DRAFT = { name: '', tags: [], notes: '', state: FIRST_STATE };
/** How long a save waits for the next change, and for another try, in ms. */
const [QUIET, AWAY, REFUSED] = [700, 3000, 15_000];

/** A page with one open chart in front, and everything outside in hand. */
function page(network = handNetwork(() => undefined), browser = handBrowser()) {
  const clock = handClock();
  const charts = handCharts();
  const store = storeOf({ clock, network, charts: () => charts.port, ...browser.tab('tab') });
  store.dispatch(opened({ chart: CHART }));
  store.dispatch(entered('one'));
  const move = (fret: number, id = 'one'): void =>
    void store.dispatch(changed({ id, part: { state: at(fret) } }));
  const one = () => sessionOf(store.getState(), 'one')!;
  const told = (): string => store.getState().notice?.text ?? '';
  return { clock, charts, store, move, one, told };
}

test('a chart is saved once it was left alone for a moment, with all that was changed by then', async () => {
  const { clock, charts, move, one, store } = page();
  move(3);
  await clock.advance(QUIET - 1);
  move(7);
  await clock.advance(QUIET - 1);
  expect(charts.asked).toEqual([]);
  await clock.advance(1);
  expect(charts.asked).toMatchObject([{ id: 'one', from: 4, draft: { state: at(7) } }]);
  expect(one().save).toBe('saving');
  await charts.last().done(5);
  expect(one()).toMatchObject({ save: 'saved', revision: 5 });
  store.dispatch(undone('one'));
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ from: 5, draft: { state: at(3) } });
});

test('saves of a chart follow one another: what is changed meanwhile goes out from the revision that came back', async () => {
  const { clock, charts, move, one, store } = page();
  move(3);
  await clock.advance(QUIET);
  move(7);
  const byHand = store.dispatch(saveSession('one'));
  await clock.advance(10 * QUIET);
  expect(charts.asked).toHaveLength(1);
  await charts.last().done(5);
  expect(charts.asked).toMatchObject([{ from: 4 }, { from: 5, draft: { state: at(7) } }]);
  await charts.last().done(6);
  expect(await byHand).toBe(true);
  await clock.advance(10 * QUIET);
  expect(charts.asked).toHaveLength(2);
  expect(one()).toMatchObject({ save: 'saved', revision: 6 });
});

describe('where the answer to a save was lost', () => {
  /** Saved with the answer lost, and changed once more. */
  const lost = async () => {
    const it = page();
    it.move(3);
    await it.clock.advance(QUIET);
    await it.charts.last().refused({ code: 'unreachable' });
    expect(it.one()).toMatchObject({ save: 'failed', draft: { state: at(3) } });
    it.move(7);
    await it.clock.advance(QUIET);
    return it;
  };

  test('the newest work goes out, and nothing older after it', async () => {
    const { clock, charts, one } = await lost();
    expect(charts.asked.slice(1)).toMatchObject([{ from: 4, draft: { state: at(7) } }]);
    await charts.last().done(5);
    await clock.advance(10 * QUIET);
    expect(charts.asked).toHaveLength(2);
    expect(one()).toMatchObject({ save: 'saved', revision: 5, draft: { state: at(7) } });
  });

  test.each([
    ['of it', 3, 1],
    ['of one before it, lost as well', 3, 2],
  ])('where it was saved after all it goes on from the revision %s', async (_, fret, times) => {
    const { clock, charts, one, move } = await lost();
    if (times > 1) {
      await charts.last().refused({ code: 'unreachable' });
      move(9);
      await clock.advance(QUIET);
    }
    const newest = times > 1 ? 9 : 7;
    const { v, ...rest } = at(fret);
    // The server may name the parts in another order.
    const current = { ...CHART, state: { ...rest, v }, revision: 5 };
    await charts.last().refused({ code: 'conflict', current });
    expect(one()).toMatchObject({ save: 'pending', revision: 5, draft: { state: at(newest) } });
    await clock.advance(QUIET);
    expect(charts.last()).toMatchObject({ from: 5, draft: { state: at(newest) } });
  });

  test.each([
    ['another change was made meanwhile', { state: at(12) }, 5],
    ['more than it was made', { state: at(3) }, 6],
  ])('it is a conflict where %s', async (_, change, revision) => {
    const { charts, one } = await lost();
    await charts.last().refused({ code: 'conflict', current: { ...CHART, ...change, revision } });
    expect(one()).toMatchObject({ save: 'conflict', theirs: { revision }, draft: { state: at(7) } });
  });
});

test('while the server is away it is asked for again and again, less and less often, and the work goes out when it is back', async () => {
  const { clock, charts, move, one } = page();
  charts.goes();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'unreachable' });
  await clock.advance(AWAY);
  expect(charts.knocks()).toBe(1);
  await clock.advance(AWAY);
  expect(charts.knocks()).toBe(1);
  await clock.advance(600_000);
  const [many] = [charts.knocks()];
  expect([many > 10, many < 25]).toEqual([true, true]);
  expect(charts.asked).toHaveLength(1);
  charts.comes();
  await clock.advance(60_000);
  expect(charts.asked).toHaveLength(2);
  await charts.last().done(5);
  expect(one().save).toBe('saved');
  expect(clock.waiting()).toBe(0);
});

test.each(['busy', 'disk-full', 'not-writable', 'library-gone', 'stopping', 'locked'])(
  'what is refused for now (%s) is tried again after fifteen seconds',
  async (code) => {
    const { clock, charts, move, one } = page();
    move(3);
    await clock.advance(QUIET);
    await charts.last().refused({ code });
    expect(one()).toMatchObject({ save: 'failed', trouble: { code } });
    await clock.advance(REFUSED - 1);
    expect(charts.asked).toHaveLength(1);
    await clock.advance(1);
    expect(charts.asked).toHaveLength(2);
  },
);

test('what is refused for good is not tried again by itself; a new change or the player tries again', async () => {
  const { clock, charts, move, store } = page();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'invalid' });
  await clock.advance(10 * REFUSED);
  expect(charts.asked).toHaveLength(1);
  void store.dispatch(saveSession('one'));
  await settled();
  expect(charts.asked).toHaveLength(2);
  await charts.last().refused({ code: 'invalid' });
  move(7);
  await clock.advance(QUIET);
  expect(charts.asked).toHaveLength(3);
});

test('work that waits for the passcode goes out as soon as it is given', async () => {
  const { clock, charts, move, store } = page();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'locked' });
  store.dispatch(cameIn());
  await settled();
  expect(charts.asked).toHaveLength(2);
});

test('nothing is saved over a conflict until the player has chosen; then mine goes on from theirs', async () => {
  const { clock, charts, move, one, store, told } = page();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'conflict', current: { ...CHART, revision: 9 } });
  move(7);
  await clock.advance(10 * QUIET);
  expect(await store.dispatch(saveSession('one'))).toBe(false);
  expect(charts.asked).toHaveLength(1);
  expect([one().save, told()]).toEqual(['conflict', '']);
  store.dispatch(keptMine('one'));
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ from: 9, draft: { state: at(7) } });
});

test.each(['conflict', 'not-found', 'invalid'])(
  'what is refused (%s) where nobody sees it is told, and stays as it is until the player decides',
  async (code) => {
    const { clock, charts, move, store, told, one } = page();
    move(3);
    store.dispatch(left('one'));
    await clock.advance(QUIET);
    const current = code === 'conflict' ? { current: { ...CHART, revision: 9 } } : {};
    await charts.last().refused({ code, message: 'Changed elsewhere.', ...current });
    expect(told()).toBe(
      '“Bow wave” is not saved: Changed elsewhere. What you changed is kept: open the chart to decide.',
    );
    await clock.advance(10 * REFUSED);
    expect(charts.asked).toHaveLength(1);
    expect(one()).toMatchObject({ draft: { state: at(3) }, trouble: { code } });
  },
);

test('a new chart waits for its name, and is made under the id that it had from the beginning', async () => {
  const { clock, charts, move, store } = page();
  store.dispatch(started({ id: 'two', draft: DRAFT, touched: false, of: null }));
  move(3, 'two');
  await clock.advance(10 * QUIET);
  expect([await store.dispatch(saveSession('two')), charts.asked]).toEqual([false, []]);
  store.dispatch(named({ id: 'two', name: 'Stern wave' }));
  const saving = store.dispatch(saveSession('two'));
  await settled();
  expect(charts.last()).toMatchObject({ id: 'two', from: 0, draft: { name: 'Stern wave', state: at(3) } });
  move(7, 'two');
  await charts.last().done(1);
  expect(await saving).toBe(true);
  expect(sessionOf(store.getState(), 'two')).toMatchObject({ save: 'pending', draft: { state: at(7) } });
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ id: 'two', from: 1, draft: { name: 'Stern wave' } });
});

test('two new charts stay two where the answer to the first is lost', async () => {
  const { clock, charts, store } = page();
  const save = async (id: string, name: string): Promise<void> => {
    store.dispatch(started({ id, draft: DRAFT, touched: false, of: null }));
    store.dispatch(named({ id, name }));
    void store.dispatch(saveSession(id));
    await settled();
  };
  await save('alpha', 'Lost alpha');
  await charts.last().refused({ code: 'unreachable' });
  await save('beta', 'Lost beta');
  expect(charts.last()).toMatchObject({ id: 'beta', from: 0, draft: { name: 'Lost beta' } });
  await charts.last().done(1);
  await clock.advance(AWAY);
  expect(charts.last()).toMatchObject({ id: 'alpha', from: 0, draft: { name: 'Lost alpha' } });
  await charts.last().done(1);
  expect(sessionOf(store.getState(), 'alpha')).toMatchObject({ save: 'saved', revision: 1 });
});

describe('as the page may be going', () => {
  const goes = (): Event => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event;
  };

  test('nothing is sent and nothing asked, as the browser has it', async () => {
    const { clock, charts, move, store } = page();
    const stop = guardLeaving(store);
    move(3);
    await clock.advance(QUIET);
    await charts.last().refused({ code: 'invalid' });
    move(7);
    expect(goes().defaultPrevented).toBe(false);
    await settled();
    expect(charts.asked).toHaveLength(1);
    stop();
  });

  test('where the browser keeps nothing, what waits goes out at once, from the revision that is on its way', async () => {
    const browser = handBrowser();
    browser.full(true);
    const { clock, charts, move, store } = page(undefined, browser);
    const stop = guardLeaving(store);
    move(3);
    await clock.advance(QUIET);
    move(7);
    expect(goes().defaultPrevented).toBe(false);
    await settled();
    expect(charts.asked).toMatchObject([
      { leaving: false, from: 4 },
      { leaving: true, from: 5, draft: { state: at(7) } },
    ]);
    stop();
  });

  test('where the browser keeps nothing, the player is asked where work could be lost, and not once it is saved', async () => {
    const browser = handBrowser();
    browser.full(true);
    const { clock, charts, move, store } = page(undefined, browser);
    const stop = guardLeaving(store);
    expect(goes().defaultPrevented).toBe(false);
    move(3);
    await clock.advance(QUIET);
    expect(store.getState().standing.keeps).toBe(false);
    await charts.last().refused({ code: 'invalid' });
    expect(goes().defaultPrevented).toBe(true);
    void store.dispatch(saveSession('one'));
    await settled();
    await charts.last().done(5);
    expect(goes().defaultPrevented).toBe(false);
    stop();
    move(7);
    goes();
    await settled();
    expect(charts.asked).toHaveLength(2);
    browser.full(false);
    move(9);
    await settled();
    expect(store.getState().standing.keeps).toBe(true);
  });
});

describe('what happens elsewhere on the page', () => {
  const answering = () => {
    const network = handNetwork(({ method, path, body }) =>
      method === 'PUT'
        ? { body: { ...CHART, ...(body as object), revision: 8 } }
        : path === '/charts/gone'
          ? refusal(404, 'not-found')
          : { body: {} },
    );
    const it = page(network);
    const put = (name: string) =>
      it.store.dispatch(
        server.endpoints.changeChart.initiate({ id: 'one', change: { ...CHART, name, revision: 4 } }),
      );
    return { ...it, put };
  };

  test('a chart that the list renames is followed, but not over changes of its own', async () => {
    const { put, one, move } = answering();
    await put('Stern wave');
    expect(one()).toMatchObject({ save: 'saved', revision: 8, draft: { name: 'Stern wave' } });
    move(3);
    await put('Keel');
    expect(one().draft).toMatchObject({ name: 'Stern wave', state: at(3) });
  });

  test('a chart that was deleted is read anew; one that could not be deleted stays', async () => {
    const { store, one } = answering();
    const remove = (id: string) =>
      store.dispatch(server.endpoints.remove.initiate({ kind: 'chart', id, revision: 4 }));
    await remove('gone');
    expect(one()).toBeDefined();
    await remove('one');
    expect(one()).toBeUndefined();
  });

  test('after another library came in place, what was saved is read anew and what was not stays', async () => {
    const { store, one, move } = answering();
    store.dispatch(opened({ chart: { ...CHART, id: 'two' } }));
    move(3, 'two');
    await store.dispatch(server.endpoints.replaceLibrary.initiate('restore-1'));
    expect(one()).toBeUndefined();
    expect(sessionOf(store.getState(), 'two')!.draft.state).toEqual(at(3));
  });
});
