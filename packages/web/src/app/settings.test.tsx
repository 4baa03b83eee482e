/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, type Settings, type SettingsPatch } from '@crow-ladder/contract';
import { act, fireEvent, screen } from '@testing-library/react';
import { follows, handNetwork, refusal, settled, shown, storeOf, type Answer } from '../../test/world.tsx';
import { server } from './api.ts';
import { changeSettings, settingsIn, toggled, useSettings, useTheme } from './settings.ts';

/** Settings on a server, where another one can change them; `refuses` answers instead of it. */
function library(begin: Partial<Settings> = {}, refuses: () => Answer | undefined = () => undefined) {
  let is: Settings = { ...DEFAULT_SETTINGS, ...begin };
  const patches: SettingsPatch[] = [];
  const network = handNetwork(({ method, body }) => {
    if (method === 'GET') return { body: is };
    const patch = body as SettingsPatch;
    patches.push(patch);
    const no = refuses();
    if (no) return no;
    const moved = Object.entries(patch.from).some(
      ([name, value]) => JSON.stringify(is[name as keyof Settings]) !== JSON.stringify(value),
    );
    if (moved) return refusal(409, 'conflict', { current: is });
    is = { ...is, ...patch.to };
    return { body: is };
  });
  const store = storeOf({ network });
  const seen = (): Settings => settingsIn(store.getState());
  return {
    store,
    patches,
    network,
    is: () => is,
    elsewhere: (part: Partial<Settings>) => (is = { ...is, ...part }),
    seen,
    told: () => store.getState().notice?.text ?? '',
  };
}

test('a change names what it was made from, and what another one changed stays', async () => {
  const { store, patches, is, elsewhere, told } = library();
  await store.dispatch(server.endpoints.settings.initiate());
  elsewhere({ spanMm: 95 });
  await store.dispatch(changeSettings(() => ({ theme: 'stage' })));
  expect(patches).toEqual([{ from: { theme: 'system' }, to: { theme: 'stage' } }]);
  expect(is()).toMatchObject({ theme: 'stage', spanMm: 95 });
  expect(told()).toBe('');
});

test('a setting is shown as it was chosen at once, and as it was where the server refuses it, with the reason', async () => {
  let answer: (a: Answer) => void = () => undefined;
  const network = handNetwork(({ method }) =>
    method === 'GET' ? { body: DEFAULT_SETTINGS } : new Promise<Answer>((done) => (answer = done)),
  );
  const store = storeOf({ network });
  const seen = () => settingsIn(store.getState()).theme;
  await store.dispatch(server.endpoints.settings.initiate());
  const changing = store.dispatch(changeSettings(() => ({ theme: 'stage' })));
  await settled();
  expect(seen()).toBe('stage');
  answer(refusal(422, 'invalid'));
  await changing;
  expect(seen()).toBe('system');
  expect(store.getState().notice?.text).toBe('Refused: invalid.');
  expect(store.getState().outbox.entries).toEqual([]);
});

test('two changes of a list both stand, without a word', async () => {
  const { store, is, elsewhere, told, patches } = library({ favourites: ['dorian'] });
  await store.dispatch(server.endpoints.settings.initiate());
  elsewhere({ favourites: ['major', 'dorian'] });
  await store.dispatch(changeSettings(({ favourites }) => ({ favourites: toggled(favourites, 'lydian') })));
  expect(is().favourites).toEqual(['lydian', 'major', 'dorian']);
  expect(patches).toHaveLength(2);
  expect(told()).toBe('');
});

test('of what has one value alone the player’s stands, who is told', async () => {
  const { store, is, elsewhere, seen, told } = library();
  await store.dispatch(server.endpoints.settings.initiate());
  elsewhere({ theme: 'paper' });
  await store.dispatch(changeSettings(() => ({ theme: 'stage' })));
  expect([is().theme, seen().theme]).toEqual(['stage', 'stage']);
  expect(told()).toBe('This setting was changed elsewhere as well; yours stands now.');
});

test('a change that meets another one again and again gives up, shows what stands there, and says why', async () => {
  let n = 0;
  const { store, patches, seen, told } = library({}, () =>
    refusal(409, 'conflict', { current: { ...DEFAULT_SETTINGS, spanMm: 90 + ++n } }),
  );
  await store.dispatch(changeSettings(() => ({ spanMm: 120 })));
  expect(patches).toHaveLength(6);
  expect(patches.at(-1)).toEqual({ from: { spanMm: 95 }, to: { spanMm: 120 } });
  expect(seen().spanMm).toBe(96);
  expect(told()).toBe('Refused: conflict.');
});

test('nothing is written from defaults: where settings cannot be read none is changed', async () => {
  const network = handNetwork(() => refusal(503, 'busy'));
  const store = storeOf({ network });
  await store.dispatch(changeSettings(() => ({ theme: 'stage' })));
  expect(network.asked.map((a) => a.method)).toEqual(['GET']);
  expect(store.getState().notice?.text).toBe('Refused: busy.');
});

test('a list gains an id at its front, and loses one that it has', () => {
  expect(toggled(['b'], 'a')).toEqual(['a', 'b']);
  expect(toggled(['a', 'b', 'c'], 'b')).toEqual(['a', 'c']);
});

test('the page takes its theme from the settings, and from the system where they leave it to that', async () => {
  let dark = false;
  const listeners = new Set<() => void>();
  window.matchMedia = () =>
    ({
      get matches() {
        return dark;
      },
      addEventListener: (_: string, work: () => void) => listeners.add(work),
      removeEventListener: (_: string, work: () => void) => listeners.delete(work),
    }) as unknown as MediaQueryList;
  function Themed() {
    const [{ theme }, change] = useSettings();
    useTheme(theme);
    return <button onClick={() => change(() => ({ theme: 'paper' }))}>{theme}</button>;
  }
  const { store } = library();
  const theme = () => document.documentElement.dataset['theme'];
  const { unmount } = shown(<Themed />, { store });
  await follows();
  expect(theme()).toBe('paper');
  dark = true;
  act(() => listeners.forEach((work) => work()));
  expect(theme()).toBe('stage');
  fireEvent.click(screen.getByRole('button', { name: 'system' }));
  await follows();
  expect([screen.getByRole('button').textContent, theme()]).toEqual(['paper', 'paper']);
  unmount();
  expect(listeners.size).toBe(0);
});
