import { type Chord, type ChordGrip, gripOf, gripsHolding } from '@crow-ladder/core/chords';
import {
  degreeIndex,
  degreeName,
  mod,
  ok,
  pitchAt,
  placeId,
  pretty,
  type Refusal,
  refuse,
  type Result,
} from '@crow-ladder/core';
import { chordsHolding } from '@crow-ladder/core/overlays';
import { type AtHand, fromHand, parseGrip } from '@crow-ladder/core/ladder';
import { type Fingering, type Run } from '@crow-ladder/core/run';
import { type Layers, type Mark } from '@crow-ladder/picture';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { chordAsked, chordsOf, classesFrom, sourceOfChord, toneOf } from '../../model/chords.ts';
import { spotHead } from '../../model/describe.ts';
import { labelOf, marksOf, type Shown } from '../../model/marks.ts';
import { type Model, played } from '../../model/model.ts';
import { overMarks } from '../../model/overMarks.ts';
import { playedOver } from '../../model/progression.ts';
import { marked, wayLayers } from '../../model/way.ts';
import { FINGERS } from '../../model/wording.ts';
import { askedOf, type ChordParams } from './params.ts';

/** A chord as it is played, or why it cannot be. */
export type PlayedChord = Result<{ readonly fingering: Fingering; readonly run: Run }, Refusal>;
const playedFor = weakMapMemoize((model: Model, word: string): PlayedChord => {
  const source = sourceOfChord(model, JSON.parse(word) as ReturnType<typeof askedOf>);
  if (!source.ok) return source;
  return ok({ fingering: source.value.up, run: played(source.value.up) });
});
/** What is looked at, upward. */
export const playedChord = (model: Model, params: ChordParams): PlayedChord =>
  playedFor(model, JSON.stringify(askedOf(params)));

/** A grip in one word: its frets from the lowest string up, x where a string is not struck. */
export const gripWord = ({ places }: ChordGrip, strings: number): string =>
  Array.from({ length: strings }, (_, i) => places.find((p) => p.string === strings - i)?.fret ?? 'x').join(
    '.',
  );

const gripsFor = weakMapMemoize(
  ({ neck, hand }: Model, chord: Parameters<typeof classesFrom>[0]): readonly ChordGrip[] =>
    gripsHolding(neck, classesFrom(chord, 0), { spanMm: hand.spanMm ?? 0 }),
);
/** Every grip of the chord that is held, with the note in its bass that is asked for, those that are held most easily first. */
export function gripsOf(model: Model, params: ChordParams): readonly ChordGrip[] {
  const { chord } = chordAsked(model, askedOf({ ...params, view: 'hold' }))!;
  const all = gripsFor(model, chord);
  const lowest = params.bass === null ? null : classesFrom(chord, params.bass)[0];
  return all.filter(
    ({ bass, places }) =>
      (lowest === null || bass === lowest) && (params.strings === null || places.length === params.strings),
  );
}
/** The grip that is looked at; undefined where there is none. */
export const gripNow = (model: Model, params: ChordParams): ChordGrip | undefined => {
  const all = gripsOf(model, params);
  return (
    all.find((g) => gripWord(g, model.neck.open.length) === params.grip) ?? byRegion(model, all)[0]?.grips[0]
  );
};

/** A grip that is held, and the chords that its notes are, those on the note of its lowest string first. */
export interface Held {
  readonly grip: ChordGrip;
  readonly chords: readonly Chord[];
}
const ownFor = weakMapMemoize(({ neck }: Model, text: string): Result<Held, Refusal> => {
  const read = parseGrip(text, neck);
  if (!read.ok) return read;
  const places = read.value.held!;
  const grip = gripOf(neck, places);
  if (!grip)
    return refuse('grip.hand', 'No hand holds this: it asks for more fingers than four. Leave a note out.');
  const classes = places.map((p) => mod(pitchAt(neck, p.string, p.fret), 12));
  const chords = chordsHolding(classes).flatMap(({ chord, more }) => (more.length ? [] : [chord]));
  return ok({ grip, chords });
});
/** The grip that the player typed; null where there is none. Codes as of `parseGrip`, and `grip.hand`. */
export const ownHeld = (model: Model, { own }: ChordParams): Result<Held, Refusal> | null =>
  own.trim() ? ownFor(model, own) : null;
/** What is held: the player's own grip, else the one that is looked at of the chord; undefined where there is none. */
export function heldNow(model: Model, params: ChordParams): Held | undefined {
  const own = ownHeld(model, params);
  if (own) return own.ok ? own.value : undefined;
  const grip = gripNow(model, params);
  return grip && { grip, chords: [chordAsked(model, askedOf({ ...params, view: 'hold' }))!.chord] };
}

