import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE, type Progression } from '@crow-ladder/contract';
import { type Instrument, instrumentOf, neckOf, tuningById } from '@crow-ladder/core';
import { BLUES_WAYS, chordId, type ProgressionChord } from '@crow-ladder/core/chords';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import { type PhraseNote } from '@crow-ladder/core/phrases';
import { USUAL_VIBRATO } from '@crow-ladder/core/run';
import { type Knex } from 'knex';
import { nanoid } from 'nanoid';
import { seedDemoLog } from './demoLog.ts';

/** Demo instruments of the night ferry's house band. */
const INSTRUMENTS: readonly Instrument[] = [
  { ...instrumentOf(tuningById('standard')!), name: 'saloon six-string' },
  { ...instrumentOf(tuningById('drop-d')!), name: 'car deck, drop D' },
  { ...instrumentOf(tuningById('seven-standard')!), name: 'engine room seven-string' },
  { ...instrumentOf(tuningById('bass-four')!), name: 'ballast bass' },
  { ...instrumentOf(tuningById('open-g')!), name: 'saloon six-string, open G' },
];

type Row = readonly [
  name: string,
  tags: string,
  instrument: number,
  root: string,
  scale: string,
  string: number,
  fret: number,
  layout: LayoutSpec,
  notes: string,
];

/** Invented tunes of the house band's summer programme. */
const CHARTS: readonly Row[] = [
  [
    'Slow Bow Door',
    'opener, ballad',
    0,
    'F#',
    'dorian',
    6,
    2,
    { kind: 'count', counts: [3] },
    'Second verse: stay below fret 7 until the horn answers.',
  ],
  [
    'Duty-Free Shuffle',
    'blues',
    0,
    'Bb',
    'minor-pentatonic',
    5,
    1,
    { kind: 'count', counts: [2] },
    'Begin at the nut, end in the box above the octave.',
  ],
  [
    'Lifeboat Drill',
    'fast',
    0,
    'Eb',
    'mixolydian',
    5,
    6,
    { kind: 'inPosition', school: 'index', every: false },
    'In position: no shift before the bridge.',
  ],
  ['Starboard Lantern', 'encore', 0, 'C#', 'natural-minor', 6, 9, { kind: 'reach', reach: 3 }, ''],
  [
    'Vehicle Deck Four',
    'heavy',
    1,
    'D',
    'phrygian-dominant',
    6,
    12,
    { kind: 'count', counts: [3] },
    'Low string rings open under the riff, an octave below the root.',
  ],
  [
    'Thrusters at Dawn',
    'heavy, opener',
    2,
    'B',
    'harmonic-minor',
    7,
    12,
    { kind: 'count', counts: [3] },
    'Seven strings: three on each, then the relay.',
  ],
  ['Harbour Lights Relay', 'fast', 2, 'F#', 'major', 7, 7, { kind: 'relay', notes: 12, perString: 3 }, ''],
  [
    'Midnight Cabin Walk',
    'blues, ballad',
    3,
    'Ab',
    'minor-blues',
    4,
    4,
    { kind: 'count', counts: [3] },
    'Bass line on top of the piano.',
  ],
  [
    'Gangway in Open G',
    'encore',
    4,
    'G',
    'major-pentatonic',
    5,
    0,
    { kind: 'diagonal' },
    'Retune before the set: the diagonal starts at the nut.',
  ],
];

/** Tunes that are played on a second instrument as well, with the root on the same string and fret. */
const ALSO: Readonly<Record<string, number>> = { 'Starboard Lantern': 2 };

/** Scales that are laid over a tune's own, from its root. */
const OVER: Readonly<Record<string, string>> = {
  'Starboard Lantern': 'dorian',
  'Duty-Free Shuffle': 'major-pentatonic',
};

/** Twelve bars of blues, with three modes of one root over its chords. */
const TWELVE_BARS: Progression = (() => {
  const on = (above: number): ProgressionChord => ({
    above,
    suffix: '7',
    degrees: ['1', '3', '5', 'b7'],
    bass: null,
  });
  const bars = [0, 5, 0, 0, 5, 5, 0, 0, 7, 5, 0, 7].map((above) => [on(above)]);
  const { over } = BLUES_WAYS.find(({ id }) => id === 'three')!;
  const scales = Object.fromEntries(bars.flat().map((chord) => [chordId(chord), over(chord.above)]));
  return { type: 'progression', beats: 4, bars, scales };
})();
/** Tunes that have a progression. */
const PROGRESSIONS: Readonly<Record<string, Progression>> = { 'Lifeboat Drill': TWELVE_BARS };

/** A note of a lick: string, fret, length in ticks, and what it has more. */
const n = (string: number, fret: number, length: number, more: Partial<PhraseNote> = {}): PhraseNote => ({
  at: { string, fret },
  length,
  ...more,
});
const SLUR = { joined: 'slur' } as const;
const SLIDE = { joined: 'slide' } as const;
const VIBRATO = { vibrato: USUAL_VIBRATO };
/** The licks of the house band, by the tune that each is kept with. */
const LICKS: Readonly<
  Record<
    string,
    { readonly name: string; readonly tags: readonly string[]; readonly notes: readonly PhraseNote[] }
  >
