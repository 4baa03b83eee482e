/** @jest-environment ./packages/web/test/environment.mjs */
import { FIRST_STATE } from '@crow-ladder/contract';
import { CHART, handClock, handKeeping, storeOf } from '../../test/world.tsx';
import { begunIn, changed, named, opened, saved, started } from '../sessions/sessions.ts';
import { dropDraft, type KeptDraft, keptDrafts } from './drafts.ts';

const at = (fret: number) => ({ ...FIRST_STATE, at: { string: 6, fret } });
const REST = 400;

/** A page on which a new chart is begun. */
function page(keeping = handKeeping()) {
  const clock = handClock();
  const store = storeOf({ clock, keeping });
  const begun = () => begunIn(store.getState())!;
  let nth = 0;
  const begin = (): void => void store.dispatch(started({ id: `new-${++nth}`, state: FIRST_STATE }));
  begin();
  const move = (fret: number): void =>
    void store.dispatch(changed({ id: begun().id, part: { state: at(fret) } }));
  const kept = (): readonly KeptDraft[] => keptDrafts(keeping);
  const frets = (): readonly number[] =>
    kept().map(({ query }) => Number(new URLSearchParams(query).get('at')!.split('.')[1]));
  return { clock, keeping, store, begun, begin, move, kept, frets };
}

test('a new chart that was changed is kept once the work rests, again at each rest, as one draft', async () => {
  const { clock, move, kept, frets } = page();
  await clock.advance(10 * REST);
  expect(kept()).toEqual([]);
  move(3);
  await clock.advance(REST - 1);
  move(5);
  await clock.advance(REST - 1);
  expect(kept()).toEqual([]);
  await clock.advance(1);
  expect(frets()).toEqual([5]);
  expect(kept()[0]!.at).toBe(clock.now());
  move(8);
  await clock.advance(REST);
  expect(frets()).toEqual([8]);
});

test('what was changed a moment before the page goes is kept on the way out', () => {
  const { move, frets } = page();
  move(3);
  window.dispatchEvent(new Event('pagehide'));
  expect(frets()).toEqual([3]);
});

test('a chart that was saved is no draft any more, nor becomes one a moment later', async () => {
  const { clock, store, move, kept, begun } = page();
  move(3);
  await clock.advance(REST);
  move(5);
  const { id, draft: sent } = begun();
  store.dispatch(saved({ id, chart: { ...CHART, id, state: at(5) }, sent }));
  expect(kept()).toEqual([]);
  await clock.advance(10 * REST);
  expect(kept()).toEqual([]);
});

test('a chart that is saved once another one is begun is no draft any more either', async () => {
  const { clock, store, begin, begun, move, frets } = page();
  move(3);
  const { id, draft: sent } = begun();
  store.dispatch(named({ id, name: 'Keel' }));
  await clock.advance(REST - 1);
  begin();
  expect(frets()).toEqual([3]);
  await clock.advance(REST);
  expect(frets()).toEqual([3]);
  move(5);
  await clock.advance(REST);
  expect(frets()).toEqual([5, 3]);
  store.dispatch(saved({ id, chart: { ...CHART, id }, sent }));
  expect(frets()).toEqual([5]);
});

test('another new chart is another draft; the last one comes first, and five are kept', async () => {
  const { clock, begin, move, frets, kept } = page();
  for (const fret of [1, 2, 3, 4, 5, 6]) {
    begin();
    await clock.advance(10);
    move(fret);
    await clock.advance(REST);
  }
  expect(frets()).toEqual([6, 5, 4, 3, 2]);
  expect(new Set(kept().map((d) => d.begun)).size).toBe(5);
});

test('one draft is dropped, the others stay', async () => {
  const { clock, begin, move, kept, frets, keeping } = page();
  for (const fret of [1, 2]) {
    begin();
    await clock.advance(10);
    move(fret);
    await clock.advance(REST);
  }
  dropDraft(kept()[0]!.begun, keeping);
  expect(frets()).toEqual([1]);
});

test('work on a chart that has its place is no draft', async () => {
  const { clock, store, kept } = page();
  store.dispatch(opened({ chart: CHART, state: null }));
  store.dispatch(changed({ id: 'one', part: { state: at(9) } }));
  await clock.advance(10 * REST);
  expect(kept()).toEqual([]);
});

test('what a browser keeps that is no draft is passed over; one that keeps nothing stops no work', async () => {
  for (const odd of ['{', 'null', '{"begun":1}', '[1, null, {"begun":"x","at":1,"query":""}]'])
    expect(keptDrafts({ getItem: () => odd, setItem: () => undefined })).toEqual([]);
  const refuses = (): never => {
    throw new DOMException('refused', 'SecurityError');
  };
  const { clock, move, begun } = page({ ...handKeeping(), getItem: refuses, setItem: refuses });
  move(3);
  await clock.advance(REST);
  expect(begun().draft.state).toEqual(at(3));
});
