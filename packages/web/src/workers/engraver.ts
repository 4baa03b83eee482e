import { type Key } from '@crow-ladder/core';
import { type ScoreOptions, scoreOf } from '@crow-ladder/core/notation';
import { expose } from 'comlink';
import { drawScore, type DrawnScore } from '../notation/draw.ts';
import { type Drawable } from '../notation/page.ts';

/** A run that is to be written: in its key, from the bar of its beginning to that of its end. */
export interface Engraving extends Omit<Drawable, 'score'> {
  readonly inKey: Key;
  readonly as: ScoreOptions;
}

/** Writes and draws runs away from the page, which shows them in one go; `width` and `scale` as for `drawScore`. */
export interface Engraver {
  readonly draw: (it: Engraving, width: number, scale: number) => DrawnScore;
}
const engraver: Engraver = {
  draw: ({ inKey, as, ...it }, width, scale) =>
    drawScore({ ...it, score: scoreOf(it.run, inKey, as) }, width, scale),
};
expose(engraver);
