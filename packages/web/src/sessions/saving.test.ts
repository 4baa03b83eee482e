/** @jest-environment ./packages/web/test/environment.mjs */
import { FIRST_STATE } from '@crow-ladder/contract';
import { CHART, handCharts, handClock, handNetwork, refusal, settled, storeOf } from '../../test/world.tsx';
import { server } from '../app/api.ts';
import { cameIn } from '../app/standing.ts';
import { guardLeaving, saveSession } from './saving.ts';
import { changed, entered, keptMine, left, NEW, opened, sessionOf, started, undone } from './sessions.ts';

const at = (fret: number) => ({ ...FIRST_STATE, at: { string: 6, fret } });
/** How long a save waits for the next change, and for another try, in ms. */
const [QUIET, AWAY, REFUSED] = [700, 3000, 15_000];

/** A page with one open chart in front, and everything outside in hand. */
function page(network = handNetwork(() => undefined)) {
  const clock = handClock();
  const charts = handCharts();
  const store = storeOf({ clock, network, charts: () => charts.port });
  store.dispatch(opened({ chart: CHART, state: null }));
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
  expect(charts.asked).toMatchObject([{ what: 'change', id: 'one', from: 4, draft: { state: at(7) } }]);
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
  expect(await byHand).toBe('one');
  await clock.advance(10 * QUIET);
  expect(charts.asked).toHaveLength(2);
  expect(one()).toMatchObject({ save: 'saved', revision: 6 });
});

test('a save whose answer was lost is asked for again as it was, under its key, and what came after it follows', async () => {
  const { clock, charts, move, one } = page();
  move(3);
  await clock.advance(QUIET);
  const [first] = charts.asked;
  await first!.refused({ code: 'unreachable' });
  expect(one()).toMatchObject({ save: 'failed', draft: { state: at(3) } });
  move(7);
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ key: first!.key, from: 4, draft: { state: at(3) } });
  await charts.last().done(5);
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ from: 5, draft: { state: at(7) } });
  expect(charts.last().key).not.toBe(first!.key);
});

test('while the server is away it is asked for every three seconds, and the work goes out when it is back', async () => {
  const { clock, charts, move, one } = page();
  charts.goes();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'unreachable' });
  await clock.advance(20 * AWAY);
  expect(charts.asked).toHaveLength(1);
  charts.comes();
  await clock.advance(AWAY - 1);
  expect(charts.asked).toHaveLength(1);
  await clock.advance(1);
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
  expect(await store.dispatch(saveSession('one'))).toBeNull();
  expect(charts.asked).toHaveLength(1);
  expect([one().save, told()]).toEqual(['conflict', '']);
  store.dispatch(keptMine('one'));
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ from: 9, draft: { state: at(7) } });
});

test('what cannot be saved where nobody sees it is kept as a chart of its own, and told', async () => {
  const { clock, charts, move, store, told, one } = page();
  move(3);
  store.dispatch(left('one'));
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'conflict', message: 'Changed elsewhere.' });
  expect(charts.last()).toMatchObject({ what: 'create', draft: { name: 'Bow wave (mine)', state: at(3) } });
  await charts.last().done(1, 'two');
  expect(one()).toBeUndefined();
  expect(told()).toBe(
    '“Bow wave” could not be saved: Changed elsewhere. What you changed is kept as “Bow wave (mine)”.',
  );
});

test('so is work on a chart that is no longer there', async () => {
  const { clock, charts, move, store } = page();
  move(3);
  store.dispatch(left('one'));
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'not-found', message: 'There is no such chart.' });
  expect(charts.last()).toMatchObject({ what: 'create', draft: { name: 'Bow wave (mine)', state: at(3) } });
});

test('leaving a page whose work could not be saved tells it; what a copy would not help stays open', async () => {
  const { clock, charts, move, store, told, one } = page();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'invalid', message: 'Too large.' });
  expect(told()).toBe('');
  store.dispatch(left('one'));
  await settled();
  expect(told()).toBe('“Bow wave” could not be saved: Too large.');
  expect(charts.asked).toHaveLength(1);
  expect(one().draft.state).toEqual(at(3));
});

test('leaving a page while the choice of a conflict is open keeps the work beside it', async () => {
  const { clock, charts, move, store, one } = page();
  move(3);
  await clock.advance(QUIET);
  await charts.last().refused({ code: 'conflict', message: 'Changed elsewhere.', current: CHART });
  store.dispatch(left('one'));
  await settled();
  expect(charts.last()).toMatchObject({ what: 'create', draft: { name: 'Bow wave (mine)', state: at(3) } });
  await charts.last().refused({ code: 'disk-full', message: 'The disk is full.' });
  // It could not be kept, and is still here.
  expect(one().draft.state).toEqual(at(3));
});

test('a new chart waits for its name, and has its place from the answer on', async () => {
  const { clock, charts, move, store } = page();
  store.dispatch(started(FIRST_STATE));
  move(3, NEW);
  await clock.advance(10 * QUIET);
  expect(charts.asked).toEqual([]);
  const saving = store.dispatch(saveSession(NEW, { name: 'Stern wave' }));
  await settled();
  expect(charts.last()).toMatchObject({ what: 'create', draft: { name: 'Stern wave', state: at(3) } });
  move(7, NEW);
  await charts.last().done(1, 'two');
  expect(await saving).toBe('two');
  expect(sessionOf(store.getState(), NEW)).toBeUndefined();
  expect(sessionOf(store.getState(), 'two')).toMatchObject({ save: 'pending', draft: { state: at(7) } });
  await clock.advance(QUIET);
  expect(charts.last()).toMatchObject({ what: 'change', id: 'two', from: 1, draft: { name: 'Stern wave' } });
});

describe('as the page may be going', () => {
  const goes = (): Event => {
    const event = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(event);
    return event;
  };

  test('what waits to be saved goes out at once, from the revision that is on its way', async () => {
    const { clock, charts, move, store } = page();
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

  test('the player is asked where work could be lost, and not once it is saved', async () => {
    const { clock, charts, move, store } = page();
    const stop = guardLeaving(store);
    expect(goes().defaultPrevented).toBe(false);
    move(3);
    await clock.advance(QUIET);
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
    store.dispatch(opened({ chart: { ...CHART, id: 'two' }, state: null }));
    move(3, 'two');
    await store.dispatch(server.endpoints.replaceLibrary.initiate('restore-1'));
    expect(one()).toBeUndefined();
    expect(sessionOf(store.getState(), 'two')!.draft.state).toEqual(at(3));
  });
});
