import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  delayAmong,
  FAULTLESS,
  type HeardNote,
  holdingMost,
  listener,
  plainNote,
  QUARTER,
  standInSounds,
  takenDown,
  takenFreely,
  type Tune,
  withoutClicks,
} from './core.ts';
import { count, key, neckWith, positions } from './helpers.ts';
import { RATE } from './hearing.ts';

const EIGHTH = QUARTER / 2;
const lengths = (tune: Tune): readonly number[] => tune.map((n) => n.length);

/** A line by its gaps in parts of a grid, played unevenly by a twentieth of a part. */
const line = fc.record({
  parts: fc
    .array(fc.constantFrom(1, 1, 1, 2, 2, 3, 4), { minLength: 3, maxLength: 24 })
    .map((of) => [1, ...of]),
  part: fc.double({ min: 0.12, max: 0.7, noNaN: true }),
  uneven: fc.array(fc.double({ min: -0.05, max: 0.05, noNaN: true }), { minLength: 26, maxLength: 26 }),
});
/** When its notes come: `tempo` is how much longer each part is than the one before. */
const played = (
  {
    parts,
    part,
    uneven,
  }: { readonly parts: readonly number[]; readonly part: number; readonly uneven: readonly number[] },
  from: number,
  tempo = 1,
) => {
  let [at, now] = [from, part];
  return [0, ...parts].map((gap, i) => {
    for (let k = 0; k < gap; k++) [at, now] = [at + now, now * tempo];
    return { at: at + uneven[i]! * part, midi: 50 + i };
  });
};

test('a line to a click comes back as it was meant, whatever the device adds, its first bar filled up', () => {
  fc.assert(
    fc.property(line, fc.double({ min: -0.4, max: 0.4, noNaN: true }), fc.nat(15), (it, late, into) => {
      const beat = 2 * it.part;
      // Two bars and some eighths after the first beat of all.
      const heard = played(it, 3 + (16 + into + late) * it.part);
      const tune = takenDown(heard, { beat, first: 3 }, EIGHTH, 4);
      const rest = into % 8;
      const sounding = rest ? tune.slice(1) : tune;
      expect(rest ? lengths(tune)[0] : 0).toBe(rest * EIGHTH);
      expect(lengths(sounding).slice(0, -1)).toEqual(it.parts.map((n) => n * EIGHTH));
      expect(sounding.map((n) => n.midi)).toEqual(heard.map((h) => h.midi));
      expect(lengths(tune).reduce((sum, x) => sum + x) % QUARTER).toBe(0);
    }),
  );
});

test('who is late by nearly half a part, and uneven, is taken to mean the part before', () => {
  const part = 0.25;
  const heard = Array.from({ length: 9 }, (_, i) => ({
    at: 1 + (i + 0.44 + (i % 2 ? 0.1 : -0.1)) * part,
    midi: 60 + i,
  }));
  const tune = takenDown(heard, { beat: 2 * part, first: 1 }, EIGHTH, 4);
  expect(lengths(tune).slice(0, -1)).toEqual(Array(8).fill(EIGHTH));
  expect(tune[0]!.midi).toBe(60);
});

test('of two parts that fit exactly the longer one is meant', () => {
  const { tune, beat } = takenFreely(
    [0, 0.5, 1, 2, 2.5].map((at) => ({ at, midi: 60 })),
    EIGHTH,
    4,
  );
  expect(lengths(tune).slice(0, -1)).toEqual([1, 1, 2, 1].map((n) => n * EIGHTH));
  expect(beat).toBeCloseTo(1);
});

test('a line in the player’s own time comes back too, with how fast it was, getting faster or slower on the way', () => {
  fc.assert(
    fc.property(line, fc.double({ min: 0.995, max: 1.005, noNaN: true }), (it, tempo) => {
      const { tune, beat } = takenFreely(played(it, 1, tempo), EIGHTH, 4);
      expect(lengths(tune).slice(0, -1)).toEqual(it.parts.map((n) => n * EIGHTH));
      const asked = 2 * it.part * tempo ** (it.parts.reduce((a, b) => a + b) / 2);
      expect(Math.abs(beat / asked - 1)).toBeLessThan(0.12);
    }),
  );
  expect(takenFreely([], EIGHTH, 4).tune).toEqual([]);
  expect(takenFreely([{ at: 2, midi: 60 }], EIGHTH, 4).tune).toHaveLength(1);
});

