import { isMinor, keySignature } from '@crow-ladder/core/notation';
import { midiName } from '@crow-ladder/core';
import { bentAt, QUARTER, type Step } from '@crow-ladder/core/run';
import { type MidiEvent, writeMidi } from 'midi-file';
import { type Music, without, type Written } from '../format.ts';

/** How many half steps a whole turn of the pitch wheel is, and its middle. */
export const WHEEL = { range: 12, middle: 8192 } as const;
/** Ticks between two places of the wheel. */
export const STEP = QUARTER / 48;
/** Less than this is no bend, in half steps. */
export const HEARD = 0.1;
/** How loud a note is, and one with an accent. */
export const LOUD = { usual: 84, accent: 112 } as const;
/** Channel 10 is that of drums (General MIDI). */
export const DRUMS = 9;
const US_A_MINUTE = 60_000_000;

/** Text as the bytes of UTF-8, one a character, as the writer takes it. */
const plain = (text: string): string => String.fromCharCode(...new TextEncoder().encode(text));
/** The name of the track of a string, by which it is known again. */
const trackName = (string: number, open: number): string => `String ${string} ${midiName(open)}`;

/** An event without its distance from the one before. */
type Untimed<Event = MidiEvent> = Event extends MidiEvent ? Omit<Event, 'deltaTime'> : never;
/** An event with its time, in ticks; of those at the same one the order stays. */
interface Timed {
  readonly at: number;
  readonly event: Untimed;
}
function track(events: readonly Timed[], end: number): MidiEvent[] {
  let last = 0;
  const ordered = [...events].sort((a, b) => a.at - b.at);
  return [
    ...ordered,
    { at: Math.max(end, ordered.at(-1)?.at ?? 0), event: { type: 'endOfTrack', meta: true } },
  ].map(({ at, event }) => {
    const deltaTime = at - last;
    last = at;
    return { ...event, deltaTime } as MidiEvent;
  });
}

/** A note with the turns of the wheel that bend it. */
function struck(step: Step, channel: number, length: number, tempo: number): readonly Timed[] {
  const { spot, start, accent, bend, vibrato } = step;
  const noteNumber = spot.midi;
  const velocity = accent ? LOUD.accent : LOUD.usual;
  const seconds = (ticks: number): number => (ticks / QUARTER) * (60 / tempo);
  const wheel: Timed[] = [];
  if (bend ?? vibrato) {
    const turns: number[] = [];
    for (let at = STEP; at < length; at += STEP) {
      const up = bentAt(step, seconds(at), seconds(length));
      turns.push(Math.min(WHEEL.middle - 1, Math.round((up / WHEEL.range) * WHEEL.middle)));
    }
    const isHeard = turns.some((value) => (value / WHEEL.middle) * WHEEL.range >= HEARD);
    let last = 0;
    for (const [i, value] of isHeard ? turns.entries() : []) {
      const at = start + (i + 1) * STEP;
      if (value !== last) wheel.push({ at, event: { type: 'pitchBend', channel, value } });
      last = value;
    }
    if (isHeard) wheel.push({ at: start + length, event: { type: 'pitchBend', channel, value: 0 } });
  }
  return [
    { at: start, event: { type: 'noteOn', channel, noteNumber, velocity } },
    ...wheel.slice(0, -1),
    { at: start + length, event: { type: 'noteOff', channel, noteNumber, velocity: 64 } },
    ...wheel.slice(-1),
  ];
}

/** Music as a Standard MIDI file of type 1 (RP-001): a first track with title, metre, key and tempo, then one and a channel for each string that sounds. */
export function writeMidiFile({ title, run, ticks, neck, key, beats, tempo }: Music): Written {
  const signature = keySignature(key);
  const head: readonly Untimed[] = [
    { type: 'trackName', meta: true, text: plain(title) },
    { type: 'timeSignature', meta: true, numerator: beats, denominator: 4, metronome: 24, thirtyseconds: 8 },
    { type: 'keySignature', meta: true, key: signature, scale: isMinor(key) ? 1 : 0 },
    { type: 'setTempo', meta: true, microsecondsPerBeat: Math.round(US_A_MINUTE / tempo) },
  ];
  const strings = [...new Set(run.map(({ spot }) => spot.string))].sort((a, b) => a - b);
  const tracks = strings.map((string) => {
    const channel = string - 1 < DRUMS ? string - 1 : string;
    const control = (controllerType: number, value: number): Timed => ({
      at: 0,
      event: { type: 'controller', channel, controllerType, value },
    });
    const name: Timed = {
      at: 0,
      event: {
        type: 'trackName',
        meta: true,
        text: plain(trackName(string, neck.open[string - 1]!)),
      },
    };
    // Registered parameter 0 is the range of the wheel.
    const range = [control(101, 0), control(100, 0), control(6, WHEEL.range), control(38, 0)];
    const notes = run.flatMap((step, i) => {
      if (step.spot.string !== string) return [];
      const until = Math.min(step.start + step.length, run[i + 1]?.start ?? Infinity);
      return struck(step, channel, until - step.start, tempo);
    });
    return track(
      [name, ...(notes.some(({ event }) => event.type === 'pitchBend') ? range : []), ...notes],
      ticks,
    );
  });
  const bytes = writeMidi({
    header: { format: 1, numTracks: 1 + tracks.length, ticksPerBeat: QUARTER },
    tracks: [
      track(
        head.map((event) => ({ at: 0, event })),
        ticks,
      ),
      ...tracks,
    ],
  });
  return {
    bytes: Uint8Array.from(bytes),
    lost: [
      ...without(run, (s) => s.finger > 0, 'Fingers are not in a MIDI file.'),
      ...without(
        run,
        (s) => s.arrive !== 'pick',
        'Slurs, slides and taps sound as picked notes in a MIDI file.',
      ),
    ],
  };
}
