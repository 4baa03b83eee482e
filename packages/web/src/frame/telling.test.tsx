/** @jest-environment ./packages/web/test/environment.mjs */
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { act, fireEvent, screen } from '@testing-library/react';
import { shown, storeOf } from '../../test/world.tsx';
import { said, told } from '../app/notice.ts';
import { Shell } from '../app/Shell.tsx';
import { useTold } from '../app/useTold.ts';
import { modelOf, moveKey } from '../model/model.ts';
import { withLayout } from '../model/moves.ts';
import { Telling } from './Telling.tsx';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());
const rest = (ms: number): void => act(() => void jest.advanceTimersByTime(ms));
const VIEW = { rootsOnly: false, zoom: null, whole: false, labels: null, recent: [] } as const;

describe('what changed on the neck', () => {
  const A: ChartState = {
    ...FIRST_STATE,
    key: { root: 'A', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 5 },
    layout: { kind: 'count', counts: [2] },
  };
  function page() {
    const store = storeOf();
    const of = (state = A, more: Partial<Parameters<typeof Telling>[0]> = {}) => (
      <Telling
        model={modelOf(state, DEFAULT_SETTINGS)}
        view={VIEW}
        labels="degree"
        instead={null}
        end={null}
        {...more}
      />
    );
    const { rerender } = shown(of(), { store });
    return {
      show: (...it: Parameters<typeof of>) => rerender(of(...it)),
      status: () => store.getState().status,
    };
  }

  test('is told once it rests, all of it together, and nothing at first', () => {
    const { show, status } = page();
    rest(10_000);
    expect(status().nth).toBe(0);
    let state = A;
    for (let i = 0; i < 3; i++) {
      show((state = moveKey(state, 1, DEFAULT_SETTINGS)));
      rest(299);
    }
    expect(status().nth).toBe(0);
    rest(1);
    expect(status().nth).toBe(1);
    expect(status().text).toMatch(/^C minor pentatonic; root on string 6 fret 8; .*frets 8 to 11\.$/);
    rest(10_000);
    expect(status().nth).toBe(1);
  });

  test('is told by its subject: the layout, what marks say, roots alone, the frets shown', () => {
    const { show, status } = page();
    show(withLayout(A, { kind: 'count', counts: [3] }));
    rest(300);
    expect(status().text).toMatch(/^three notes per string; /);
    show(withLayout(A, { kind: 'count', counts: [3] }), { labels: 'note' });
    rest(300);
    expect(status().text).toMatch(/^marks say note names\.$/);
    show(withLayout(A, { kind: 'count', counts: [3] }), {
      labels: 'note',
      view: { ...VIEW, rootsOnly: true, zoom: [3, 9] },
    });
    rest(300);
    expect(status().text).toBe('roots alone; frets 3 to 9 shown.');
  });

  test('the end of the ladder is told each time that it is reached', () => {
    const { show, status } = page();
    for (const nth of [1, 2]) {
      show(A, { end: { text: 'this is the last position up the neck' } });
      rest(300);
      expect(status()).toEqual({ text: 'this is the last position up the neck.', nth });
    }
    // What changes afterwards is told by itself.
    const end = { text: 'this is the last position up the neck' };
    show(A, { end });
    rest(300);
    show(A, { end, labels: 'note' });
    rest(300);
    expect(status()).toEqual({ text: 'marks say note names.', nth: 4 });
  });
});

test('what a search has come to is told once it rests', () => {
  function Search({ text }: { text: string | null }) {
    useTold(text);
    return null;
  }
  const store = storeOf();
  const { rerender } = shown(<Search text={null} />, { store });
  rest(5000);
  rerender(<Search text="3 charts found." />);
  rest(499);
  rerender(<Search text="1 chart found." />);
  rest(499);
  expect(store.getState().status.nth).toBe(0);
  rest(1);
  expect(store.getState().status).toEqual({ text: '1 chart found.', nth: 1 });
});

describe('around every page', () => {
  const page = () => {
    const store = storeOf();
    shown(<Shell tasks={[]} waits={null} />, { store });
    return store;
  };

  test('the same words told twice are read twice', () => {
    const store = page();
    const status = () => screen.getByRole('status', { name: 'What changed' }).firstElementChild!;
    act(() => void store.dispatch(told('all notes.')));
    const first = status();
    expect(first.textContent).toBe('all notes.');
    act(() => void store.dispatch(told('all notes.')));
    expect(status().textContent).toBe('all notes.');
    expect(status()).not.toBe(first);
  });

  test('a notice goes by itself after a while, counted anew from the last one, or when it is dismissed', () => {
    const store = page();
    const tell = (text: string): void => act(() => void store.dispatch(said({ text })));
    tell('Deleted “Bow wave”.');
    rest(11_000);
    tell('Deleted “Keel”.');
    rest(11_999);
    screen.getByText('Deleted “Keel”.');
    rest(1);
    expect(screen.queryByText('Deleted “Keel”.')).toBeNull();
    tell('Deleted “Rudder”.');
    fireEvent.click(screen.getByRole('button', { name: 'Dismiss' }));
    expect(store.getState().notice).toBeNull();
  });
});
