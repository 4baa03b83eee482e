import { type Settings } from '@crow-ladder/contract';
import {
  chooseRoot,
  type Key,
  type Neck,
  type Place,
  placeId,
  type Scale,
  scaleById,
} from '@crow-ladder/core';
import { rootSpots } from '@crow-ladder/core/ladder';
import { type FourthsWindow, fourthsWindow, judgeWindow, type WindowFault } from '@crow-ladder/core/moves';

/** A drill under way: what is asked, the spots that were placed, and what was said of them. */
export interface Drilled {
  /** The neck that it was asked on: on another one it is over. */
  readonly neck: Neck;
  readonly key: Key;
  readonly window: FourthsWindow;
  readonly placed: readonly Place[];
  /** What is wrong with what was placed when it was last judged; null where it was changed since. */
  readonly faults: readonly WindowFault[] | null;
  readonly clock: boolean;
  /** When it was asked, in ms, and how many seconds it took; null while it is not right. */
  readonly began: number;
  readonly took: number | null;
}

/** What is drilled beside the chart's own scale. */
const SCALES = ['minor-pentatonic', 'major-pentatonic', 'dorian', 'mixolydian'] as const;
const TRIES = 60;

/** A key, a scale and a root string by chance, with a window that lies on the neck, begun `now` (in ms); `chance` gives numbers from 0 up to 1. */
export function drilledNext(
  neck: Neck,
  own: Scale,
  prefer: Settings['spelling'],
  clock: boolean,
  now: number,
  chance: () => number = Math.random,
): Drilled | null {
  const scales = [own, ...SCALES.flatMap((id) => scaleById(id) ?? []).filter((s) => s.id !== own.id)];
  const any = <T>(all: readonly T[]): T | undefined => all[Math.floor(chance() * all.length)];
  // Some keys have no room for the window on a neck; another one is tried then.
  for (let tries = 0; tries < TRIES; tries++) {
    const scale = any(scales)!;
    const key: Key = { root: chooseRoot(Math.floor(chance() * 12), scale, prefer).root, scale };
    const anchor = any(rootSpots(neck, key));
    const window = anchor && fourthsWindow(neck, key, anchor, Math.floor(chance() * 3));
    if (window?.ok)
      return {
        neck,
        key,
        window: window.value,
        placed: [],
        faults: null,
        clock,
        began: now,
        took: null,
      };
  }
  return null;
}

/** The drill that is under way on a neck, null where there is none. */
export const drillOn = (neck: Neck, drill: Drilled | null): Drilled | null =>
  drill?.neck === neck ? drill : null;

/** A spot placed, or taken away where it was placed before. */
export function withPlaced(it: Drilled, place: Place): Drilled {
  const rest = it.placed.filter((p) => placeId(p) !== placeId(place));
  return { ...it, faults: null, placed: rest.length < it.placed.length ? rest : [...it.placed, place] };
}

/** What was placed, judged `now` (in ms); the seconds stop when it is right for the first time. */
export function judged(it: Drilled, now: number): Drilled {
  const faults = judgeWindow(it.window, it.placed);
  const seconds = Math.round((now - it.began) / 1000);
  return { ...it, faults, took: it.took ?? (faults.length ? null : seconds) };
}
