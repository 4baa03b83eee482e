import { mean, median } from '../arithmetic.ts';
import { lastingFrom, onGrid, type Tune } from '../phrases/index.ts';
import { QUARTER } from '../run/index.ts';
import { type HeardNote } from './listener.ts';

type Heard = Pick<HeardNote, 'at' | 'midi'>;

/** What the page sounds while a line is taken down: a moment in the same seconds, and its pitch, MIDI number. */
export interface OwnClick {
  readonly at: number;
  readonly midi: number;
}

/** A click comes back from a loudspeaker within so many seconds, each time by the same within this. */
const BACK = { within: 0.2, close: 0.02 };
/** What a click strikes again is softer than the note was, by so many dB at least. */
const SOFTER = 1;

/**
 * What was heard without the clicks that a loudspeaker gave back: those of their pitch, and, beside a string that rings, a softer
 * beginning of its note where the others came.
 *
 * @example withoutClicks([{ at: 0.03, midi: 93, cents: 0, level: -20 }], [{ at: 0, midi: 93 }]) // []
 */
export function withoutClicks(
  heard: readonly HeardNote[],
  clicks: readonly OwnClick[],
): readonly HeardNote[] {
  const since = (at: number): OwnClick | undefined =>
    clicks.findLast((click) => at >= click.at && at <= click.at + BACK.within);
  const isClick = ({ at, midi }: HeardNote): boolean => since(at)?.midi === midi;
  const lags = heard.filter(isClick).map(({ at }) => at - since(at)!.at);
  if (!lags.length) return heard;
  const lag = median(lags);
  const left: HeardNote[] = [];
  for (const note of heard) {
    if (isClick(note)) continue;
    const click = since(note.at);
    const before = left.at(-1);
    const struck =
      click &&
      Math.abs(note.at - click.at - lag) < BACK.close &&
      before?.midi === note.midi &&
      note.level < before.level - SOFTER;
    if (!struck) left.push(note);
  }
  return left;
}

/** The lengths of moments on a grid, with the pitches that were heard there. */
const tuneFrom = (heard: readonly Heard[], onsets: readonly number[], beats: number): Tune =>
  lastingFrom(onsets, beats).map(({ of, length }) => ({
    midi: of === null ? null : heard[of]!.midi,
    string: null,
    length,
  }));

/** How far moments lie from whole parts, on the whole, in parts: the direction of their mean on a circle. */
function offParts(moments: readonly number[], part: number): number {
  const turns = moments.map((at) => (2 * Math.PI * at) / part);
  return Math.atan2(mean(turns.map(Math.sin)), mean(turns.map(Math.cos))) / (2 * Math.PI);
}

/**
 * A line that was played to a click, put on parts of a grid in ticks, in bars of so many quarter notes. `beat` is a quarter note and `first` a
 * first beat of a bar, in seconds of what was listened to. What it is late by on the whole, as a device or a player is, is taken away, up to
 * half a part. Its first bar is the first one in which something was played.
 *
 * @example takenDown([{ at: 1.04, midi: 57 }, { at: 1.53, midi: 60 }], { beat: 1, first: 0 }, 480, 4).map((n) => n.length) // [960,480,480]
 */
export function takenDown(
  heard: readonly Heard[],
  { beat, first }: { readonly beat: number; readonly first: number },
  grid: number,
  beats: number,
): Tune {
  const part = (beat * grid) / QUARTER;
  const since = heard.map(({ at }) => at - first);
  const late = part * offParts(since, part);
  const bar = beats * beat;
  const begins = Math.floor((since[0]! - late) / bar) * bar;
  const moments = since.map((at) => (at - late - begins) * 1000);
  return tuneFrom(heard, onGrid(moments, beat * 1000, grid), beats);
}

/** Parts of a grid that are sought in a player's own time, in seconds, each so many times the one before. */
const PART = { least: 0.08, most: 1.5, step: 1.01, usual: 0.5 };
/** The shortest gap may be so much shorter than a part. */
const HASTY = 1.3;
/** A gap of one part more costs so much of a part: of two parts that fit, the longer one is meant. */
const MORE = 0.03;

/**
 * A line that was played in the player's own time, whose gaps are about whole parts of a grid in ticks, from a first beat on; and how long a
 * quarter note was, in seconds: that of which the parts come nearest to the gaps. Each gap counts by itself, so that who gets faster or slower is followed.
 *
 * @example takenFreely([0, 0.5, 1.1].map((at) => ({ at, midi: 57 })), 480, 4).tune.map((n) => n.length) // [480,480,960]
 */
export function takenFreely(
  heard: readonly Heard[],
  grid: number,
  beats: number,
): { readonly tune: Tune; readonly beat: number } {
  const gaps = heard.slice(1).map(({ at }, i) => at - heard[i]!.at);
  const partsOf = (part: number): readonly number[] => gaps.map((gap) => Math.max(1, Math.round(gap / part)));
  const most = Math.max(PART.least, Math.min(PART.most, HASTY * Math.min(...gaps)));
  let best = { part: PART.usual, cost: Infinity };
  for (let tried = PART.least; gaps.length && tried <= most; tried *= PART.step) {
    const parts = partsOf(tried);
    const part = median(gaps.map((gap, i) => gap / parts[i]!));
    const cost = mean(gaps.map((gap, i) => Math.abs(gap / part - parts[i]!))) + MORE * mean(parts);
    if (cost < best.cost) best = { part, cost };
  }
  let at = 0;
  const onsets = [0, ...partsOf(best.part).map((parts) => (at += parts * grid))];
  return {
    tune: heard.length ? tuneFrom(heard, onsets, beats) : [],
    beat: (best.part * QUARTER) / grid,
  };
}
