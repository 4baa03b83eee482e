import { type Instrument } from '../instrument.ts';
import { type Accidentals, note, noteName, pretty } from '../note.ts';
import { degreeName } from '../degree.ts';
import { layOut, type LayoutSpec } from '../layouts/index.ts';
import { lazily } from '../lazily.ts';
import { type Neck, neckOf } from '../neck.ts';
import { positionNames, usualSchool } from '../numbering.ts';
import { type Position, positionOf, type PositionRef } from '../position.ts';
import { ok, refuse, type Result } from '../result.ts';
import { accidentalsOf } from '../said.ts';
import { textId } from '../textId.ts';
import { resolveScale } from '../ownScale.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Fingered } from '../run/run.ts';
import { type Key, spellScale } from '../scale.ts';
import { positionSource } from '../sources/index.ts';

/** What is asked for, and where: by key, layout, position and instrument, so that it outlives the chart that it came from. */
export interface Card {
  readonly kind: string;
  /** Plain note name of the root, "F#", and id of the scale. */
  readonly root: string;
  readonly scale: string;
  readonly layout: LayoutSpec;
  readonly instrument: Instrument;
  readonly ref: PositionRef;
  /** What of it is asked, as its kind reads it: a degree by its index, a string by its number; empty where there is but one. */
  readonly of: string;
}

/** Where a card asks. */
export interface Ground {
  readonly neck: Neck;
  readonly key: Key;
  readonly positions: readonly Position[];
  readonly position: Position;
  /** What the positions are called. */
  readonly names: readonly string[];
  /** Names of the scale's notes and degrees, printed. */
  readonly notes: readonly string[];
  readonly degrees: readonly string[];
  readonly accidentals: Accidentals;
  /** The fingers of the position, from its lowest note up. */
  readonly steps: () => readonly Fingered[];
  readonly of: string;
}

/** A card's neck and key, with all positions of its layout. Codes: `asking.scale`; those of layouts. */
export function laidFor({
  root,
  scale,
  layout,
  instrument,
}: Pick<Card, 'root' | 'scale' | 'layout' | 'instrument'>): Result<
  Pick<Ground, 'neck' | 'key' | 'positions'>
> {
  const found = resolveScale(scale);
  if (!found.ok) return refuse('asking.scale', 'The scale of this card is not known.');
  const neck = neckOf(instrument);
  const key: Key = { root: note(root), scale: found.value };
  const positions = layOut(neck, key, layout);
  return positions.ok ? ok({ neck, key, positions: positions.value }) : positions;
}

/**
 * Where a card asks, with the player's hand. Codes: `asking.gone` where there is no such position on its neck; those of `laidFor`.
 *
 * @example groundOf(card, hand).value?.position.lowFret // 5
 */
export function groundOf(card: Omit<Card, 'kind'>, hand: HandOptions): Result<Ground> {
  const laid = laidFor(card);
  if (!laid.ok) return laid;
  const { neck, key, positions } = laid.value;
  const position = positionOf(positions, card.ref);
  if (!position) return refuse('asking.gone', 'The position of this card is not in its layout any more.');
  const notes = spellScale(key).map((n) => pretty(noteName(n)));
  return ok({
    ...laid.value,
    position,
    names: positionNames(positions, key, usualSchool(key.scale), card.layout).map(pretty),
    notes,
    degrees: key.scale.degrees.map((it) => pretty(degreeName(it))),
    accidentals: accidentalsOf(notes, 'flats'),
    steps: lazily(() => positionSource(neck, position, hand).up.steps),
    of: card.of,
  });
}

/**
 * The id of a card: two that ask the same of the same neck have the same one.
 *
 * @example cardId(card).length // 14
 */
export function cardId({ kind, root, scale, layout, instrument, ref, of }: Card): string {
  const { tuning, frets, capo } = instrument;
  const options = Object.entries(layout).sort(([a], [b]) => a.localeCompare(b));
  const text = JSON.stringify([
    kind,
    root,
    scale,
    options,
    tuning,
    frets,
    capo,
    ref.start,
    ref.low,
    ref.nth,
    of,
  ]);
  return textId(text);
}