> = {
  // Bent from the fourth to the fifth, and home.
  'Duty-Free Shuffle': {
    name: 'The cabin lick',
    tags: ['bend', 'opener'],
    notes: [
      n(3, 8, 960, { bend: { by: 2, how: 'once', released: false }, accent: true }),
      n(2, 6, 480),
      n(1, 6, 480),
      n(2, 9, 320),
      n(2, 6, 320, SLUR),
      n(3, 8, 320),
      n(3, 6, 480),
      n(4, 8, 480, VIBRATO),
    ],
  },
  // Low down it is lost under the piano: an octave up it sings.
  'Slow Bow Door': {
    name: 'Foghorn answer',
    tags: ['low'],
    notes: [
      n(6, 2, 720),
      n(6, 4, 240, SLUR),
      n(5, 0, 480),
      n(5, 2, 480, SLUR),
      n(5, 4, 960),
      { at: null, length: 480 },
      n(5, 2, 480),
    ],
  },
  'Lifeboat Drill': {
    name: 'Twelve-bar turn',
    tags: ['blues', 'turn'],
    notes: [
      n(4, 8, 320),
      n(4, 5, 320, SLUR),
      n(5, 8, 320),
      n(5, 6, 480),
      n(4, 5, 480),
      n(3, 5, 240),
      n(3, 6, 240, SLUR),
      n(3, 8, 480, SLIDE),
      n(4, 8, 960, VIBRATO),
    ],
  },
  'Starboard Lantern': {
    name: 'Third watch',
    tags: ['triplets'],
    notes: [
      n(4, 11, 320),
      n(3, 9, 320),
      n(3, 11, 320, SLUR),
      n(2, 9, 320),
      n(2, 10, 320, SLUR),
      n(2, 12, 320, SLUR),
      n(1, 9, 320),
      n(2, 12, 320),
      n(2, 10, 320, SLUR),
      n(2, 9, 960, VIBRATO),
    ],
  },
};

/** Notes that are played beside a tune's scale: half steps above its root, and whether they are only touched. */
const ADDED: Readonly<Record<string, readonly (readonly [above: number, passing: boolean])[]>> = {
  'Duty-Free Shuffle': [
    [4, false],
    [6, true],
  ],
};

/** Fills an all-new library with the demo. */
export async function seedDemo(db: Knex, now: number): Promise<void> {
  const ids = INSTRUMENTS.map(() => nanoid(12));
  const charts = CHARTS.map(() => nanoid(12));
  await db.transaction(async (trx) => {
    const start = Date.parse('2026-06-01T20:00:00Z');
    const time = (i: number): string => new Date(start + i * 3_600_000).toISOString();
    await trx('instruments').insert(
      INSTRUMENTS.map((instrument, i) => ({
        id: ids[i]!,
        instrument: JSON.stringify(instrument),
        updated_at: time(0),
      })),
    );
    const tunes = CHARTS.map((row, i) => {
      const [name, tags, at, root, scale, string, fret, layout, notes] = row;
      const also = ALSO[name];
      const over = OVER[name];
      const lick = LICKS[name];
      const instrument = INSTRUMENTS[at]!;
      const state: ChartState = {
        ...FIRST_STATE,
        key: { root, scale },
        at: { string, fret },
        layout,
        instrument,
        instrumentId: ids[at]!,
        overlays: [
          ...(over === undefined ? [] : [{ type: 'scale', scale: over, above: 0 } as const]),
          ...(ADDED[name] ?? []).map(([above, passing]) => ({ type: 'added', above, passing }) as const),
        ],
        phrases: lick
          ? [{ ...lick, type: 'phrase', root, scale, beats: 4, open: neckOf(instrument).open }]
          : [],
        chords: PROGRESSIONS[name] ? [PROGRESSIONS[name]] : [],
        others:
          also === undefined
            ? []
            : [
                {
                  instrument: INSTRUMENTS[also]!,
                  instrumentId: ids[also]!,
                  at: { string, fret },
                  layout,
                  front: null,
                },
              ],
      };
      return { id: charts[i]!, name, tags, notes, state };
    });
    await trx('charts').insert(
      tunes.map(({ tags, state, ...it }, i) => ({
        ...it,
        tags: JSON.stringify(tags.split(', ')),
        state: JSON.stringify(state),
        revision: 1,
        created_at: time(i),
        updated_at: time(CHARTS.length - i),
      })),
    );
    const hand = { school: DEFAULT_SETTINGS.fingering, spanMm: DEFAULT_SETTINGS.spanMm };
    const { cards } = await seedDemoLog(trx, tunes, now, hand);
    await trx('facts').insert({ name: 'demo', value: JSON.stringify({ charts, instruments: ids, cards }) });
  });
}