/** The positions around a grip, those first that share most with it and lie nearest. */
export function positionsAround({ positions }: Model, { places, frets }: ChordGrip): readonly AtHand[] {
  const strings = places.map((p) => p.string);
  const hand = { frets, strings: [Math.min(...strings), Math.max(...strings)] as const, held: places };
  return positions.ok ? fromHand(positions.value, hand).filter(({ shared }) => shared.length > 0) : [];
}

/** Frets of a region of the neck. */
const REGION = 4;
/** As many grips as are shown of a region. */
const LISTED = 4;
/** Grips by where they lie on the neck, the nut first, of each region those that are held most easily. */
export const byRegion = ({ neck }: Model, grips: readonly ChordGrip[]) =>
  Array.from({ length: Math.ceil(neck.frets / REGION) }, (_, i) => {
    const [from, to] = [i * REGION + 1, Math.min(neck.frets, (i + 1) * REGION)];
    const here = grips.filter(({ frets: [low] }) => Math.max(1, low) >= from && Math.max(1, low) <= to);
    return { from, to, many: here.length, grips: here.slice(0, LISTED) };
  }).filter(({ many }) => many > 0);

/** The chord on the neck: its notes in full with its root apart, counted from its root where degrees are said. */
export function scene(model: Model, params: ChordParams, shown: Shown): Partial<Layers> {
  if (params.view === 'changes') {
    const over = playedOver(model);
    const slot = over?.slots[Math.min(params.slot, over.slots.length - 1)];
    return { marks: slot && !shown.rootsOnly ? overMarks(model, slot, shown) : marksOf(model, shown) };
  }
  const one = chordAsked(model, askedOf(params));
  const held = params.view === 'hold' ? heldNow(model, params) : undefined;
  const chord = (params.view === 'hold' ? held?.chords[0] : one?.chord) ?? null;
  const label = (midi: number, plain: string): string => {
    const tone = chord ? toneOf(chord, midi) : -1;
    return chord && tone >= 0 && shown.labels === 'degree' ? pretty(degreeName(chord.degrees[tone]!)) : plain;
  };
  const said = (midi: number): string => {
    const tone = chord ? toneOf(chord, midi) : -1;
    return tone < 0
      ? ''
      : tone === 0
        ? ', the root of the chord'
        : `, ${pretty(degreeName(chord!.degrees[tone]!))} of the chord`;
  };
  const inChord = (mark: Mark): Mark => {
    const midi = pitchAt(model.neck, mark.string, mark.fret);
    if (mark.kind === 'outside' || mark.kind === 'outsideRoot') return mark;
    const isRoot = chord !== null && toneOf(chord, midi) === 0;
    return {
      ...mark,
      kind: isRoot && mark.kind === 'note' ? 'shared' : mark.kind,
      label: label(midi, mark.label),
      name: () => mark.name() + said(midi),
    };
  };
  if (params.view === 'hold') {
    const places = new Map((held?.grip.places ?? []).map((p) => [placeId(p), p]));
    const pressed = [...places.values()].map((p): Mark => {
      const midi = pitchAt(model.neck, p.string, p.fret);
      const degree = degreeIndex(model.key, midi);
      return inChord({
        string: p.string,
        fret: p.fret,
        kind: degree === 0 ? 'root' : 'note',
        label: labelOf(model, shown.labels, { degree, fret: p.fret, midi, finger: p.finger }),
        name: () => `${spotHead(model, p, () => null)}, ${FINGERS[p.finger]}`,
      });
    });
    // The notes of the chord in the position in front, where the hand does not hold them.
    const inFront = new Set((model.front?.position.held ?? []).map(placeId));
    const others = marked(model, shown, (spot) =>
      inFront.has(placeId(spot)) && chord && toneOf(chord, spot.midi) >= 0 ? 'upper' : null,
    ).filter((m) => !places.has(placeId(m)));
    return { marks: [...others.map(inChord), ...pressed] };
  }
  const now = playedChord(model, params);
  const layers = wayLayers(
    model,
    params.step,
    shown,
    now.ok ? now.value.fingering.steps : undefined,
    'chord',
  );
  if (!now.ok) return layers;
  // Of all chords in turn the way through the one that is looked at.
  const size = chordsOf(model, params.size)[0]!.tones.length;
  const at = params.step - (params.step % size);
  return {
    ...layers,
    marks: layers.marks!.map(inChord),
    ...(params.view === 'turn' && { path: layers.path!.slice(at, at + size) }),
  };
}
