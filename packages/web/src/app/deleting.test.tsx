/** @jest-environment ./packages/web/test/environment.mjs */
import { fireEvent } from '@testing-library/react';
import { type Answer, type Asked, follows, handNetwork, refusal, shown, storeOf } from '../../test/world.tsx';
import { bringBack, remove, useUndelete } from './deleting.ts';

const wave = { kind: 'chart', id: 'one', name: 'Bow wave', revision: 4 } as const;
const guitar = { kind: 'instrument', id: 'two', name: 'galley guitar', revision: 2 } as const;
const page = (answer: (asked: Asked) => Answer | undefined = () => ({ body: {} })) => {
  const network = handNetwork(answer);
  const store = storeOf({ network });
  return { network, store, notice: () => store.getState().notice };
};

test('what is deleted goes with the revision that was seen, is told, and can be taken back', async () => {
  const { network, store, notice } = page();
  await store.dispatch(remove(wave, ' Its chords stay.'));
  expect(network.asked).toMatchObject([{ method: 'DELETE', path: '/charts/one' }]);
  expect(network.asked[0]!.headers.get('if-match')).toBe('"4"');
  expect(notice()).toEqual({
    text: 'Deleted “Bow wave”. Its chords stay.',
    undo: { kind: 'chart', id: 'one', name: 'Bow wave' },
  });
  await store.dispatch(bringBack(wave));
  expect(network.asked.at(-1)).toMatchObject({ method: 'POST', path: '/charts/one/restore' });
  expect(notice()).toEqual({ text: '“Bow wave” is back.' });
});

test('what was changed elsewhere is not deleted unseen; the player may insist, on what stands there now', async () => {
  const { network, store, notice } = page(() =>
    network.asked.length === 1 ? refusal(409, 'conflict', { current: { revision: 9 } }) : { body: {} },
  );
  await store.dispatch(remove(wave));
  expect(notice()!.text).toBe('“Bow wave” was changed elsewhere meanwhile, so it was not deleted.');
  expect(store.getState().deleted).toEqual([]);
  await store.dispatch(remove(notice()!.insist!));
  expect(network.asked.at(-1)!.headers.get('if-match')).toBe('"9"');
  expect(notice()!.undo).toMatchObject({ id: 'one' });
});

test('what could not be deleted says why, and is not offered to come back', async () => {
  const { store, notice } = page(() => refusal(428, 'no-revision'));
  await store.dispatch(remove(wave));
  expect(notice()).toEqual({ text: 'Refused: no-revision.' });
  expect(store.getState().deleted).toEqual([]);
});

test('what could not be brought back can be tried again', async () => {
  const { store, notice } = page(() => refusal(503, 'busy'));
  await store.dispatch(bringBack(wave));
  expect(notice()).toMatchObject({ text: '“Bow wave” could not be brought back; try again.', undo: wave });
});

test('the undo key brings back what was deleted, the last first, and says when nothing is left', async () => {
  const { network, store, notice } = page(({ path }) => (path === '/settings' ? undefined : { body: {} }));
  function Library() {
    useUndelete();
    return null;
  }
  shown(<Library />, { store });
  await follows();
  await store.dispatch(remove(wave));
  await store.dispatch(remove(guitar));
  const undo = async (): Promise<void> => {
    fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true });
    await follows();
  };
  await undo();
  expect(network.asked.at(-1)!.path).toBe('/instruments/two/restore');
  await undo();
  expect(network.asked.at(-1)!.path).toBe('/charts/one/restore');
  expect(store.getState().deleted).toEqual([]);
  await undo();
  expect(notice()!.text).toBe('Nothing that was deleted in this visit is left to bring back.');
});
