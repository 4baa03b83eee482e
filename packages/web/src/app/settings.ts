import { DEFAULT_SETTINGS, type Settings } from '@crow-ladder/contract';
import { useCallback, useEffect } from 'react';
import { server } from './api.ts';

/** The player's settings, and a way to change some of them. Until they are read the defaults hold. */
export function useSettings(): readonly [Settings, (change: Partial<Settings>) => Promise<void>] {
  const settings = server.useSettingsQuery().data ?? DEFAULT_SETTINGS;
  const [send] = server.useChangeSettingsMutation();
  const change = useCallback(
    async (part: Partial<Settings>) => {
      await send(part).unwrap();
    },
    [send],
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
