/** @jest-environment ./packages/web/test/environment.mjs */
import { handKeeping, storeOf } from '../../test/world.tsx';
import { looked, usedScale } from './state.ts';

const use = (store: ReturnType<typeof storeOf>, ...ids: readonly string[]): void =>
  ids.forEach((id) => void store.dispatch(usedScale(id)));

test('the scales used last come first, each once, six of them, and are there on the next visit', () => {
  const keeping = handKeeping();
  const store = storeOf({ keeping });
  use(store, 'a', 'b', 'c', 'a');
  expect(store.getState().view.recent).toEqual(['a', 'c', 'b']);
  use(store, 'd', 'e', 'f', 'g');
  expect(store.getState().view.recent).toEqual(['g', 'f', 'e', 'd', 'a', 'c']);
  expect(storeOf({ keeping }).getState().view.recent).toEqual(['g', 'f', 'e', 'd', 'a', 'c']);
});

test('what a browser keeps that is no list of scales is passed over; one that keeps nothing stops no work', () => {
  for (const odd of ['{', 'null', '{"a":1}', '[1,"dorian",null]'])
    expect(
      storeOf({ keeping: { getItem: () => odd, setItem: () => undefined } }).getState().view.recent,
    ).toEqual(odd.includes('dorian') ? ['dorian'] : []);
  const refuses = (): never => {
    throw new DOMException('refused', 'SecurityError');
  };
  const store = storeOf({ keeping: { getItem: refuses, setItem: refuses } });
  use(store, 'dorian');
  store.dispatch(looked({ rootsOnly: true }));
  expect(store.getState().view).toMatchObject({ recent: ['dorian'], rootsOnly: true, whole: false });
});
