import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { handBrowser } from '../../test/browser.ts';
import { CHART, handClock, handNetwork, settled, storeOf } from '../../test/world.tsx';
import { tabLock } from '../app/outbox.ts';
import { otherLibrary } from '../app/standing.ts';
import { type Outside } from '../ports/outside.ts';
import { live } from './living.ts';
import { discardDraft, drafts } from './left.ts';
import { begin, openChart, resumeLeft } from './opening.ts';
import { saveSession } from './saving.ts';
import {
  allSessions,
  changed,
  entered,
  named,
  opened,
  redone,
  sessionOf,
  tookTheirs,
  typed,
  undone,
} from './sessions.ts';

const at = (fret: number) => ({ ...FIRST_STATE, at: { string: 6, fret } });

/** A browser whose tabs are opened and closed, on charts that the test holds. */
function browsing() {
  const shared = handBrowser();
  const clock = handClock();
  const dead = new Set<string>();
  const browser = {
    ...shared,
    /** What a tab that is gone still had to do is not done any more. */
    close: (name: string): void => {
      dead.add(name);
      shared.close(name);
    },
  };
  const kept = new Map<string, Chart>([['one', CHART]]);
  let isAway = false;
  let reads = 0;
  const charts: Outside['charts'] = () => ({
    get: (id) => {
      reads++;
      const chart = kept.get(id);
      if (isAway) return Promise.reject({ code: 'unreachable', message: 'Away.' } as unknown as Error);
      return chart
        ? Promise.resolve(chart)
        : Promise.reject({ code: 'not-found', message: 'Gone.' } as unknown as Error);
    },
    put: (id, { revision, ...draft }) => {
      const is = kept.get(id);
      if (isAway) return Promise.reject({ code: 'unreachable', message: 'Away.' } as unknown as Error);
      if ((is?.revision ?? 0) !== revision)
        return Promise.reject({ code: 'conflict', message: 'Moved.', current: is } as unknown as Error);
      const chart = { ...CHART, ...draft, id, revision: revision + 1 };
      kept.set(id, chart);
      return Promise.resolve(chart);
    },
    isThere: () => Promise.resolve(!isAway),
  });
  const tab = async (name: string) => {
    const given = browser.tab(name);
    await given.locks.hold(tabLock(name));
    const keeping = { getItem: () => null, setItem: () => undefined };
    const own = {
      ...clock,
      after: (ms: number, work: () => void) => clock.after(ms, () => void (dead.has(name) || work())),
    };
    const outside = { clock: own, network: handNetwork(() => undefined), keeping, charts, ...given };
    const store = storeOf(outside);
    const one = (id = 'one') => sessionOf(store.getState(), id)!;
    return {
      ...store,
      outside,
      one,
      open: (id = 'one', front?: Chart['state']['front']) => store.dispatch(openChart(id, { front })),
      move: (fret: number, id = 'one') => store.dispatch(changed({ id, part: { state: at(fret) } })),
      note: (notes: string, id = 'one') => store.dispatch(changed({ id, part: { notes } })),
    };
  };
  return {
    browser,
    clock,
    kept,
    tab,
    reads: () => reads,
    away: (is: boolean) => (isAway = is),
    elsewhere: (part: Partial<Chart>) => {
      const is = kept.get('one')!;
      kept.set('one', { ...is, ...part, revision: is.revision + 1 });
    },
  };
}
const frets = (drafts: readonly { readonly state: Chart['state'] }[]) => drafts.map((d) => d.state.at.fret);

test('what was made before a reload goes on after it, with the way back and on', async () => {
  const { browser, tab, clock } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  first.note('slow');
  first.move(7);
  first.dispatch(undone('one'));
  browser.close('a');
  const next = await tab('b');
  await next.open();
  expect(next.one()).toMatchObject({ save: 'pending', revision: 4, draft: { state: at(3), notes: 'slow' } });
  expect([frets(next.one().past), frets(next.one().future)]).toEqual([[2, 3], [7]]);
  expect(next.one().past.map((d) => d.notes)).toEqual(['', '']);
  next.dispatch(redone('one'));
  next.dispatch(undone('one'));
  next.note('slower');
  browser.close('b');
  const last = await tab('c');
  await last.open();
  expect(last.one().past.map((d) => d.notes)).toEqual(['', '', 'slow']);
  expect(last.one().future).toEqual([]);
  await clock.advance(700);
  expect(last.one()).toMatchObject({ save: 'saved', revision: 5 });
});

