import { PitchDetector } from 'pitchy';
import { frequency, pluck, VOICES } from './core.ts';

const RATE = 48_000;
const names = Object.keys(VOICES) as (keyof typeof VOICES)[];
/** The pitch that a reference library hears, in cents from what is meant. */
function cents(midi: number, voice: keyof typeof VOICES, from = 0.15): number {
  const size = 16_384;
  const heard = PitchDetector.forFloat32Array(size);
  const at = Math.round(from * RATE);
  const [hz, clarity] = heard.findPitch(pluck(midi, 1.2, RATE, voice).subarray(at, at + size), RATE);
  expect(clarity).toBeGreaterThan(0.9);
  return 1200 * Math.log2(hz / frequency(midi));
}

test('frequencies are those of ISO 16 in equal temperament', () => {
  expect([69, 57, 81].map(frequency)).toEqual([440, 220, 880]);
  // Published tables of equal temperament at 440 Hz, to the hundredth of a hertz.
  expect([40, 45, 50, 55, 59, 64, 28].map((m) => frequency(m).toFixed(2))).toEqual([
    '82.41',
    '110.00',
    '146.83',
    '196.00',
    '246.94',
    '329.63',
    '41.20',
  ]);
});

test('every note from the lowest of a five-string bass to the last fret of a guitar sounds within two cents', () => {
  for (const voice of names)
    for (let midi = 23; midi <= 88; midi += 5) {
      const off = cents(midi, voice);
      expect([voice, midi, Math.abs(off) < 2, off]).toEqual([voice, midi, true, off]);
    }
});

test('a string begins at once, dies away, never clips and is the same each time', () => {
  for (const voice of names)
    for (const midi of [23, 40, 64, 88]) {
      const sound = pluck(midi, 3, RATE, voice);
      const loud = (from: number, to: number): number =>
        sound
          .subarray(Math.round(from * RATE), Math.round(to * RATE))
          .reduce((most, s) => Math.max(most, Math.abs(s)), 0);
      expect(loud(0, 0.02)).toBeGreaterThan(0.4);
      expect(loud(0, 3)).toBeLessThanOrEqual(0.8000001);
      expect(loud(2.8, 3)).toBeLessThan(loud(0.1, 0.3) * 0.6);
      expect(sound.some(Number.isNaN)).toBe(false);
      expect(Buffer.from(pluck(midi, 3, RATE, voice).buffer).equals(Buffer.from(sound.buffer))).toBe(true);
    }
});
