import { createSelector } from '@reduxjs/toolkit';
import { useCallback } from 'react';
import { server } from './api.ts';
import { post } from './outbox.ts';
import { withKnown } from './sending.ts';
import { type AppState, useApp, useSend } from './state.ts';

const NONE: readonly string[] = [];
const knownIn = createSelector(
  [server.endpoints.known.select(), (state: AppState) => state.outbox.entries],
  ({ data = NONE }, entries) =>
    entries.reduce(
      (all, { what }) => (what.kind === 'known' ? withKnown(all, what.shape, what.known) : all),
      data,
    ),
);

/** The shapes that the player knows, with what still waits to be sent, and a way to say of one that it is known or not. */
export function useKnown(): readonly [readonly string[], (shape: string, known: boolean) => void] {
  server.useKnownQuery();
  const known = useApp(knownIn);
  const send = useSend();
  const say = useCallback(
    (shape: string, is: boolean) => void send(post({ kind: 'known', shape, known: is }, `known:${shape}`)),
    [send],
  );
  return [known, say];
}
