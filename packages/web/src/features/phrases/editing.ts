import { type ChartState } from '@crow-ladder/contract';
import { ok, type Place, refuse, type Refusal, type Result, spotSaid } from '@crow-ladder/core';
import {
  lengthAs,
  lengthSaid,
  type MovedBy,
  nextLength,
  noteMoved,
  onOtherString,
  PHRASE_LIMITS,
  type PhraseNote,
  placeOfNumber,
  type Stretch,
  withChanged,
  withNotes,
  withoutNotes,
  withTappedTimes,
} from '@crow-ladder/core/phrases';
import { BEND, type Bend, USUAL_VIBRATO } from '@crow-ladder/core/run';
import { type Model } from '../../model/model.ts';
import { inChart, type PhraseHere, withPhrase } from '../../model/phrases.ts';
import { USUAL_BEATS } from '../../model/progression.ts';
import { phraseNow } from './moved.ts';
import { type PhraseParams } from './params.ts';

type Notes = readonly PhraseNote[];

/** What a command makes of a phrase: its notes, where the cursor stands then, and what comes next; or why it does nothing. */
export type Edit = (it: {
  readonly model: Model;
  readonly notes: Notes;
  readonly params: PhraseParams;
}) => Result<{ readonly notes: Notes; readonly params: PhraseParams }>;

/** The stretch that a command means: what is marked, else the note under the cursor; empty before the first. */
export function stretchOf({ cursor, marked }: PhraseParams, many: number): Stretch {
  const at = Math.min(cursor, many - 1);
  if (marked === null) return at < 0 ? [0, 0] : [at, at + 1];
  const [from, to] = [Math.min(marked, at), Math.max(marked, at)];
  // What was undone since may leave less than was marked.
  return [Math.min(many, Math.max(0, from)), Math.min(many, to + 1)];
}

const NO_NOTE = (): Result<never> =>
  refuse('edit.none', 'The cursor stands before the first note: go on to one with the right arrow key.');

const inserted =
  (more: (it: Parameters<Edit>[0]) => Result<Notes>): Edit =>
  (it) => {
    const added = more(it);
    if (!added.ok) return added;
    const cursor = Math.min(it.params.cursor, it.notes.length - 1);
    const notes = withNotes(it.notes, cursor, added.value);
    if (!notes.ok) return notes;
    return ok({
      notes: notes.value,
      params: { ...it.params, cursor: cursor + added.value.length, marked: null },
    });
  };

/** Every note of the stretch changed; what one of them cannot be is said. */
const changed =
  (change: (note: PhraseNote, it: Parameters<Edit>[0]) => PhraseNote | null, why: string): Edit =>
  (it) => {
    const stretch = stretchOf(it.params, it.notes.length);
    if (stretch[0] === stretch[1]) return NO_NOTE();
    const notes = withChanged(it.notes, stretch, (note) => change(note, it));
    return notes ? ok({ notes, params: it.params }) : refuse('edit.cannot', why);
  };

const only = (note: PhraseNote, part: Partial<PhraseNote>): PhraseNote =>
  Object.fromEntries(
    Object.entries({ ...note, ...part }).filter(([, value]) => value !== undefined),
  ) as unknown as PhraseNote;

/** How a bend is gone through by its key: none, then farther, and none again. */
function nextBend(bend: Bend | undefined): Bend | undefined {
  if (!bend) return { by: 2, how: 'once', released: false };
  const order = [2, 1, 3, 1.5, BEND.least];
  const next = order[order.indexOf(bend.by) + 1];
  return next === undefined ? undefined : { ...bend, by: next };
}

const isHeldAt = (note: PhraseNote): boolean => note.at !== null && note.at.fret > 0 && note.joined !== 'tap';
const NOT_HELD = 'A rest, an open string and a tapped note cannot be bent or held with vibrato.';