test('a chart that is saved keeps its way back over a reload, unless it has moved on meanwhile', async () => {
  const { browser, tab, clock, elsewhere } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  await clock.advance(700);
  expect(first.one().save).toBe('saved');
  browser.close('a');
  const next = await tab('b');
  await next.open();
  expect([next.one().save, frets(next.one().past)]).toEqual(['saved', [2]]);
  browser.close('b');
  elsewhere({ state: at(9) });
  const last = await tab('c');
  await last.open();
  expect(last.one()).toMatchObject({ save: 'saved', revision: 6, past: [], draft: { state: at(9) } });
  expect(browser.works()).toEqual([]);
});

test('what was changed here and elsewhere is a conflict once it is opened, with both', async () => {
  const { browser, tab, clock, elsewhere } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  browser.close('a');
  elsewhere({ name: 'Stern wave' });
  const next = await tab('b');
  await next.open();
  await clock.advance(700);
  expect(next.one()).toMatchObject({
    save: 'conflict',
    draft: { state: at(3) },
    theirs: { name: 'Stern wave', revision: 5 },
  });
  // It stays one, whatever happens to the page.
  browser.close('b');
  const last = await tab('c');
  await last.open();
  await clock.advance(700);
  expect(last.one().save).toBe('conflict');
});

test('while the server is away what the browser has of a chart is opened, and what it has not says why', async () => {
  const { browser, tab, away, clock } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  await clock.advance(700);
  browser.close('a');
  away(true);
  const next = await tab('b');
  expect(await next.open()).toBeNull();
  expect(next.one()).toMatchObject({ save: 'saved', draft: { state: at(3) } });
  expect(await next.open('two')).toMatchObject({ code: 'unreachable' });
});

test('a server that does not answer is not waited for where the browser has work', async () => {
  const { browser, tab, clock } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  browser.close('a');
  const next = await tab('b');
  next.outside.charts = () => ({
    ...first.outside.charts(first.dispatch),
    get: () => new Promise(() => undefined),
  });
  const slow = storeOf(next.outside);
  const opening = slow.dispatch(openChart('one'));
  await clock.advance(1499);
  expect(sessionOf(slow.getState(), 'one')).toBeUndefined();
  await clock.advance(1);
  await opening;
  expect(sessionOf(slow.getState(), 'one')!.draft.state).toEqual(at(3));
});

test('of what two tabs that are gone left of a chart the newest goes on, and the other is kept beside it, and told', async () => {
  const { browser, tab, clock, kept } = browsing();
  const [a, b] = [await tab('a'), await tab('b')];
  await a.open();
  await b.open();
  a.move(3);
  await clock.advance(5);
  b.move(7);
  browser.close('a');
  browser.close('b');
  const next = await tab('c');
  await next.open();
  expect(next.one().draft.state).toEqual(at(7));
  expect(next.getState().notice!.text).toBe(
    '“Bow wave” was changed in two tabs; one version is kept as “Bow wave (mine)”.',
  );
  await clock.advance(700);
  expect(new Map([...kept.values()].map((c) => [c.name, c.state.at.fret]))).toEqual(
    new Map([
      ['Bow wave', 7],
      ['Bow wave (mine)', 3],
    ]),
  );
});

test('work that a tab left goes out from another page of the browser, without being opened', async () => {
  const { browser, tab, clock, kept } = browsing();
  const first = await tab('a');
  await first.open();
  first.move(3);
  const id = first.dispatch(begin({ ...CHART, name: '' }));
  first.note('new', id);
  first.dispatch(named({ id, name: 'Keel' }));
  const unnamed = first.dispatch(begin({ ...CHART, name: '' }));
  first.note('no name yet', unnamed);
  const other = await tab('b');
  await live(other, other.outside);
  await clock.advance(2000);
  expect(kept.get('one')!.revision).toBe(5);
  first.move(7);
  browser.close('a');
  await other.dispatch(resumeLeft());
  await clock.advance(700);
  expect(kept.get('one')!.state).toEqual(at(7));
  expect(kept.get(id)).toMatchObject({ name: 'Keel', notes: 'new' });
  expect(allSessions(other.getState()).map((s) => s.id)).not.toContain(unnamed);
  expect((await other.dispatch(drafts())).map((d) => [d.draft.notes, d.elsewhere])).toEqual([
    ['no name yet', false],
  ]);
});

