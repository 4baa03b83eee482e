/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, FIRST_STATE, type Practised, type RoundQuery } from '@crow-ladder/contract';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { follows, handNetwork, shown, storeOf } from '../../../test/world.tsx';
import { modelOf } from '../../model/model.ts';
import { AT_FIRST, type PracticeParams } from './params.ts';
import { drilled } from './drilled.ts';
import { useKeys } from './useKeys.ts';
import { useTempo } from './useTempo.ts';

describe('keys', () => {
  const did: string[] = [];
  function Page({ sounding = true, letterKeys = true }: { sounding?: boolean; letterKeys?: boolean }) {
    useKeys({
      toggle: () => did.push('toggle'),
      clean: sounding ? () => did.push('clean') : null,
      letterKeys,
    });
    return (
      <div>
        <button>button</button>
        <input aria-label="text" />
        <input aria-label="number" type="number" />
        <input aria-label="level" type="range" />
        <select aria-label="list" />
        <span>elsewhere</span>
        <div role="grid">
          <div role="gridcell">spot</div>
        </div>
        <nav>tasks</nav>
      </div>
    );
  }
  const press = (key: string, on: Element = document.body, more = {}): boolean =>
    fireEvent.keyDown(on, { key, ...more });
  beforeEach(() => void (did.length = 0));

  test('space plays and stops, and a key says that a round was clean while it sounds', () => {
    const { rerender } = render(<Page />);
    press(' ');
    press('c');
    expect(did).toEqual(['toggle', 'clean']);
    rerender(<Page sounding={false} />);
    press('c');
    expect(did).toEqual(['toggle', 'clean']);
  });

  test('a key that is held down counts once', () => {
    render(<Page />);
    press('c');
    for (let i = 0; i < 9; i++) press('c', document.body, { repeat: true });
    press(' ', document.body, { repeat: true });
    expect(did).toEqual(['clean']);
  });

  test('keys of the browser, and keys that belong to what they are pressed on, do nothing', () => {
    render(<Page />);
    for (const mod of ['ctrlKey', 'metaKey', 'altKey']) press('c', document.body, { [mod]: true });
    for (const on of ['text', 'list']) press('c', screen.getByLabelText(on));
    press(' ', screen.getByLabelText('text'));
    expect(did).toEqual([]);
    // Buttons, lists and the neck have Enter: the space plays wherever the focus is, but where it is typed.
    press(' ', screen.getByRole('button'));
    press(' ', screen.getByRole('gridcell'));
    for (const on of ['list', 'number']) press(' ', screen.getByLabelText(on));
    expect(did.splice(0)).toEqual(['toggle', 'toggle', 'toggle', 'toggle']);
    // Where a browser presses a button as the space is let go, it does not then.
    expect(fireEvent.keyUp(screen.getByRole('button'), { key: ' ' })).toBe(false);
    expect(fireEvent.keyUp(screen.getByLabelText('text'), { key: ' ' })).toBe(true);
    // A letter means nothing to a button or a level.
    press('c', screen.getByRole('button'));
    press('c', screen.getByLabelText('level'));
    press('c', screen.getByRole('gridcell'));
    expect(did).toEqual(['clean', 'clean', 'clean']);
  });

  test('where single keys are switched off, the letter does nothing and space goes on', () => {
    render(<Page letterKeys={false} />);
    press('c');
    press(' ');
    expect(did).toEqual(['toggle']);
  });

  test('a tap on a wide screen says nothing of a round', () => {
    render(<Page />);
    fireEvent.click(screen.getByText('elsewhere'));
    expect(did).toEqual([]);
  });
});

describe('the tempo', () => {
  const model = modelOf(FIRST_STATE, DEFAULT_SETTINGS);
  const { log } = drilled(model, AT_FIRST)!;
  const round = (tempo: number, clean: boolean) => ({
    id: String(tempo),
    at: '2026-06-01T20:00:00.000Z',
    day: '2026-06-01',
    ms: 60_000,
    on: null,
    note: '',
    drill: log!.drill,
    shape: log!.shape,
    perBeat: log!.perBeat,
    name: log!.name,
    tempo,
    clean,
  });
  let setting: (tempo: number) => Pick<PracticeParams, 'tempo' | 'setFor'>;
  function Tempo({ params, of = log }: { params: PracticeParams; of?: RoundQuery | null }) {
    const now = useTempo(params, of);
    ({ setting } = now);
    return <output>{now.tempo}</output>;
  }
  const at = async (params: Partial<PracticeParams>, practised: Practised): Promise<string | null> => {
    const network = handNetwork(({ path }) => (path === '/practice' ? { body: practised } : undefined));
    const { unmount } = shown(<Tempo params={{ ...AT_FIRST, ...params }} />, { store: storeOf({ network }) });
    await follows();
    const { textContent } = screen.getByRole('status');
    unmount();
    return textContent;
  };
  const nothing: Practised = { best: null, rounds: [] };
  const clean = (...tempos: readonly number[]): Practised => ({
    best: Math.max(...tempos),
    rounds: tempos.map((t) => round(t, true)),
  });

  test('is what was played last, and for what has been practised where it is comfortable', async () => {
    expect(await at({ tempo: 96 }, nothing)).toBe('96');
    expect(Number(await at({ tempo: 96 }, clean(140)))).toBeLessThanOrEqual(140);
    expect(Number(await at({ tempo: 96 }, clean(140)))).toBeGreaterThan(96);
  });

  test('what the player set holds for what it was set for, and one of an address for anything', async () => {
    await at({}, nothing);
    const set = setting(88);
    expect(await at(set, clean(140))).toBe('88');
    expect(await at({ ...set, setFor: 'something else' }, clean(140))).not.toBe('88');
    expect(await at({ tempo: 88, setFor: '*' }, clean(140))).toBe('88');
  });

  test('stays a whole number from 30 to 300, whatever it is set to', async () => {
    await at({}, nothing);
    expect([12, 29.6, 90.4, 300.4, 9000, -5].map((to) => setting(to).tempo)).toEqual([
      30, 30, 90, 300, 300, 30,
    ]);
  });

  test('of what cannot be played nothing is asked', async () => {
    const network = handNetwork(() => undefined);
    shown(<Tempo params={AT_FIRST} of={null} />, { store: storeOf({ network }) });
    await act(follows);
    expect(network.asked.filter((a) => a.path === '/practice')).toEqual([]);
  });
});
