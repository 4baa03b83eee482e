/** @jest-environment ./packages/web/test/environment.mjs */
import { type ChartDraft, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { act, fireEvent, screen } from '@testing-library/react';
import { shown, storeOf } from '../../test/world.tsx';
import { changeSaid } from '../model/history.ts';
import { withLaid } from '../model/laid.ts';
import { moveKey } from '../model/model.ts';
import { type Change, withLayout, withRoot, withScale, withSpot } from '../model/moves.ts';
import { begin } from '../sessions/opening.ts';
import { changed, sessionOf } from '../sessions/sessions.ts';
import { SessionProvider } from '../sessions/useSession.ts';
import { History } from './History.tsx';

const FIRST: ChartDraft = { name: '', tags: [], notes: '', state: FIRST_STATE };

test.each<[string, Change]>([
  ['E♭ Dorian', (s) => withRoot(s, 'Eb')],
  ['G Dorian', (s) => moveKey(s, 1, DEFAULT_SETTINGS)],
  ['F♯ minor pentatonic and two notes per string', (s) => withScale(s, 'minor-pentatonic')],
  ['four notes per string', (s) => withLayout(s, { kind: 'count', counts: [4] })],
  ['root on string 4 fret 4', (s) => withSpot(s, { string: 4, fret: 4 }, 'sharps')],
])('a change is said by what it led to: %s', (said, change) => {
  expect(changeSaid(FIRST, { ...FIRST, state: change(FIRST_STATE) }, DEFAULT_SETTINGS)).toBe(said);
});

test('what a player types is said as that, what is looked at by its place', () => {
  const said = (part: Partial<ChartDraft>) => changeSaid(FIRST, { ...FIRST, ...part }, DEFAULT_SETTINGS);
  expect(said({ name: 'Quay', notes: 'slow', tags: ['deck'] })).toBe('the name “Quay”, notes and tags');
  const laid = withLaid(FIRST_STATE, { scale: 'lydian', above: 0 });
  expect(said({ state: laid })).toBe('what is laid over it');
  const run = { type: 'unread', was: {} } as const;
  expect(said({ state: { ...FIRST_STATE, runs: [run] } })).toBe('kept climbs and plans');
  expect(said({ state: { ...FIRST_STATE, front: { start: 2, low: 4, nth: 0 } } })).toMatch(
    /, frets \d+ to \d+$/,
  );
});

test('every step is one to go to, forward too, and the others stay', () => {
  const store = storeOf();
  const id = store.dispatch(begin(FIRST));
  const change = (by: Change): void => {
    const { draft } = sessionOf(store.getState(), id)!;
    store.dispatch(changed({ id, part: { state: by(draft.state) } }));
  };
  for (const root of ['G', 'A', 'B']) change((s) => withRoot(s, root));
  shown(
    <SessionProvider value={id}>
      <History />
    </SessionProvider>,
    { store },
  );
  const steps = (): string[] => screen.getAllByRole('button').map((b) => b.textContent);
  const root = (): string => sessionOf(store.getState(), id)!.draft.state.key.root;
  expect(steps()).toEqual(['B Dorian', 'A Dorian', 'G Dorian', 'as it was opened']);
  fireEvent.click(screen.getByRole('button', { name: 'G Dorian' }));
  expect(root()).toBe('G');
  expect(steps()).toEqual(['B Dorianundone', 'A Dorianundone', 'G Dorian', 'as it was opened']);
  fireEvent.click(screen.getByRole('button', { name: 'B Dorian' }));
  expect(root()).toBe('B');
  fireEvent.click(screen.getByRole('button', { name: 'as it was opened' }));
  expect(root()).toBe('F#');
  act(() => change((s) => withRoot(s, 'C')));
  expect(steps()).toEqual(['C Dorian', 'as it was opened']);
});
