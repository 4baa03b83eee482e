import { type Remote, wrap } from 'comlink';
import type { Engraver, Engraving } from '../workers/engraver.ts';
import type { DrawnScore } from './draw.ts';

/** The engraver of this page, made when something is written first; and what it is at. */
let engraver: { readonly remote: Remote<Engraver>; readonly failed: Promise<never> } | null = null;
let atWork: Promise<unknown> = Promise.resolve();

function engraverNow(): NonNullable<typeof engraver> {
  if (engraver) return engraver;
  const worker = new Worker(new URL('../workers/engraver.ts', import.meta.url), { type: 'module' });
  const failed = new Promise<never>((_, fail) => {
    worker.onerror = () => {
      engraver = null;
      fail(new Error('What draws notation could not be loaded.'));
    };
  });
  failed.catch(() => undefined);
  return (engraver = { remote: wrap<Engraver>(worker), failed });
}

/** Has a run drawn; null where it was not wanted any more when its turn came. */
export function engraved(
  it: Engraving,
  width: number,
  scale: number,
  wanted: () => boolean,
): Promise<DrawnScore | null> {
  const done = atWork.then(() => {
    if (!wanted()) return null;
    const { remote, failed } = engraverNow();
    return Promise.race([remote.draw(it, width, scale), failed]);
  });
  atWork = done.catch(() => undefined);
  return done;
}