/** What can be done to a phrase, each by a key. */
export const EDITS = {
  again: inserted(({ notes, params, model }) => {
    const at = notes[Math.min(params.cursor, notes.length - 1)]?.at ?? model.state.at;
    return ok([{ at, length: params.length }]);
  }),
  rest: inserted(({ params }) => ok([{ at: null, length: params.length }])),
  higher: move('step', 1),
  lower: move('step', -1),
  halfHigher: move('half', 1),
  halfLower: move('half', -1),
  octaveHigher: move('octave', 1),
  octaveLower: move('octave', -1),
  otherString: changed(
    (note, { model }) => (note.at ? onOtherString(model.neck, note) : note),
    'Its pitch lies on no other string of this neck.',
  ),
  longer: lengthChange((ticks) => nextLength(ticks, 1), 'There is no longer length.'),
  shorter: lengthChange((ticks) => nextLength(ticks, -1), 'There is no shorter length.'),
  dotted: lengthChange((ticks) => lengthAs(ticks, 'dotted'), 'This length cannot be dotted.'),
  triplet: lengthChange((ticks) => lengthAs(ticks, 'triplet'), 'This length is in no triplet.'),
  tied: changed(
    (note, { params }) =>
      note.length + params.length <= PHRASE_LIMITS.length[1]
        ? { ...note, length: note.length + params.length }
        : null,
    'A note lasts four whole notes at most.',
  ),
  slur: joinChange('slur'),
  slide: joinChange('slide'),
  tap: joinChange('tap'),
  bend: changed((note) => (isHeldAt(note) ? only(note, { bend: nextBend(note.bend) }) : null), NOT_HELD),
  release: changed(
    (note) => (note.bend ? { ...note, bend: { ...note.bend, released: !note.bend.released } } : null),
    'Only a bend is released: bend the note first.',
  ),
  slowly: changed(
    (note) =>
      note.bend
        ? { ...note, bend: { ...note.bend, how: note.bend.how === 'once' ? 'slowly' : 'once' } }
        : null,
    'Only a bend can be slow: bend the note first.',
  ),
  vibrato: changed(
    (note) => (isHeldAt(note) ? only(note, { vibrato: note.vibrato ? undefined : USUAL_VIBRATO }) : null),
    NOT_HELD,
  ),
  accent: changed((note) => only(note, { accent: note.accent ? undefined : true }), ''),
  finger: changed(
    (note) =>
      note.at && note.at.fret > 0
        ? only(note, { finger: note.finger === 4 ? undefined : (note.finger ?? 0) + 1 })
        : null,
    'A rest and an open string need no finger.',
  ),
  remove: (({ notes, params }) => {
    const stretch = stretchOf(params, notes.length);
    if (stretch[0] === stretch[1]) return NO_NOTE();
    return ok({
      notes: withoutNotes(notes, stretch),
      params: { ...params, cursor: stretch[0] - 1, marked: null },
    });
  }) as Edit,
  copy: (({ notes, params }) => {
    const [from, to] = stretchOf(params, notes.length);
    if (from === to) return NO_NOTE();
    return ok({ notes, params: { ...params, copied: notes.slice(from, to) } });
  }) as Edit,
  paste: inserted(({ params: { copied } }) =>
    copied.length ? ok(copied) : refuse('edit.paste', 'Nothing is copied yet: mark a stretch and copy it.'),
  ),
  repeat: (({ notes, params, ...it }) => {
    const [from, to] = stretchOf(params, notes.length);
    if (from === to) return NO_NOTE();
    return inserted(() => ok(notes.slice(from, to)))({ ...it, notes, params: { ...params, cursor: to - 1 } });
  }) as Edit,
} satisfies Readonly<Record<string, Edit>>;
export type EditName = keyof typeof EDITS;

