import { DEFAULT_SETTINGS, FIRST_STATE, isPhrase, type KeptPhrase } from '@crow-ladder/contract';
import { readDocument } from '@crow-ladder/contract/schemas';
import { DEFAULT_INSTRUMENT, type Instrument, TUNINGS } from '@crow-ladder/core';
import { type PhraseNote } from '@crow-ladder/core/phrases';
import fc from 'fast-check';
import { drawn } from '../../../../../scripts/thorough.ts';
import { modelOf } from '../../model/model.ts';
import { withRoot } from '../../model/moves.ts';
import { inChart, phraseHere, phrasesOf, withPhrase } from '../../model/phrases.ts';
import { edited, type EditName, EDITS, numbered, writtenAt } from './editing.ts';
import { keptThere, movedTo, phraseNow, placesNow, workId, workOf } from './moved.ts';
import { AT_FIRST, params as codec, type PhraseParams, TURNS, VIEWS } from './params.ts';
import { noteOverSaid, overNow, startSaid } from './over.ts';
import { scene } from './scene.ts';
import { placedLot } from '../../workers/placed.ts';

const SHOWN = { labels: 'degree', rootsOnly: false, colours: 'plain' } as const;
const model = (instrument: Partial<Instrument> = {}, root = 'A', scale = 'minor-pentatonic') =>
  modelOf(
    withRoot(
      {
        ...FIRST_STATE,
        key: { root, scale },
        at: { string: 1, fret: 0 },
        layout: { kind: 'count', counts: [2] },
        instrument: { ...DEFAULT_INSTRUMENT, ...instrument },
      },
      root,
    ),
    DEFAULT_SETTINGS,
  );
const at = (string: number, fret: number, more: Partial<PhraseNote> = {}): PhraseNote => ({
  at: { string, fret },
  length: 480,
  ...more,
});
const made = (on: ReturnType<typeof model>, notes: readonly PhraseNote[]): KeptPhrase =>
  inChart(on, { name: 'Lick', tags: [], beats: 4, notes });
const holding = (on: ReturnType<typeof model>, notes: readonly PhraseNote[]) =>
  modelOf(withPhrase(on.state, null, made(on, notes)), DEFAULT_SETTINGS);

test('whatever is done to a phrase by keys leaves one that is kept, written, shown and read again', () => {
  const names = Object.keys(EDITS) as EditName[];
  const act = fc.oneof(
    { weight: 5, arbitrary: fc.constantFrom(...names) },
    fc.integer({ min: 1, max: 7 }),
    fc.record({ string: fc.integer({ min: 1, max: 3 }), fret: fc.nat(20) }),
    fc.record({ cursor: fc.integer({ min: -1, max: 9 }), marked: fc.option(fc.nat(9)) }),
  );
  let done = 0;
  fc.assert(
    fc.property(fc.constantFrom(...TUNINGS), fc.array(act, { maxLength: 30 }), (tuning, acts) => {
      let now = holding(model({ tuning: tuning.tuning }), [at(1, 5)]);
      let params: PhraseParams = { ...AT_FIRST, cursor: 0 };
      for (const it of acts) {
        if (typeof it === 'object' && 'cursor' in it) {
          params = { ...params, ...it };
          continue;
        }
        const edit =
          typeof it === 'string' ? EDITS[it] : typeof it === 'number' ? numbered(it) : writtenAt(it);
        const after = edited(now, params, edit);
        if (!after.ok) {
          expect(after.error.message).not.toBe('');
          continue;
        }
        done++;
        const read = readDocument(JSON.parse(JSON.stringify(after.value.state)));
        if (!read.ok) throw new Error(`${JSON.stringify(it)}: ${read.error.field} ${read.error.message}`);
        now = modelOf(after.value.state, DEFAULT_SETTINGS);
        params = after.value.params;
        const { here } = phraseNow(now, params)!;
        expect(here.notes.map(({ at: place, length }) => [place, length])).toEqual(
          here.phrase.notes.map(({ at: place, length }) => [place, length]),
        );
        expect(scene(now, params, SHOWN, DEFAULT_SETTINGS).marks!.length).toBeGreaterThan(0);
      }
    }),
    { numRuns: drawn(400) },
  );
  expect(done).toBeGreaterThan(drawn(800));
});

