import { PitchDetector } from 'pitchy';
import { frequency, loopOf, pluck, type Plucked, TAKES, VOICES } from './core.ts';

const RATE = 48_000;
const names = Object.keys(VOICES) as (keyof typeof VOICES)[];
/** The pitch that a reference library hears, in cents from what is meant. */
function cents(midi: number, from = 0.15): number {
  const size = 16_384;
  const heard = PitchDetector.forFloat32Array(size);
  const at = Math.round(from * RATE);
  const [hz, clarity] = heard.findPitch(pluck(played(midi), 1.2, RATE).subarray(at, at + size), RATE);
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

/** How loud a frequency is in a sound at a time, by correlation over a window (Goertzel, 1958), and its phase. */
function partial(sound: Float32Array, hz: number, at: number, seconds: number) {
  const from = Math.round(at * RATE);
  const many = Math.round(seconds * RATE);
  let [re, im] = [0, 0];
  // A window without edges, so that no other partial leaks in; both turn on from sample to sample.
  const turn = (w: number) => [Math.cos(w), Math.sin(w)] as const;
  const [c, d] = turn((2 * Math.PI * hz) / RATE);
  const [e, f] = turn((2 * Math.PI) / many);
  let [x, y] = turn((2 * Math.PI * hz * from) / RATE);
  let [u, v] = turn(Math.PI / many);
  for (let i = 0; i < many; i++) {
    const sample = (0.5 - 0.5 * u) * sound[from + i]!;
    re += sample * x;
    im -= sample * y;
    const t = x;
    const w = u;
    x = x * c - y * d;
    y = t * d + y * c;
    u = u * e - v * f;
    v = w * f + v * e;
  }
  const weight = many / 2;
  return { db: 20 * Math.log10((2 * Math.hypot(re, im)) / weight), phase: Math.atan2(im, re) };
}
/** Seconds in which a partial falls by 60 dB. */
function falls(sound: Float32Array, hz: number, [from, to] = [0.3, 1.5]): number {
  const window = Math.max(0.2, 12 / hz);
  return (60 * (to - from)) / (partial(sound, hz, from, window).db - partial(sound, hz, to, window).db);
}
const played = (midi: number, more: Partial<Plucked> = {}): Plucked => ({
  midi,
  voice: 'guitar',
  fret: 0,
  wound: midi < 55,
  arrive: 'pick',
  take: 0,
  ...more,
});

test('a string dies away by its pitch: low ones long, the high partials of all of them soon', () => {
  // Poles, gains and times as worked for strings of common gauges, common practice, no source.
  for (const [midi, p, g, seconds] of [
    [28, 0.54, 0.982, 9],
    [35, 0.41, 0.984, 7],
    [40, 0.37, 0.986, 6],
    [64, 0.12, 0.995, 4],
    [76, 0.06, 0.997, 3],
    [88, 0.04, 0.998, 1.8],
  ] as const) {
    const loop = loopOf(midi, RATE);
    expect([midi, Math.abs(loop.p - p) < 0.05, Math.abs(loop.g - g) < 0.002]).toEqual([midi, true, true]);
    const sound = pluck(played(midi), 2.5, RATE);
    const hz = frequency(midi);
    const fundamental = falls(sound, hz);
    expect([
      midi,
      'fundamental',
      fundamental / seconds > 0.8 && fundamental / seconds < 1.2,
      fundamental,
    ]).toEqual([midi, 'fundamental', true, fundamental]);
    if (hz > 1000) continue;
    const high = falls(sound, hz * Math.round(2000 / hz), [0.1, 0.5]);
    expect([midi, 'at 2 kHz', high > 1.4 && high < 2, high]).toEqual([midi, 'at 2 kHz', true, high]);
  }
});

test('every note from the lowest of a five-string bass to the last fret of a guitar is in tune within a tenth of a cent', () => {
  for (let midi = 23; midi <= 88; midi += 5) {
    const sound = pluck(played(midi), 1.5, RATE);
    const hz = frequency(midi);
    const [a, b, window] = [0.2, 0.9, Math.max(0.25, 16 / hz)];
    let turned = partial(sound, hz, b, window).phase - partial(sound, hz, a, window).phase;
    turned -= 2 * Math.PI * Math.round(turned / (2 * Math.PI));
    const cents = (1200 / Math.LN2) * (turned / (2 * Math.PI * (b - a)) / hz);
    expect([midi, Math.abs(cents) < 0.1, cents]).toEqual([midi, true, cents]);
  }
  // And a reference library hears the same notes.
  for (const midi of [40, 52, 64, 76]) expect(Math.abs(cents(midi))).toBeLessThan(2);
});

const rms = (sound: Float32Array, from: number, to: number): number =>
  Math.sqrt(
    sound.subarray(Math.round(from * RATE), Math.round(to * RATE)).reduce((sum, s) => sum + s * s, 0) /
      ((to - from) * RATE),
  );
const decibels = (a: number, b: number): number => 20 * Math.log10(a / b);

test('no two strokes are alike, and none is louder than another by a decibel; the same one is the same each time', () => {
  for (const midi of [40, 57, 76, 79]) {
    const takes = Array.from({ length: TAKES }, (_, take) => pluck(played(midi, { take }), 1, RATE));
    for (const [i, one] of takes.entries())
      for (const other of takes.slice(i + 1)) {
        const apart = one.map((s, k) => s - other[k]!);
        expect(decibels(rms(apart, 0, 0.3), rms(one, 0, 0.3))).toBeGreaterThan(-30);
        expect(Math.abs(decibels(rms(one, 0, 0.5), rms(other, 0, 0.5)))).toBeLessThan(1);
      }
    expect(Buffer.from(pluck(played(midi), 1, RATE).buffer).equals(Buffer.from(takes[0]!.buffer))).toBe(true);
  }
});

/** How bright a sound is at its beginning: its partials above 1.2 kHz beside all of it, in dB. */
const brightness = (sound: Float32Array, midi: number): number => {
  const hz = frequency(midi);
  let [all, high] = [0, 0];
  for (let n = 1; n * hz < 6000; n++) {
    const power = 10 ** (partial(sound, n * hz, 0.03, 0.12).db / 10);
    all += power;
    if (n * hz > 1200) high += power;
  }
  return 10 * Math.log10(high / all);
};

test('wound and plain strings, the same pitch on another string, and ways of striking can be told apart', () => {
  const at = (more: Partial<Plucked>): number => brightness(pluck(played(57, more), 0.3, RATE), 57);
  expect(at({ wound: false }) - at({ wound: true })).toBeGreaterThan(1);
  expect(at({ fret: 2 }) - at({ fret: 12 })).not.toBeCloseTo(0, 0);
  const [pick, tap, hammer, pull] = (['pick', 'tap', 'hammer', 'pull'] as const).map((arrive) =>
    at({ arrive }),
  );
  expect(pick! - tap!).toBeGreaterThan(3);
  expect(tap! - hammer!).toBeGreaterThan(0.5);
  expect(hammer! - pull!).toBeGreaterThan(0.3);
});

test('where a speaker begins at 150 Hz the bass is at most 10 dB softer than its own E3', () => {
  /** What such a speaker leaves of a sound, partial by partial. */
  const heard = (midi: number): number => {
    const sound = pluck(played(midi, { voice: 'bass', wound: true }), 1, RATE);
    const hz = frequency(midi);
    let power = 0;
    for (let n = 1; n * hz < 5000; n++)
      if (n * hz >= 150) power += 10 ** (partial(sound, n * hz, 0.05, 0.3).db / 10);
    return 10 * Math.log10(power);
  };
  const E3 = heard(52);
  for (const midi of [23, 28, 33, 38, 43])
    expect([midi, E3 - heard(midi) < 10, E3 - heard(midi)]).toEqual([midi, true, E3 - heard(midi)]);
});

test('a string begins at once, dies away, and never clips', () => {
  for (const voice of names)
    for (const midi of [23, 40, 64, 88]) {
      const sound = pluck(played(midi, { voice }), 3, RATE);
      const loud = (from: number, to: number): number =>
        sound
          .subarray(Math.round(from * RATE), Math.round(to * RATE))
          .reduce((most, s) => Math.max(most, Math.abs(s)), 0);
      expect(loud(0, 0.03)).toBeGreaterThan(0.4);
      expect(loud(0, 3)).toBeLessThanOrEqual(0.8000001);
      expect(loud(2.8, 3)).toBeLessThan(loud(0.1, 0.3) * 0.6);
      expect(sound.some(Number.isNaN)).toBe(false);
    }
});
