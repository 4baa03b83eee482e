import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { keySaid, mod, pitchClass } from '@crow-ladder/core';
import { readBars } from '@crow-ladder/core/chords';
import { symbolReader } from '../../model/chordSymbols.ts';
import { modelOf } from '../../model/model.ts';
import { withRoot } from '../../model/moves.ts';
import {
  changesOf,
  fitting,
  lineSlots,
  playedOver,
  progressionText,
  slotAt,
  withProgression,
} from '../../model/progression.ts';
import { overMarks } from '../../model/overMarks.ts';

const model = (state: ChartState) => modelOf(state, DEFAULT_SETTINGS);
const E_FLAT: ChartState = {
  ...FIRST_STATE,
  key: { root: 'Eb', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 11 },
  layout: { kind: 'count', counts: [2] },
};
async function over(text: string, state = E_FLAT): Promise<ChartState> {
  const bars = readBars(text, pitchClass(model(state).key.root), 'major', await symbolReader());
  if (!bars.ok) throw new Error(bars.error.message);
  return withProgression(state, { beats: 4, bars: bars.value, scales: {} });
}
const BLUES = 'I7 | IV7 | I7 | % | IV7 | % | I7 | % | V7 | IV7 | I7 | V7';

test('a twelve-bar is written in its key, goes with it, and each chord has a scale that holds it', async () => {
  const blues = await over(BLUES);
  expect(progressionText(model(blues), playedOver(model(blues))!.part)).toBe(
    'E♭7 | A♭7 | E♭7 | % | A♭7 | % | E♭7 | % | B♭7 | A♭7 | E♭7 | B♭7',
  );
  const moved = model(withRoot(blues, 'C#'));
  expect(
    playedOver(moved)!
      .slots.map((s) => s.name)
      .slice(0, 2),
  ).toEqual(['C♯7', 'F♯7']);
  // Common practice, no source.
  expect(
    playedOver(model(blues))!
      .slots.slice(0, 2)
      .map((s) => keySaid(s.over.key)),
  ).toEqual(['E♭ Mixolydian', 'E♭ Dorian']);
  for (const { over: it } of playedOver(moved)!.slots) expect(it.missing).toEqual([]);
  const chosen = withProgression(blues, {
    ...playedOver(model(blues))!.part,
    scales: { '7 7': { scale: 'natural-minor', above: 0 } },
  });
  const five = playedOver(model(withRoot(chosen, 'A')))!.slots.find((s) => s.name === 'E7')!;
  expect([five.chosen, keySaid(five.over.key), five.over.missing]).toEqual([true, 'A natural minor', [8]]);
  expect(
    withProgression({ ...chosen, chords: [...chosen.chords, { type: 'of later' }] }, null).chords,
  ).toEqual([{ type: 'of later' }]);
  const ranked = fitting(model(blues), playedOver(model(blues))!.slots[0]!.chord);
  expect(ranked.slice(1).every((it, i) => ranked[i]!.held >= it.held)).toBe(true);
});

test('a line through it lands on a note of each chord on each first beat, under one place of the hand', async () => {
  const blues = model(await over(BLUES));
  const played = playedOver(blues)!;
  for (const perBeat of [1, 2, 3, 4]) {
    const slots = lineSlots(played, perBeat);
    const many = 12 * 4 * perBeat;
    expect(slots.reduce((sum, s) => sum + s.notes, 0)).toBe(many);
    const line = changesOf(blues, perBeat);
    if (!line.ok) throw new Error(line.error.message);
    const { steps } = line.value.up;
    expect(steps).toHaveLength(many);
    for (let bar = 0; bar < 12; bar++) {
      const { classes } = played.slots[slotAt(played, bar * 4)]!;
      expect(classes).toContain(mod(steps[bar * 4 * perBeat]!.spot.midi, 12));
    }
    const { lowFret, highFret } = blues.front!.position;
    expect(steps.every(({ spot }) => spot.fret >= lowFret && spot.fret <= highFret)).toBe(true);
  }
  expect(slotAt(played, 48)).toBe(0);
  expect(changesOf(model(E_FLAT), 2).ok).toBe(false);
});

test('chord symbols are read as they are written, and what the library reads wrong is mended or refused', async () => {
  const read = await symbolReader();
  const said = (symbol: string) => {
    const it = read(symbol);
    return it && [it.root, it.degrees.join(' '), it.bass];
  };
  // Common practice, no source.
  expect(said('B♭m7♭5')).toEqual([10, '1 b3 b5 b7', null]);
  expect(said('A7b13')).toEqual([9, '1 3 5 b7 b13', null]);
  expect(said('D/F#')).toEqual([2, '1 3 5', 4]);
  expect(said('F△7')).toEqual([5, '1 3 5 7', null]);
  expect(said('Co7')).toEqual([0, '1 b3 b5 bb7', null]);
  expect(said('D°7')?.[1]).toBe('1 b3 b5 bb7');
  expect(said('Csus2')?.[1]).toBe('1 5 9');
  for (const none of ['Do', 'Do7', 'Sol7', 'Hx', 'tide', ''])
    expect([none, said(none)]).toEqual([none, null]);
});

test('the neck shows the chord in full and the scale over it faded, counted from the root of the chord', async () => {
  const blues = model(await over('IV7'));
  const slot = playedOver(blues)!.slots[0]!;
  const marks = overMarks(blues, slot, { labels: 'degree', rootsOnly: false, colours: 'plain' });
  // Box 1 of E flat from fret 11: A flat on string 6 lies outside; on string 4 fret 11 is its fourth, D flat. Common practice, no source.
  const at = (string: number, fret: number) => marks.find((m) => m.string === string && m.fret === fret);
  expect([at(5, 11)?.kind, at(5, 11)?.label]).toEqual(['shared', '1']);
  expect([at(4, 13)?.kind, at(4, 13)?.label]).toEqual(['root', '5']);
  expect([at(5, 13)?.kind, at(5, 13)?.label]).toEqual(['outside', '2']);
  expect(at(4, 13)!.name()).toBe('String 4, fret 13: E♭, the 5 of A♭7');
});