const LICK = [
  at(3, 8, { bend: { by: 2, how: 'once', released: false } }),
  at(2, 6),
  at(1, 6, { joined: 'slide' }),
];

test('a phrase goes with the key, the shorter way on its strings, an octave away where the neck ends, and to another tuning by its pitches', () => {
  const home = model({}, 'Bb');
  const phrase = made(home, LICK);
  const frets = (on: ReturnType<typeof model>) =>
    phraseHere(on, phrase).way.run.map(({ spot }) => [spot.string, spot.fret]);
  expect(frets(home)).toEqual([
    [3, 8],
    [2, 6],
    [1, 6],
  ]);
  expect(frets(model({}, 'D'))).toEqual([
    [3, 12],
    [2, 10],
    [1, 10],
  ]);
  expect(frets(model({}, 'F'))).toEqual([
    [3, 3],
    [2, 1],
    [1, 1],
  ]);
  // Six half steps down would end below the nut.
  expect(frets(model({}, 'E'))).toEqual([
    [3, 14],
    [2, 12],
    [1, 12],
  ]);
  const other = model({ tuning: [38, 45, 50, 55, 57, 62] }, 'Bb');
  const pitches = (on: ReturnType<typeof model>) =>
    phraseHere(on, phrase).way.run.map(({ spot }) => spot.midi);
  expect(pitches(other)).toEqual(pitches(home));
  expect(pitches(model({ tuning: [28, 33, 38, 43], wound: 4 }, 'Bb')).length).toBeLessThanOrEqual(3);
});

test('a place that notes fall off of is not offered beside one that holds them all', () => {
  const high = holding(model({}, 'Bb'), [at(1, 18), at(1, 20), at(4, 0)]);
  const { here } = phraseNow(high, AT_FIRST)!;
  const params: PhraseParams = { ...AT_FIRST, view: 'key', root: 'Bb' };
  const moved = movedTo(high, DEFAULT_SETTINGS, here, params);
  const work = workOf(moved)!;
  const ways = work.lots.map((lot) => placedLot(work.ground, lot));
  expect(ways.flat().some(({ told }) => told.some(({ kind }) => kind === 'off'))).toBe(true);
  const places = placesNow(here, moved, { ...params, found: { id: workId(work), ways } })!;
  expect(places.length).toBeGreaterThan(0);
  expect(places.flatMap(({ way }) => way.told.filter(({ kind }) => kind === 'off'))).toEqual([]);
});

test('every way to move it is found, kept, and read again with the same pitches; there it is as it was said', () => {
  const now = holding(model({}, 'Bb'), LICK);
  const { here, at: place } = phraseNow(now, AT_FIRST)!;
  for (const view of VIEWS.map(({ id }) => id))
    for (const turn of view === 'turned' ? TURNS.map(({ id }) => id) : (['backwards'] as const)) {
      const params: PhraseParams = { ...AT_FIRST, view, turn, root: 'C#', scale: 'major', octave: '1' };
      const moved = movedTo(now, DEFAULT_SETTINGS, here, params);
      const work = workOf(moved);
      expect(work === null).toBe(view === 'made' || view === 'chords');
      if (!work) continue;
      const found = { id: workId(work), ways: work.lots.map((lot) => placedLot(work.ground, lot)) };
      const places = placesNow(here, moved, { ...params, found })!;
      expect(places.length).toBeGreaterThan(0);
      expect(placesNow(here, moved, params)).toBeNull();
      for (const it of places) {
        const kept = keptThere(moved, here.phrase, it);
        const state = withPhrase(moved.instead ? moved.model.state : now.state, place, kept);
        const read = readDocument(JSON.parse(JSON.stringify(state)));
        expect(read.ok).toBe(true);
        const there = modelOf(state, DEFAULT_SETTINGS);
        expect(phraseHere(there, kept).way.run.map(({ spot }) => spot.midi)).toEqual(
          it.way.run.map(({ spot }) => spot.midi),
        );
      }
      if (view === 'key') expect(moved.instead).toBe('C♯ minor pentatonic');
      if (view === 'mode') expect(places[0]!.way.run.map(({ spot }) => spot.midi)).toEqual([63, 65, 70]);
    }
});

