import { DEFAULT_SETTINGS, type ChartState, FIRST_STATE } from '@crow-ladder/contract';
import { DEFAULT_INSTRUMENT, noteName } from '@crow-ladder/core';
import { FORMAT_KINDS, type FormatKind, lastBar, type Music, readFile } from '@crow-ladder/formats';
import { WRITERS } from '@crow-ladder/formats/write';
import fc from 'fast-check';
import { musicOf } from '../../formats/test/helpers.ts';
import { drawn } from '../../../scripts/thorough.ts';
import { type Model, modelOf } from '../src/model/model.ts';
import { writables } from '../src/model/music.ts';
import { groundOf, inChart, phraseHere, phraseId, phrasesOf, withPhrase } from '../src/model/phrases.ts';
import { type TakenHere, takenHere } from '../src/workers/opened.ts';

/** A chart in the key and on the strings of some music. */
const stateFor = ({ neck, key, capo }: Music): ChartState => ({
  ...FIRST_STATE,
  key: { root: noteName(key.root), scale: key.scale.id },
  instrument: {
    ...DEFAULT_INSTRUMENT,
    name: 'lower deck',
    tuning: [...neck.open].reverse().map((midi) => midi - capo),
    frets: neck.frets + capo,
    capo,
    wound: 3,
  },
});
/** What is taken of a file as a phrase of the chart, its beats with it. */
function phraseIn(model: Model, kind: FormatKind, bytes: Uint8Array) {
  const file = readFile(`tune.${kind === 'text' ? 'txt' : kind}`, bytes);
  if (!file.ok) throw new Error(file.error.message);
  const choice = { part: 0, voice: 0, bars: [1, lastBar(file.value, 0, 0, 1)], chords: 'top' } as const;
  const taken = takenHere(file.value, choice, groundOf(model), model.accidentals, () => undefined);
  if (!taken.ok) throw new Error(taken.error.message);
  return taken.value;
}

const withIn = (state: ChartState, { beats, notes }: Pick<TakenHere, 'beats' | 'notes'>): Model => {
  const kept = inChart(modelOf(state, DEFAULT_SETTINGS), { name: 'Gangway', tags: [], beats, notes });
  return modelOf(withPhrase(state, null, kept), DEFAULT_SETTINGS);
};
/** A phrase as it is played, note by note: pitch, time, and, where the format carries them, place, finger, how it is reached and held. */
const lines = (model: Model, kind: FormatKind): readonly string[] =>
  phraseHere(model, phrasesOf(model.state)[0]!.phrase).way.run.map(
    ({ spot, start, length, finger, arrive, bend, vibrato, accent }) =>
      JSON.stringify(
        kind === 'abc'
          ? [spot.midi, start, length, accent]
          : [spot, start, length, finger, arrive, bend, vibrato, accent],
      ),
  );

test.each(FORMAT_KINDS)('%s: read as a phrase, written and read again it is the same phrase', (kind) => {
  let notes = 0;
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 2 ** 31 }), (seed) => {
      const music = musicOf(seed);
      const state = stateFor(music);
      const model = modelOf(state, DEFAULT_SETTINGS);
      const first = phraseIn(model, kind, WRITERS[kind](music).bytes);
      const there = withIn(state, first);
      const written = writables(there)
        .find(({ id }) => id === phraseId('Gangway'))!
        .music();
      if (!written.ok) throw new Error(written.error.message);
      const again = phraseIn(model, kind, WRITERS[kind](written.value).bytes);
      expect(lines(withIn(state, again), kind)).toEqual(lines(there, kind));
      expect(again.beats).toBe(first.beats);
      notes += first.notes.filter(({ at }) => at).length;
    }),
    { numRuns: drawn(400) },
  );
  expect(notes).toBeGreaterThan(drawn(2000));
});
