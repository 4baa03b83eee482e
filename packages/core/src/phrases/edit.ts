import { mod } from '../arithmetic.ts';
import { type Neck, onNeck, pitchAt } from '../neck.ts';
import { type Place } from '../place.ts';
import { ok, refuse, type Result } from '../result.ts';
import { type Key } from '../scale.ts';
import { pitchOfStep, scaleStep } from './changes.ts';
import { PHRASE_LIMITS, type PhraseNote } from './phrase.ts';

type Notes = readonly PhraseNote[];
/** A stretch of notes: the first one, and the one after the last. */
export type Stretch = readonly [from: number, to: number];

/** Where a phrase is edited. */
export interface EditGround {
  readonly neck: Neck;
  readonly key: Key;
}

/** Another string counts as so many frets, where the nearest place of a pitch is looked for. */
const STRING_APART = 1.5;
/** A place that is taken from here without the hand moving counts less than one that is not; frets. */
const UNDER_HAND = 3;
/**
 * The place of a pitch that lies nearest to another place, on its string where that is as near; null where the neck has none.
 *
 * @example nearestPlace(neck, 52, { string: 6, fret: 8 }) // {"string":5,"fret":7}
 */
export function nearestPlace({ open, frets }: Neck, midi: number, near: Place): Place | null {
  const far = ({ string, fret }: Place): number => {
    const along = Math.abs(fret - near.fret);
    return along + Math.max(0, along - UNDER_HAND) + STRING_APART * Math.abs(string - near.string);
  };
  const places = open.flatMap((at, i): readonly Place[] =>
    midi - at >= 0 && midi - at <= frets ? [{ string: i + 1, fret: midi - at }] : [],
  );
  return places.sort((a, b) => far(a) - far(b))[0] ?? null;
}

/**
 * Notes with others after the one at `cursor` (−1: before the first). Code `phrase.many` where there would be more than 500.
 *
 * @example withNotes([{ at: null, length: 480 }], 0, [{ at: null, length: 960 }]).value.length // 2
 */
export const withNotes = (notes: Notes, cursor: number, more: Notes): Result<Notes> =>
  notes.length + more.length > PHRASE_LIMITS.notes
    ? refuse(
        'phrase.many',
        `A phrase has at most ${PHRASE_LIMITS.notes} notes and rests: keep it in two phrases.`,
      )
    : ok([...notes.slice(0, cursor + 1), ...more, ...notes.slice(cursor + 1)]);

/**
 * Notes without a stretch of them.
 *
 * @example withoutNotes([{ length: 480 }, { length: 960 }], [0, 1]).length // 1
 */
export const withoutNotes = (notes: Notes, [from, to]: Stretch): Notes => [
  ...notes.slice(0, from),
  ...notes.slice(to),
];

/**
 * Notes with a stretch of them changed, each by itself; null where one of them cannot be changed so.
 *
 * @example withChanged([{ length: 480 }], [0, 1], (n) => ({ ...n, length: 960 }))[0].length // 960
 */
export function withChanged(
  notes: Notes,
  [from, to]: Stretch,
  change: (note: PhraseNote) => PhraseNote | null,
): Notes | null {
  const changed = notes.slice(from, to).map(change);
  if (changed.includes(null)) return null;
  return [...notes.slice(0, from), ...(changed as PhraseNote[]), ...notes.slice(to)];
}

/** A note without what its new place does not bear. */
function placedAt({ bend, vibrato, ...note }: PhraseNote, at: Place): PhraseNote {
  const held = at.fret > 0 || note.joined === 'tap';
  return { ...note, at, ...(held && bend && { bend }), ...(held && vibrato && { vibrato }) };
}

/** By what a note is moved up or down. */
export type MovedBy = 'step' | 'half' | 'octave';
/**
 * A note higher or lower: by a step of the scale (from outside it to the next note of the scale), a half step or an octave, at the place of that pitch
 * that lies nearest. A rest stays; null where the neck has no such pitch.
 *
 * @example noteMoved({ neck, key: A }, { at: { string: 6, fret: 5 }, length: 480 }, 'step', 1).at // {"string":6,"fret":8}
 */
export function noteMoved(
  { neck, key }: EditGround,
  note: PhraseNote,
  by: MovedBy,
  up: 1 | -1,
): PhraseNote | null {
  if (!note.at) return note;
  const midi = pitchAt(neck, note.at.string, note.at.fret);
  const { step, off } = scaleStep(key, midi);
  const next = up > 0 || off === 0 ? step + up : step;
  const to = by === 'step' ? pitchOfStep(key, { step: next, off: 0 }) : midi + up * (by === 'half' ? 1 : 12);
  const place = nearestPlace(neck, to, note.at);
  return place && placedAt(note, place);
}

/**
 * A note at the next place of its pitch, on strings with rising numbers and round again; null where it has no other.
 *
 * @example onOtherString(neck, { at: { string: 2, fret: 5 }, length: 480 }).at // {"string":3,"fret":9}
 */
export function onOtherString(neck: Neck, note: PhraseNote): PhraseNote | null {
  if (!note.at) return null;
  const midi = pitchAt(neck, note.at.string, note.at.fret);
  const many = neck.open.length;
  for (let by = 1; by < many; by++) {
    const string = mod(note.at.string - 1 + by, many) + 1;
    const fret = midi - neck.open[string - 1]!;
    if (onNeck(neck, string, fret)) return placedAt(note, { string, fret });
  }
  return null;
}

/**
 * Where the note of the scale with a number is taken that lies nearest in pitch to a place; of two as near the higher one. Codes `phrase.number` where the
 * scale has no such number, `phrase.off` where the neck has no such note.
 *
 * @example placeOfNumber({ neck, key: A }, 5, { string: 6, fret: 5 }).value // {"string":6,"fret":0}
 */
export function placeOfNumber({ neck, key }: EditGround, number: number, near: Place): Result<Place> {
  const indices = key.scale.degrees.flatMap((d, i) => (d.number === number ? [i] : []));
  if (!indices.length) return refuse('phrase.number', `This scale has no ${number}.`);
  const from = pitchAt(neck, near.string, near.fret);
  const size = key.scale.offsets.length;
  const { step } = scaleStep(key, from);
  const octave = Math.floor(step / size);
  const pitches = indices.flatMap((i) =>
    [-1, 0, 1].map((by) => pitchOfStep(key, { step: (octave + by) * size + i, off: 0 })),
  );
  const places = pitches
    .sort((a, b) => Math.abs(a - from) - Math.abs(b - from) || b - a)
    .flatMap((midi) => nearestPlace(neck, midi, near) ?? []);
  return places[0] ? ok(places[0]) : refuse('phrase.off', `The ${number} lies nowhere on this neck.`);
}