test('over the chord of its scale: each note said, the best beginning first', () => {
  const now = holding(model({}, 'Bb'), LICK);
  const over = overNow(now, phraseHere(now, phrasesOf(now.state)[0]!.phrase), AT_FIRST)!;
  expect(startSaid(over, over.start)).toBe('Bar 1, beat 1, on B♭m7');
  expect(over.notes.map((it) => noteOverSaid(now, over, it))).toEqual([
    'F, the 5 of B♭m7',
    'F, the 5 of B♭m7',
    'B♭, the root of B♭m7',
  ]);
});

test('what is looked at stands in the address, and what stands there and cannot be is as at first', () => {
  const written = (params: PhraseParams) =>
    new URLSearchParams(
      Object.entries(codec.write(params)).flatMap(([k, v]) => (v === null ? [] : [[k, v]])) as string[][],
    );
  for (const { id: view } of VIEWS) {
    const params: PhraseParams = {
      ...AT_FIRST,
      phrase: 'Lick',
      view,
      ...(view === 'made' && { cursor: 3 }),
      ...(view === 'place' && { octave: '-1' as const, frets: [7, 12] as const, strings: [2, 4] as const }),
      ...(view === 'key' && { root: 'C#' }),
      ...(view === 'mode' && { scale: 'major', way: 'chromatic' as const }),
      ...(view === 'turned' && { turn: 'round' as const }),
      ...(view === 'chords' && { start: 5 }),
      tempo: 120,
    };
    expect(codec.read(written(params))).toEqual(params);
  }
  const odd = new URLSearchParams(
    'played=x&note=0&octave=9&frets=9-99&on=0-3&by=x&turn=x&beat=0&pick=-1&tempo=9999',
  );
  expect(codec.read(odd)).toEqual(AT_FIRST);
});

test('what a later application keeps among phrases stays where it is', () => {
  const now = model();
  const state = { ...now.state, phrases: [{ type: 'duet' }, made(now, LICK)] };
  expect(phrasesOf(state).map(({ at: place }) => place)).toEqual([1]);
  const on = modelOf(state, DEFAULT_SETTINGS);
  const after = edited(on, { ...AT_FIRST, cursor: 0 }, EDITS.remove);
  expect(after.ok && after.value.state.phrases.map((it) => isPhrase(it) || it)).toEqual([
    { type: 'duet' },
    true,
  ]);
});

test('on an instrument that does not reach it nothing is lost: what lies off is named, and it is not written over', () => {
  const home = model({}, 'Bb');
  const bass = model({ tuning: [28, 33, 38, 43], wound: 4, frets: 12 }, 'Bb');
  for (const notes of [LICK, [...LICK, at(6, 1)]]) {
    const state = withPhrase(bass.state, null, made(home, notes));
    const there = modelOf(state, DEFAULT_SETTINGS);
    const { here } = phraseNow(there, AT_FIRST)!;
    expect(here.way.told.filter(({ kind }) => kind === 'off')).toHaveLength(3);
    const after = edited(there, { ...AT_FIRST, cursor: 3 }, EDITS.again);
    expect(after).toMatchObject({ ok: false, error: { code: 'edit.off' } });
  }
});
