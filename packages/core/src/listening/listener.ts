import { median } from '../arithmetic.ts';
import { frequency } from '../note.ts';
import { holesOf, type Clip } from './holes.ts';
import { centsOf, likeliest } from './salience.ts';
import { spectrumOf } from './spectrum.ts';

/** A note as it was heard. */
export interface HeardNote {
  /** When it began, in seconds of what was listened to. */
  readonly at: number;
  /** MIDI number. */
  readonly midi: number;
  /** How far from it, in cents at A = 440 Hz: 5 is a little sharp. */
  readonly cents: number;
  /** How loud its beginning was, in dB below full scale. */
  readonly level: number;
}

/** What is listened for. */
export interface PitchRange {
  /** The lowest and the highest pitch that may come, MIDI numbers. */
  readonly low: number;
  readonly high: number;
}
/** The same, with what is expected in it. */
export interface Expected extends PitchRange {
  /** The pitches that are due around a moment, in seconds of what is listened to; none where nothing is known. */
  readonly due?: (at: number) => readonly number[];
}

/** A change of pitch that has no beginning of its own, as of a slide. */
export interface Change {
  /** From which pitch to which, MIDI numbers. */
  readonly from: number;
  readonly to: number;
  /** When it is looked for, in seconds of what was listened to: the last seconds that are kept. */
  readonly after: number;
  readonly before: number;
}

/** What listens. Samples are handed on as they come; what they hold is told as soon as it is certain. */
export interface Listener {
  /** Takes the next samples, from −1 to 1, as many as there are, and gives the notes that are certain now. */
  readonly hear: (samples: Float32Array) => readonly HeardNote[];
  /** Looks for a change of pitch; null is none. */
  readonly changed: (change: Change) => HeardNote | null;
  /**
   * The pitch from a moment to another, in seconds of what was listened to, the last that are kept: a MIDI number with its fraction, between two
   * pitches; null where nothing is kept of it.
   */
  readonly pitchIn: (from: number, to: number, between: PitchRange) => number | null;
  /** Nothing more comes: gives the notes that were still waited for. */
  readonly end: () => readonly HeardNote[];
}

/** The window of onsets and how far it steps on, in samples at 48 kHz. */
const WINDOW = 1024;
const HOP = 256;
/** Onsets are looked for up to this frequency, in Hz: above it is mostly noise. */
const FLUX_HZ = 10_300;
/**
 * A frame is held against the loudest, bin by bin, of those from so many before it on, back over a period of the lowest pitch: within one
 * a low string comes and goes. No string is taken to be lower than this, MIDI number.
 */
const AGO = 2;
const LOWEST = 26;
/** Noise is learned fast where it is softer than was thought, and slowly where it is louder, a frame each. */
const NOISE = { softer: 0.12, louder: 1.004, smooth: 4, times: 6, least: 1e-3 };
/** A peak of flux among so many frames around it; above `ratio` times the median of those before and after it, and a floor. */
const PEAK = { around: 4, before: 17, after: 7, ratio: 1.4, floor: 3 };

/** So many frames of flux are kept at most. */
const FORGET = 1000;

/** The spectrum of pitches: its size in samples at 48 kHz. */
const SIZE = 8192;
/**
 * How long is listened for a pitch, in seconds: `periods` of the lowest one that is due, but no less than `usual`, and no more than `most`,
 * where the next note leaves time for that; and what is left out between what was before an onset and what is after it.
 */
const SOUND = { periods: 8, usual: 0.06, most: 0.08, least: 0.035, after: 0.004, before: 0.002 };
/** How much of the loudest neighbouring bin of before is taken away. */
const TAKEN = 0.9;
/**
 * A beginning that brings less than this part of what sounds after it brings no new note, unless it is as strong as a pluck; the note that
 * sounds already is struck again where not much more is new. A weak one that brings the same note again is a wave of it.
 */
const NEW = { part: 0.3, struck: 0.5, pluck: 14, again: 4 };
/** A wrong note is looked for up to so many half steps from those that are due. */
const ASTRAY = 13;
/** Within so many seconds of a far stronger beginning there is no other one: it is the same pluck. */
const SAME = { seconds: 0.06, times: 3 };

