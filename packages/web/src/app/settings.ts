import { DEFAULT_SETTINGS, type Settings } from '@crow-ladder/contract';
import { useCallback, useEffect } from 'react';
import { server, type Trouble } from './api.ts';
import { said } from './notice.ts';
import { type Store, useSend } from './store.ts';

type Work = (send: Store['dispatch']) => Promise<void>;

/** A change of the settings as they are by then. */
export type SettingsChange = (settings: Settings) => Partial<Settings>;

/** How often a change that met another one is made anew. */
const TRIES = 5;
/** The settings, as they are shown, with some of them as they are to be. */
const shownAs = (to: Partial<Settings>) =>
  server.util.updateQueryData('settings', undefined, (now) => ({ ...now, ...to }));

/**
 * Changes some of the settings once they were read: nothing is written from defaults that only stand in for them. Where one of them
 * was changed elsewhere meanwhile, the change is made again from what stands there: lists get both changes, and what can have one
 * value alone gets the player's, who is told.
 */
export const changeSettings =
  (change: SettingsChange): Work =>
  async (send) => {
    const reading = send(server.endpoints.settings.initiate());
    try {
      let settings = await reading.unwrap();
      for (let tries = 0; ; tries++) {
        const is = settings;
        const to = change(is);
        const names = Object.keys(to) as (keyof Settings)[];
        const from = Object.fromEntries(names.map((name) => [name, is[name]])) as Partial<Settings>;
        // Shown at once; taken back if the server refuses.
        send(shownAs(to));
        const done = await send(server.endpoints.changeSettings.initiate({ from, to }));
        if (!done.error) {
          const over = tries > 0 && names.some((name) => !Array.isArray(to[name]));
          if (over) send(said({ text: 'This setting was changed elsewhere as well; yours stands now.' }));
          return;
        }
        const trouble = done.error as Trouble<Settings>;
        send(shownAs(trouble.current ?? from));
        if (!trouble.current || tries === TRIES) return void send(said({ text: trouble.message }));
        settings = trouble.current;
      }
    } catch (trouble) {
      // They could not be read.
      send(said({ text: (trouble as Trouble).message }));
    } finally {
      reading.unsubscribe();
    }
  };

/**
 * The player's settings, and a way to change some of them; where that fails they are as they were, and the player is told.
 * Until they are read the defaults hold.
 */
export function useSettings(): readonly [Settings, (change: SettingsChange) => void] {
  const settings = server.useSettingsQuery().data ?? DEFAULT_SETTINGS;
  const send = useSend();
  const change = useCallback((part: SettingsChange) => void send(changeSettings(part)), [send]);
  return [settings, change];
}

/** A list of ids with one more, or without it where it stands there already. */
export const toggled = (ids: readonly string[], id: string): readonly string[] =>
  ids.includes(id) ? ids.filter((i) => i !== id) : [id, ...ids];

/** Puts the chosen theme on the page; the last one is remembered so that the page does not flash on the next visit. */
export function useTheme(theme: Settings['theme']): void {
  useEffect(() => {
    const dark = window.matchMedia('(prefers-color-scheme: dark)');
    const apply = (): void => {
      document.documentElement.dataset['theme'] =
        theme === 'system' ? (dark.matches ? 'stage' : 'paper') : theme;
    };
    apply();
    dark.addEventListener('change', apply);
    return () => dark.removeEventListener('change', apply);
  }, [theme]);
}