function move(by: MovedBy, up: 1 | -1): Edit {
  return changed(
    (note, { model: { neck, key } }) => noteMoved({ neck, key }, note, by, up),
    `The neck ends there: no note is ${up > 0 ? 'higher' : 'lower'}.`,
  );
}
/** Another length of what is marked; before the first note, of the one that comes next. */
function lengthChange(to: (ticks: number) => number | null, why: string): Edit {
  const each = changed((note) => {
    const length = to(note.length);
    return length === null ? null : { ...note, length };
  }, why);
  return (it) => {
    const stretch = stretchOf(it.params, it.notes.length);
    if (stretch[0] === stretch[1]) {
      const length = to(it.params.length);
      return length === null
        ? refuse('edit.cannot', why)
        : ok({ notes: it.notes, params: { ...it.params, length } });
    }
    const done = each(it);
    if (!done.ok) return done;
    // What comes next is as long.
    const { length } = done.value.notes[stretch[1] - 1]!;
    return ok({ ...done.value, params: { ...done.value.params, length } });
  };
}
function joinChange(joined: NonNullable<PhraseNote['joined']>): Edit {
  return changed(
    (note) =>
      note.at &&
      only(note, {
        joined: note.joined === joined ? undefined : joined,
        ...(joined === 'tap' && { bend: undefined, vibrato: undefined }),
      }),
    'A rest is not played.',
  );
}

/** The note of the scale with a number after the cursor, nearest to the note there. */
export const numbered = (number: number): Edit =>
  inserted(({ model: { neck, key, state }, notes, params }) => {
    const near = notes.slice(0, params.cursor + 1).findLast(({ at }) => at)?.at ?? state.at;
    const place = placeOfNumber({ neck, key }, number, near);
    return place.ok ? ok([{ at: place.value, length: params.length }]) : place;
  });

/** Times that were tapped in, in ms, beats of so many ms, put on parts of so many ticks. */
export const tappedIn =
  (taps: readonly number[], beat: number, grid: number): Edit =>
  ({ model, notes, params }) => {
    const beats = phraseNow(model, params)?.here.phrase.beats ?? USUAL_BEATS;
    return ok({
      notes: withTappedTimes(notes, taps, beat, grid, beats),
      params: { ...params, cursor: -1, marked: null },
    });
  };

/** A length for what is marked, and for what comes next. */
export const lasting = (length: number): Edit => lengthChange(() => length, '');
/** What a note is, in any of its parts. */
export const withPart = (part: Partial<PhraseNote>): Edit => changed((note) => only(note, part), '');

/** Why a phrase cannot be changed here; null where it can: rests would be written where its notes are. */
export const closedTo = ({ way }: PhraseHere): string | null =>
  way.told.some(({ kind }) => kind === 'off')
    ? 'Some of its notes lie off this neck: change it on the instrument that it was made for, or keep it in another octave first.'
    : null;

/** What an edit makes of a chart; a refusal where it does nothing. */
export function edited(
  model: Model,
  params: PhraseParams,
  edit: Edit,
): Result<{ readonly state: ChartState; readonly params: PhraseParams }, Refusal> {
  const now = phraseNow(model, params);
  if (!now) return refuse('edit.none', 'This chart has no phrase: make one first.');
  const { at, here } = now;
  const closed = closedTo(here);
  if (closed) return refuse('edit.off', closed);
  const done = edit({ model, notes: here.notes, params });
  if (!done.ok) return done;
  const { notes } = done.value;
  return ok({
    state:
      notes === here.notes
        ? model.state
        : withPhrase(model.state, at, inChart(model, { ...here.phrase, notes })),
    params: done.value.params,
  });
}

/** A spot of the neck written after the cursor. */
export const writtenAt = ({ string, fret }: Place): Edit =>
  inserted(({ params }) => ok([{ at: { string, fret }, length: params.length }]));

/** What the cursor stands on, in words. */
export function cursorSaid(notes: Notes, { cursor, length }: PhraseParams): string {
  const at = Math.min(cursor, notes.length - 1);
  if (at < 0)
    return notes.length
      ? `Before the first of ${notes.length} notes. The next note is ${lengthSaid(length)}.`
      : 'No note yet.';
  const note = notes[at]!;
  const where = note.at ? spotSaid(note.at) : 'rest';
  return `Note ${at + 1} of ${notes.length}: ${where}, ${lengthSaid(note.length)}.`;
}
