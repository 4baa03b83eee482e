import { type ChartState, isScaleLaid, type ScaleLaid } from '@crow-ladder/contract';
import {
  chooseRoot,
  degreeIndex,
  type Key,
  mod,
  pitchAt,
  pitchClass,
  type Place,
  resolveScale,
  type Scale,
  spellScale,
} from '@crow-ladder/core';
import {
  overlayOf,
  type PositionChange,
  positionChange,
  type ScaleOverlay,
  withDegreeMoved,
} from '@crow-ladder/core/overlays';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';
import { type Change } from './moves.ts';

/** A second scale over the chart's. */
export interface Laid {
  readonly part: ScaleLaid;
  readonly overlay: ScaleOverlay;
  /** What changes of the position in front; null where there is none. */
  readonly here: PositionChange | null;
}

/** A scale whose root lies some half steps above that of a key, named as the key names it. */
export function keyAbove(key: Key, scale: Scale, above: number): Key {
  const pc = mod(pitchClass(key.root) + above, 12);
  const named = spellScale(key)[degreeIndex(key, pc)];
  const isPlain = named && Math.abs(named.alteration) < 2;
  return { root: isPlain ? named : chooseRoot(pc, scale).root, scale };
}

/** What is laid over a chart; null where nothing is. */
export const laidOver = weakMapMemoize((model: Model): Laid | null => {
  const { state, neck, key, front } = model;
  const part = state.overlays.find(isScaleLaid);
  if (!part) return null;
  const scale = resolveScale(part.scale);
  if (!scale.ok) return null;
  const overlay = overlayOf(key, keyAbove(key, scale.value, part.above));
  return { part, overlay, here: front && positionChange(neck, front.position, overlay) };
});

/** The scale whose degrees are altered one by one: the one laid over where it came of the chart's by that, else the chart's. */
export function alteringOf(model: Model): Scale {
  const laid = laidOver(model);
  const { scale } = laid?.overlay.second ?? model.key;
  return laid?.part.above === 0 && scale.degrees.length === model.scale.degrees.length ? scale : model.scale;
}
/** A degree of it a half step higher or lower, laid over the chart; null where that note is in the scale already. */
export function withAltered(model: Model, degree: number, by: 1 | -1): Change | null {
  const scale = withDegreeMoved(alteringOf(model), degree, by);
  if (!scale) return null;
  const isBack = String(scale.offsets) === String(model.scale.offsets);
  return (state) => withLaid(state, isBack ? null : { scale: scale.id, above: 0 });
}
/** The degree of it that is altered at a place; −1 where there is none: a note that was replaced is the one that took its place. */
export function alteredAt(model: Model, place: Place): number {
  const midi = pitchAt(model.neck, place.string, place.fret);
  const is = degreeIndex({ root: model.key.root, scale: alteringOf(model) }, midi);
  return is >= 0 ? is : degreeIndex(model.key, midi);
}

/** A third scale, which is compared in words alone; null where there is none. */
export const thirdOver = weakMapMemoize((model: Model): ScaleOverlay | null => {
  const part = model.state.overlays.filter(isScaleLaid)[1];
  const scale = part && resolveScale(part.scale);
  return scale?.ok ? overlayOf(model.key, keyAbove(model.key, scale.value, part!.above)) : null;
});

type LaidAt = Pick<ScaleLaid, 'scale' | 'above'>;
/** A chart with these scales laid over it, the first one on the neck; what else is laid over it stays. */
const withScales = (state: ChartState, scales: readonly (LaidAt | undefined)[]): ChartState => ({
  ...state,
  overlays: [
    ...scales.flatMap((laid) =>
      laid ? [{ type: 'scale', scale: laid.scale, above: laid.above } as const] : [],
    ),
    ...state.overlays.filter((overlay) => !isScaleLaid(overlay)),
  ],
});
/** Another scale laid over a chart in place of the one that was; null takes it away, and a third one with it. */
export const withLaid = (state: ChartState, laid: LaidAt | null): ChartState =>
  withScales(state, laid ? [laid, state.overlays.filter(isScaleLaid)[1]] : []);
/** A third scale beside the one laid over a chart; null takes it away. */
export const withThird = (state: ChartState, third: LaidAt | null): ChartState =>
  withScales(state, [state.overlays.find(isScaleLaid), third ?? undefined]);
