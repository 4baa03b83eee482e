import { DEFAULT_SETTINGS, type Settings } from '@crow-ladder/contract';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { useCallback, useEffect } from 'react';
import { type Entry } from '../ports/outbox.ts';
import { server } from './api.ts';
import { said } from './notice.ts';
import { post } from './outbox.ts';
import { rebased } from './sending.ts';
import { type AppState, type AppWork, useApp, useSend } from './state.ts';
import { type Trouble } from './trouble.ts';

/** A change of the settings as they are by then. */
export type SettingsChange = (settings: Settings) => Partial<Settings>;

const selectRead = server.endpoints.settings.select();
const withWaiting = weakMapMemoize((settings: Settings, entries: readonly Entry[]): Settings =>
  entries.reduce(
    (is, { what }) => (what.kind === 'settings' ? { ...is, ...rebased(what.patch, is).to } : is),
    settings,
  ),
);
/** The settings as the player has them: those that were read, with what still waits to be sent. Until they are read the defaults hold. */
export const settingsIn = (state: Pick<AppState, 'server' | 'outbox'>): Settings =>
  withWaiting(selectRead(state).data ?? DEFAULT_SETTINGS, state.outbox.entries);

/**
 * Changes some of the settings once they were read: nothing is written from defaults that only stand in for them. Where one of them
 * was changed elsewhere meanwhile, the change is made again from what stands there: lists get both changes, and what can have one
 * value alone gets the player's, who is told.
 */
export const changeSettings =
  (change: SettingsChange): AppWork<Promise<void>> =>
  async (send, getState) => {
    if (!selectRead(getState()).data) {
      const reading = send(server.endpoints.settings.initiate());
      try {
        await reading.unwrap();
      } catch (trouble) {
        return void send(said({ text: (trouble as Trouble).message }));
      } finally {
        reading.unsubscribe();
      }
    }
    const is = settingsIn(getState());
    const to = change(is);
    const names = Object.keys(to) as (keyof Settings)[];
    const from = Object.fromEntries(names.map((name) => [name, is[name]])) as Partial<Settings>;
    await send(post({ kind: 'settings', patch: { from, to } }));
  };

/**
 * The player's settings, and a way to change some of them; where the server refuses that they are as they were, and the player is
 * told.
 */
export function useSettings(): readonly [Settings, (change: SettingsChange) => void] {
  server.useSettingsQuery();
  const settings = useApp(settingsIn);
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
