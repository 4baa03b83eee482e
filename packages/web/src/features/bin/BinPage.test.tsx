/** @jest-environment ./packages/web/test/environment.mjs */
import { fireEvent, screen } from '@testing-library/react';
import { follows, handClock, handNetwork, refusal, shown, storeOf } from '../../../test/world.tsx';
import { BinPage } from './BinPage.tsx';

const DAY = 86_400_000;
const clock = handClock();
const ago = (ms: number): string => new Date(clock.now() - ms).toISOString();
const BINNED = [
  { kind: 'chart', id: 'a', name: 'Bow wave', deletedAt: ago(0) },
  { kind: 'instrument', id: 'b', name: 'galley guitar', deletedAt: ago(29 * DAY + 1) },
  { kind: 'chart', id: 'c', name: 'Keel', deletedAt: ago(12 * DAY) },
];
async function page(binned: readonly object[] = BINNED) {
  const network = handNetwork(({ path, method }) =>
    path === '/bin'
      ? { body: binned }
      : path === '/bin/charts/c'
        ? refusal(503, 'busy')
        : method !== 'GET'
          ? { body: {} }
          : undefined,
  );
  const { store } = shown(<BinPage />, { store: storeOf({ network }), clock });
  await follows();
  const click = async (name: string): Promise<void> => {
    fireEvent.click(screen.getByRole('button', { name }));
    await follows();
  };
  return { network, click, told: () => store.getState().notice?.text };
}

test('everything in the bin says what it is and how many days it is still held', async () => {
  await page();
  expect(screen.getAllByRole('listitem').map((row) => row.querySelectorAll('p')[1]!.textContent)).toEqual([
    'chart, 30 days left',
    'instrument, 1 day left',
    'chart, 18 days left',
  ]);
});

test('it is brought back, or discarded for good; what is refused says why', async () => {
  const { network, click, told } = await page();
  await click('Bring back galley guitar');
  expect(network.asked.filter((a) => a.method === 'POST').map((a) => a.path)).toEqual([
    '/instruments/b/restore',
  ]);
  expect(told()).toBe('“galley guitar” is back.');
  await click('Discard Bow wave for good');
  expect(network.asked.filter((a) => a.method === 'DELETE').map((a) => a.path)).toEqual(['/bin/charts/a']);
  expect(told()).toBe('“Bow wave” is gone for good.');
  await click('Discard Keel for good');
  expect(told()).toBe('Refused: busy.');
});

test('an empty bin says so', async () => {
  await page([]);
  screen.getByText('The bin is empty.');
});