test('the page’s own clicks are no notes of a line, on a string that rings either', () => {
  const beat = 0.6;
  const midis = [57, 60, 64, 67, 69];
  const notes = midis.map((midi, i) => {
    const at = 1 + 4 * beat + 1.5 * i * beat + (i % 2 ? 0.012 : -0.01);
    const sounds = { midi, voice: 'guitar', fret: 5, wound: i < 3, arrive: 'pick', take: i % 3 } as const;
    return plainNote(sounds, at, at + 1.5 * beat);
  });
  const clicks = Array.from({ length: 11 }, (_, i) => ({ at: 1 + i * beat, midi: i % 4 ? 86 : 93 }));
  const samples = standInSounds(notes, FAULTLESS, 8.5, RATE, 1);
  for (const { at, midi } of clicks) {
    const from = Math.round((at + 0.03) * RATE);
    const hz = 440 * 2 ** ((midi - 69) / 12);
    for (let i = 0; i < 0.04 * RATE; i++)
      samples[from + i]! +=
        (10 ** (-10 / 20) / 2) * Math.sin((2 * Math.PI * hz * i) / RATE) * Math.exp((-120 * i) / RATE);
  }
  const listening = listener(RATE, { low: 39, high: 94 });
  const heard = [...listening.hear(samples), ...listening.end()];
  expect(heard.length).toBeGreaterThan(notes.length + 3);
  expect(withoutClicks(heard, clicks).map((h) => h.midi)).toEqual(midis);
});

test('without clicks that come back nothing is left out, a note of a click’s pitch elsewhere neither', () => {
  const heard = [0.03, 0.6, 1.2].map((at): HeardNote => ({ at, midi: 57, cents: 0, level: -20 }));
  expect(withoutClicks(heard, [{ at: 0, midi: 93 }])).toEqual(heard);
  // A note that the player strikes again on a beat is as loud as before.
  const clicks = [0, 0.6, 1.2].map((at) => ({ at, midi: 86 }));
  const click = (at: number): HeardNote => ({ at, midi: 86, cents: 0, level: -30 });
  expect(
    withoutClicks([click(0.03), { ...heard[0]!, at: 0.3 }, { ...heard[0]!, at: 0.63 }], clicks),
  ).toHaveLength(2);
  const high = [{ at: 0.5, midi: 93, cents: 0, level: -20 }];
  expect(withoutClicks(high, [{ at: 0, midi: 93 }])).toEqual(high);
});

test('what a device adds is what most clicks come back by; noises between are not, and too few are none', () => {
  const clicks = [0, 0.5, 1.13, 1.55, 2.21, 2.68, 3.27, 3.79];
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 0.5, noNaN: true }),
      fc.array(fc.double({ min: 0, max: 4.5, noNaN: true }), { maxLength: 5 }),
      (delay, noises) => {
        const back = clicks.slice(1).map((at, i) => at + delay + (i % 2 ? 0.001 : -0.001));
        const found = delayAmong([...back, ...noises], clicks)!;
        expect(Math.abs(found.delay - delay)).toBeLessThan(0.013);
        expect(found.within).toBeLessThan(0.013);
        expect(delayAmong(back.slice(0, 5), clicks)).toBeNull();
      },
    ),
  );
  expect(delayAmong([], clicks)).toBeNull();
});

test('the positions that hold the most of some pitches are found, ties all of them, and none for what is elsewhere', () => {
  const all = positions(key('A', 'minor-pentatonic'), count(2), neckWith('E2 A2 D3 G3 B3 E4'));
  for (const position of all) {
    const midis = position.spots.map(({ midi }) => midi);
    const found = holdingMost(all, [...midis, ...midis]);
    expect(found.held).toBe(new Set(midis).size);
    expect(found.positions).toContain(position);
  }
  // Two of the pitches lie outside of what the best one holds.
  const [first] = all;
  const midis = first!.spots.slice(0, 4).map(({ midi }) => midi);
  expect(holdingMost(all, [...midis, 20, 21]).held).toBe(4);
  expect(holdingMost(all, [midis[0]!, 20, 21]).positions).toEqual([]);
});
