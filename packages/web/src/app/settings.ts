import { DEFAULT_SETTINGS, type Settings } from '@crow-ladder/contract';
import { useCallback, useEffect } from 'react';
import { server, type Trouble } from './api.ts';
import { said, useSend } from './store.ts';

/**
 * The player's settings, and a way to change some of them; where that fails they are as they were, and the player is told.
 * Until they are read the defaults hold.
 */
export function useSettings(): readonly [Settings, (change: Partial<Settings>) => void] {
  const settings = server.useSettingsQuery().data ?? DEFAULT_SETTINGS;
  const [put] = server.useChangeSettingsMutation();
  const send = useSend();
  const change = useCallback(
    (part: Partial<Settings>) =>
      void put(part)
        .unwrap()
        .catch((trouble: Trouble) => send(said({ text: trouble.message }))),
    [put, send],
  );
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