test('a tab without changes of its own follows what another one saved, and one with some does not', async () => {
  const { tab, clock } = browsing();
  const [a, b] = [await tab('a'), await tab('b')];
  for (const it of [a, b]) {
    await live(it, it.outside);
    await it.open();
    it.dispatch(entered('one'));
  }
  a.move(3);
  await clock.advance(700);
  await settled();
  expect(b.one()).toMatchObject({ save: 'saved', revision: 5, draft: { state: at(3) } });
  b.note('mine');
  a.move(9);
  await a.dispatch(saveSession('one'));
  await settled();
  expect(b.one()).toMatchObject({ revision: 5, draft: { notes: 'mine', state: at(3) } });
});

test('a tab in which a text is being typed does not follow, so that what was made elsewhere is not written over unseen', async () => {
  const { tab, clock } = browsing();
  const [a, b] = [await tab('a'), await tab('b')];
  for (const it of [a, b]) {
    await live(it, it.outside);
    await it.open();
  }
  b.note('mine');
  await clock.advance(700);
  b.dispatch(typed({ id: 'one', typing: true }));
  a.move(9);
  await clock.advance(700);
  expect([a.one().save, a.one().revision, b.one().revision]).toEqual(['saved', 6, 5]);
  b.note('mine, typed on');
  b.dispatch(typed({ id: 'one', typing: false }));
  await clock.advance(700);
  expect(b.one()).toMatchObject({ save: 'conflict', theirs: { revision: 6 } });
  // Where nothing came of the typing it follows after all.
  b.dispatch(tookTheirs('one'));
  b.dispatch(typed({ id: 'one', typing: true }));
  a.move(10);
  await clock.advance(700);
  expect(b.one().revision).toBe(6);
  b.dispatch(typed({ id: 'one', typing: false }));
  await settled();
  expect(b.one()).toMatchObject({ save: 'saved', revision: 7, draft: { state: at(10) } });
});

test('a draft can be thrown away and taken back; one that another tab has open is followed', async () => {
  const { browser, tab } = browsing();
  const first = await tab('a');
  const id = first.dispatch(begin({ ...CHART, name: '' }));
  expect(browser.works()).toEqual([]);
  first.move(5, id);
  const other = await tab('b');
  expect(await other.open(id)).toBeNull();
  expect(other.one(id)).toMatchObject({ save: 'unsaved', touched: false, draft: { state: at(5) } });
  expect((await other.dispatch(drafts())).map((d) => d.elsewhere)).toEqual([true]);
  browser.close('a');
  const [draft] = await other.dispatch(drafts());
  const back = await other.dispatch(discardDraft(draft!));
  expect([browser.works(), sessionOf(other.getState(), id)]).toEqual([[], undefined]);
  await back();
  expect(await other.open(id)).toBeNull();
  expect(other.one(id).draft.state).toEqual(at(5));
});

test('what was made on another library is neither gone on with nor sent, and is found to decide', async () => {
  const { browser, tab, clock, kept } = browsing();
  const first = await tab('a');
  await first.open();
  first.dispatch({ type: 'standing/librarySeen', payload: 'first' });
  first.move(3);
  first.dispatch(otherLibrary());
  first.move(4);
  await clock.advance(10_000);
  browser.close('a');
  const next = await tab('b');
  next.dispatch({ type: 'standing/librarySeen', payload: 'second' });
  await next.open();
  await next.dispatch(resumeLeft());
  await clock.advance(10_000);
  expect(next.one()).toMatchObject({ save: 'saved', revision: 4 });
  expect(next.getState().outbox.apart.map((w) => [w.id, w.draft.state.at.fret])).toEqual([['one', 4]]);
  expect(kept.get('one')!.revision).toBe(4);
  next.dispatch(opened({ chart: { ...CHART, id: 'two' } }));
  expect(browser.works()).toHaveLength(1);
});
