/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { ok } from '@crow-ladder/core';
import { defineMove, MOVES, toKey } from '@crow-ladder/core/moves';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { useEffect, useState } from 'react';
import { CHART, shown, storeOf } from '../../../test/world.tsx';
import { lookOf } from '../../model/figure.ts';
import { modelOf } from '../../model/model.ts';
import { opened } from '../../sessions/sessions.ts';
import { SessionProvider } from '../../sessions/useSession.ts';
import { Panel } from './Panel.tsx';
import { AT_FIRST, type MoveParams, params as codec } from './params.ts';

const A_MINOR = { ...FIRST_STATE, key: { root: 'A', scale: 'minor-pentatonic' }, at: { string: 6, fret: 5 } };
// A move that exists nowhere else: with this one value it has a name in the row, a form, an address, an outcome and its words.
MOVES.register(
  defineMove<{ readonly berths: number; readonly tide: 'in' | 'out' }>({
    kind: 'berth',
    name: 'Berth',
    to: 'another berth',
    asks: 'Choose how many berths.',
    options: {
      berths: { type: 'whole', min: 0, max: 3, label: 'Berths' },
      tide: {
        type: 'choice',
        label: 'The tide',
        values: [
          { id: 'in', name: 'comes in' },
          { id: 'out', name: 'goes out' },
        ],
      },
    },
    usual: () => ({ berths: 0, tide: 'in' }),
    move: (moving, { berths, tide }, { prefer }) =>
      berths ? ok(toKey(moving, { by: tide === 'in' ? berths : -berths, prefer, octaves: false })) : null,
    says: ({ key }) => [`Now it lies at ${key.root.letter}.`],
  }),
);

let by = 0;
function Page() {
  const [params, setParams] = useState<MoveParams>(AT_FIRST);
  useEffect(() => {
    by = (params.move?.['by'] as number | undefined) ?? 0;
  });
  return (
    <Panel
      model={modelOf(A_MINOR, DEFAULT_SETTINGS)}
      settings={DEFAULT_SETTINGS}
      change={() => undefined}
      look={lookOf(A_MINOR.instrument, DEFAULT_SETTINGS, null, false)}
      params={params}
      onParams={(next) => setParams(next as MoveParams)}
      onChange={() => undefined}
      onOpen={() => undefined}
    />
  );
}
beforeEach(() => {
  const store = storeOf();
  store.dispatch(opened({ chart: { ...CHART, state: A_MINOR } }));
  shown(
    <SessionProvider value="one">
      <Page />
    </SessionProvider>,
    { store },
  );
});
/** What a word of the sentence opens. */
async function opensWord(name: string) {
  fireEvent.click(screen.getByRole('button', { name: new RegExp(`^${name}: `) }));
  return within(await screen.findByRole('dialog', { name }));
}
const picks = async (word: string, name: string): Promise<void> => {
  fireEvent.click((await opensWord(word)).getByRole('button', { name }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
};

test('a key by name is gone to the nearer way, up or down', async () => {
  for (const [name, steps] of [
    ['C', 3],
    ['E♭', 6],
    ['E', -5],
    ['G', -2],
    ['G♯', -1],
    ['A', 0],
  ] as const) {
    await picks('Key', name);
    expect([name, by]).toEqual([name, steps]);
  }
});

test('steps keep their way, and go on within an octave', async () => {
  const steps = await opensWord('Steps');
  const press = (name: string): boolean => fireEvent.click(steps.getByRole('button', { name }));
  press('Fifth up');
  expect(by).toBe(7);
  press('Fifth up');
  expect(by).toBe(2);
  press('Half step down');
  press('Half step down');
  press('Half step down');
  expect(by).toBe(-1);
  press('Fourth up');
  expect(by).toBe(4);
  for (let i = 0; i < 17; i++) press('Half step down');
  expect(by).toBe(-1);
});

test('the root is sent to a place on another string', async () => {
  const steps = await opensWord('Steps');
  fireEvent.change(steps.getByLabelText('Root on string'), { target: { value: '5' } });
  fireEvent.change(steps.getByLabelText('at fret'), { target: { value: '3' } });
  fireEvent.click(steps.getByRole('button', { name: 'Put the root there' }));
  // C, three half steps up.
  expect(((by % 12) + 12) % 12).toBe(3);
});

test('a move of which nothing else knows is chosen, asked, told in its own words, applied, and stands in the address', async () => {
  await picks('What to move', 'Berth');
  expect(screen.getByText('Choose how many berths.')).toBeTruthy();
  const berths = (await opensWord('Berths')).getByLabelText('Berths');
  fireEvent.change(berths, { target: { value: '2' } });
  fireEvent.blur(berths);
  fireEvent.keyDown(berths, { key: 'Escape' });
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  await picks('The tide', 'goes out');
  expect(screen.getByRole('status', { name: 'What happens' }).textContent).toContain('Now it lies at G.');
  const written = new URLSearchParams({ look: 'berth', move: 'berth.2.out' });
  const read = codec.read(written);
  expect(read).toMatchObject({ view: 'berth', move: { kind: 'berth', berths: 2, tide: 'out' } });
  expect(codec.write(read)).toMatchObject({ look: 'berth', move: 'berth.2.out' });
});

test('addresses from before moves had one form are read', () => {
  const read = (query: string) => codec.read(new URLSearchParams(query)).move;
  expect(read('by=-3&octaves=1')).toEqual({ kind: 'key', by: -3, octaves: true });
  expect(read('look=mode&mode=r2')).toEqual({ kind: 'mode', to: 'r2' });
  expect(read('look=strings&on=4&keepkey=1')).toEqual({ kind: 'strings', string: 4, keepKey: true });
  expect(read('look=capo&capoto=3&mostcapo=5')).toEqual({ kind: 'capo', to: 3, most: 5 });
  // What is asked of another move than the one that is looked at is nothing to it.
  expect(read('look=mode&move=key.3.whole')).toBeNull();
  expect(read('look=tuning&to=s:D2.A2.D3')).toEqual({ kind: 'tuning', to: 's:D2.A2.D3', keep: 'notes' });
});