/** A change of pitch is looked for in pieces of so many seconds, so many seconds apart; it holds for so many pieces. */
const CHANGE = { piece: 0.046, step: 0.004, holds: 6 };

/** A pitch between half steps is looked for in pieces of so many seconds, so many seconds apart, and first in such parts of a half step. */
const BETWEEN = { piece: 0.12, step: 0.02, part: 0.25 };

interface Onset {
  /** In samples from the beginning. */
  readonly at: number;
  /** How far its flux stands out, in medians. */
  readonly strength: number;
}

/** The power of two that is as long, at a rate in Hz, as so many samples at 48 kHz, or the next one. */
const sized = (samples: number, rate: number): number =>
  2 ** Math.round(Math.log2((samples * rate) / 48_000));

/**
 * What listens to single notes of a plucked string at a rate in Hz (8,000 to 192,000). A beginning is a peak of the spectral flux of
 * log(1 + magnitude / noise), the noise learned bin by bin; its pitch is the one for which the spectrum after it less the one before it
 * speaks most, so that strings that ring on are passed over.
 *
 * @example listener(48000, { low: 40, high: 76 }).hear(new Float32Array(4800)) // []
 */
export function listener(rate: number, { low, high, due = () => [] }: Expected): Listener {
  const window = sized(WINDOW, rate);
  const hop = sized(HOP, rate);
  const size = sized(SIZE, rate);
  const small = spectrumOf(window);
  const large = spectrumOf(size);
  const bin = rate / size;
  const bins = Math.min(window / 2, Math.round((FLUX_HZ * window) / rate));
  const seconds = (s: number): number => Math.round(s * rate);

  /** What is kept of the sound, and which sample its first one is. */
  const kept = { samples: new Float32Array(8 * size), first: 0, filled: 0 };
  const keep = (more: Float32Array): void => {
    const over = kept.filled + more.length - kept.samples.length;
    if (over > 0) {
      const away = Math.max(over, kept.samples.length >> 1);
      kept.samples.copyWithin(0, away, kept.filled);
      kept.first += away;
      kept.filled -= away;
    }
    kept.samples.set(more, kept.filled);
    kept.filled += more.length;
  };

  const holes = holesOf(rate);
  const noise = new Float32Array(bins);
  const period = Math.ceil(rate / frequency(Math.max(LOWEST, low)) / hop);
  const logs: Float32Array[] = Array.from({ length: AGO + period }, () => new Float32Array(bins));
  const ago = new Float32Array(bins);
  /** How many frames were looked at, how many of them had no hole, and whether the last one had none. */
  let frames = 0;
  let whole = 0;
  let wasWhole = false;
  /** The flux of the last frames: that of frame t at t − forgotten. */
  let flux: number[] = [];
  let forgotten = 0;
  /** Beginnings whose pitch is not known yet, and the last one of which it is. */
  let onsets: Onset[] = [];
  let last: (Onset & { readonly midi: number }) | null = null;
  let ended = false;

  const isWhole = (from: number, to: number): boolean => {
    const piece = holes.clear(from, to);
    return piece.to - piece.from === to - from;
  };

  function frame(): void {
    const t = frames++;
    const [from, to] = [t * hop, t * hop + window];
    holes.hear(kept.samples.subarray(holes.known() - kept.first, to - kept.first));
    // A hole that began at the end of the frame before was not known then.
    if (wasWhole && !isWhole(from - hop, to - hop)) {
      whole--;
      flux[flux.length - 1] = 0;
    }
    // What comes after a hole is held against what was before it.
    wasWhole = isWhole(from, to);
    if (!wasWhole) {
      flux.push(0);
      return;
    }
    const w = whole++;
    const magnitudes = small(kept.samples.subarray(0, kept.filled), from - kept.first, window);
    for (let k = 0; k < bins; k++) {
      const m = magnitudes[k]!;
      noise[k] =
        w === 0 ? m : m < noise[k]! ? noise[k]! + NOISE.softer * (m - noise[k]!) : noise[k]! * NOISE.louder;
    }
    ago.fill(0);
    for (let back = AGO; back < logs.length; back++) {
      const was = logs[(w - back + logs.length) % logs.length]!;
      for (let k = 0; k < bins; k++) if (was[k]! > ago[k]!) ago[k] = was[k]!;
    }
    const now = logs[w % logs.length]!;
    let [sum, around] = [0, 0];
    for (let k = 0; k < Math.min(NOISE.smooth, bins); k++) around += noise[k]!;
    for (let k = 0; k < bins; k++) {
      if (k + NOISE.smooth < bins) around += noise[k + NOISE.smooth]!;
      if (k > NOISE.smooth) around -= noise[k - NOISE.smooth - 1]!;
      const wide = Math.min(bins - 1, k + NOISE.smooth) - Math.max(0, k - NOISE.smooth) + 1;
      now[k] = Math.log1p(magnitudes[k]! / (NOISE.times * (around / wide) + NOISE.least));
      if (k >= 2 && w >= AGO)
        sum += Math.max(0, now[k]! - Math.max(ago[k - 1]!, ago[k]!, k + 1 < bins ? ago[k + 1]! : 0));
    }
    flux.push(sum);
  }

  /** Looks at a frame around which enough is known. */
  function peak(t: number): void {
    const here = t - forgotten;
    const f = flux[here]!;
    for (let j = Math.max(0, here - PEAK.around); j <= here + PEAK.around && j < flux.length; j++)
      if (flux[j]! > f || (flux[j] === f && j < here)) return;
    const usual = median(flux.slice(Math.max(0, here - PEAK.before), here + PEAK.after + 1));
    if (f <= PEAK.ratio * usual + PEAK.floor) return;
    onsets.push({ at: t * hop + window - AGO * hop, strength: f / (usual + 1) });
  }

  /** How long is listened for one of some pitches, in seconds; of none known it may be any. */
  const longEnough = (awaited: readonly number[]): number =>
    awaited.length
      ? Math.max(SOUND.usual, Math.min(SOUND.most, SOUND.periods / frequency(Math.min(...awaited))))
      : SOUND.most;

  /** What is listened to of a beginning: as long as is needed, beyond a hole where one lies in it, and less where the next one comes; and whether that was heard by now. */
  function soundAfter(
    onset: Onset,
    next: number,
    awaited: readonly number[],
  ): Clip & { readonly enough: boolean } {
    const from = onset.at + seconds(SOUND.after);
    const length = seconds(longEnough(awaited));
    const last = Math.min(next, from + 2 * length);
    const heard = kept.first + kept.filled;
    const piece = holes.clear(from, Math.min(last, heard));
    return {
      from: piece.from,
      to: Math.min(piece.to, piece.from + length),
      enough: piece.to - piece.from >= length || heard >= last,
    };
  }

  /** The pitch of a beginning, one of some that are due, once enough of it was heard; null is no new note. */
  function noteOf(onset: Onset, next: number, awaited: readonly number[]): HeardNote | null {
    const piece = soundAfter(onset, next, awaited);
    // In whole hops: each length has a window of its own.
    const length = hop * Math.round(Math.max(seconds(SOUND.least), piece.to - piece.from) / hop);
    const sound = kept.samples.subarray(0, kept.filled);
    const until = onset.at - seconds(SOUND.before);
    const old = holes.clear(until - 2 * length, until);
    const before = Float32Array.from(large(sound, old.to - length - kept.first, length));
    const after = large(sound, piece.from - kept.first, length);
    const fresh = new Float32Array(after.length);
    for (let k = 1; k + 1 < fresh.length; k++)
      fresh[k] = Math.max(0, after[k]! - TAKEN * Math.max(before[k - 1]!, before[k]!, before[k + 1]!));
    const lowest = awaited.length ? Math.max(low, Math.min(...awaited) - ASTRAY) : low;
    const highest = awaited.length ? Math.min(high, Math.max(...awaited) + ASTRAY) : high;
    const all = likeliest(after, bin, lowest, highest);
    let best = likeliest(fresh, bin, lowest, highest);
    if (best.score < NEW.part * all.score) {
      // Struck again, or nothing new: a noise of the hand, a wave of what sounds.
      if (onset.strength < NEW.pluck) return null;
      best = all;
    }
    if (last?.midi === best.midi) {
      // A pluck in which sound was lost may seem to begin twice.
      const split = onset.at - last.at < seconds(SAME.seconds) && !isWhole(last.at, onset.at);
      if (split || onset.strength < NEW.again) return null;
    }
    last = { ...onset, midi: best.midi };
    return heardAt(onset.at, best.midi, length);
  }

  function heardAt(at: number, midi: number, length: number): HeardNote {
    const from = at - kept.first;
    let power = 0;
    for (let i = 0; i < length; i++) power += (kept.samples[from + i] ?? 0) ** 2;
    return {
      at: at / rate,
      midi,
      cents: centsOf(
        large(kept.samples.subarray(0, kept.filled), from + seconds(SOUND.after), length),
        bin,
        midi,
      ),
      level: 10 * Math.log10(power / length + 1e-12),
    };
  }

  function certain(): readonly HeardNote[] {
    const notes: HeardNote[] = [];
    while (frames * hop + window <= kept.first + kept.filled) {
      frame();
      if (frames > PEAK.after) peak(frames - 1 - PEAK.after);
    }
    if (ended) for (let t = Math.max(0, frames - PEAK.after); t < frames; t++) peak(t);
    if (flux.length > FORGET) {
      forgotten += flux.length - PEAK.before - PEAK.after - 1;
      flux = flux.slice(-PEAK.before - PEAK.after - 1);
    }
    // A far stronger one close by is the same pluck.
    onsets = onsets.filter((a) => {
      const near = [...onsets, ...(last ? [last] : [])];
      return !near.some(
        (b) => Math.abs(a.at - b.at) < seconds(SAME.seconds) && b.strength > SAME.times * a.strength,
      );
    });
    while (onsets[0]) {
      const next = onsets[1]?.at ?? Infinity;
      const awaited = due(onsets[0].at / rate);
      if (!ended && !soundAfter(onsets[0], next, awaited).enough) break;
      const note = noteOf(onsets.shift()!, next, awaited);
      if (note) notes.push(note);
    }
    return notes;
  }

  function changed({ from, to, after, before }: Change): HeardNote | null {
    const length = hop * Math.round(seconds(CHANGE.piece) / hop);
    const [lowest, highest] = [Math.min(from, to) - 1, Math.max(from, to) + 1];
    const sound = kept.samples.subarray(0, kept.filled);
    let was = false;
    let held = 0;
    for (let at = after; at <= before; at += CHANGE.step) {
      const start = seconds(at) - kept.first;
      if (start < 0 || start + length > kept.filled) continue;
      const { midi, score } = likeliest(large(sound, start, length), bin, lowest, highest);
      if (score > 0 && midi === to) held++;
      else {
        held = 0;
        was = true;
      }
      if (held < CHANGE.holds) continue;
      const began = at - (held - 1) * CHANGE.step + CHANGE.piece / 2;
      return was ? heardAt(seconds(began), to, seconds(SOUND.least)) : null;
    }
    return null;
  }

  function pitchIn(from: number, to: number, { low: lowest, high: highest }: PitchRange): number | null {
    const length = seconds(Math.min(BETWEEN.piece, to - from));
    const sound = kept.samples.subarray(0, kept.filled);
    const pitches: number[] = [];
    for (let start = seconds(from); start + length <= seconds(to) + 1; start += seconds(BETWEEN.step)) {
      const at = start - kept.first;
      if (at < 0 || at + length > kept.filled) continue;
      const magnitudes = large(sound, at, length);
      const { midi } = likeliest(magnitudes, bin, lowest, highest, BETWEEN.part);
      pitches.push(midi + centsOf(magnitudes, bin, midi) / 100);
    }
    return pitches.length ? median(pitches) : null;
  }

  return {
    changed,
    pitchIn,
    hear: (samples) => {
      const notes: HeardNote[] = [];
      // No more at once than what is kept can hold.
      for (let i = 0; i < samples.length; i += size) {
        keep(samples.subarray(i, i + size));
        notes.push(...certain());
      }
      return notes;
    },
    end: () => {
      ended = true;
      return certain();
    },
  };
}
