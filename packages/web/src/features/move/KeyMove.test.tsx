/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { fireEvent, screen } from '@testing-library/react';
import { useEffect, useState } from 'react';
import { CHART, shown, storeOf } from '../../../test/world.tsx';
import { lookOf } from '../../model/figure.ts';
import { modelOf } from '../../model/model.ts';
import { opened } from '../../sessions/sessions.ts';
import { SessionProvider } from '../../sessions/useSession.ts';
import { KeyMove } from './KeyMove.tsx';
import { AT_FIRST, type MoveParams } from './params.ts';

const A_MINOR = { ...FIRST_STATE, key: { root: 'A', scale: 'minor-pentatonic' }, at: { string: 6, fret: 5 } };
let by = 0;
function Page() {
  const [params, setParams] = useState<MoveParams>(AT_FIRST);
  useEffect(() => void ({ by } = params));
  return (
    <KeyMove
      model={modelOf(A_MINOR, DEFAULT_SETTINGS)}
      settings={DEFAULT_SETTINGS}
      change={() => undefined}
      look={lookOf(A_MINOR.instrument, DEFAULT_SETTINGS, null, false)}
      params={params}
      onParams={(next) => setParams(next)}
      onChange={() => undefined}
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
const key = (name: string): boolean =>
  fireEvent.change(screen.getByLabelText('Key'), {
    target: {
      value: [...screen.getByLabelText<HTMLSelectElement>('Key').options].find((o) => o.text === name)!.value,
    },
  });
const press = (name: string): boolean => fireEvent.click(screen.getByRole('button', { name }));

test('a key by name is gone to the nearer way, up or down', () => {
  for (const [name, steps] of [
    ['C', 3],
    ['E♭', 6],
    ['E', -5],
    ['G', -2],
    ['A♭', -1],
    ['A', 0],
  ] as const) {
    // The same key may be called by a sharp.
    const called = name === 'A♭' && !has(name) ? 'G♯' : name;
    key(called);
    expect([called, by]).toEqual([called, steps]);
  }
});
const has = (name: string): boolean =>
  [...screen.getByLabelText<HTMLSelectElement>('Key').options].some((o) => o.text === name);

test('steps keep their way, and go on within an octave', () => {
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

test('the root is sent to a place on another string', () => {
  fireEvent.change(screen.getByLabelText('Root on string'), { target: { value: '5' } });
  fireEvent.change(screen.getByLabelText('at fret'), { target: { value: '3' } });
  press('Put the root there');
  // C, three half steps up.
  expect(((by % 12) + 12) % 12).toBe(3);
});
