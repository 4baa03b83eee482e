import { type Run, type Schedule } from '@crow-ladder/core/run';
import { slidFrom } from '@crow-ladder/core/sound';
import { type ticking } from './ticks.ts';
import { clicksFor, leavesAt, limiter, soundClick, soundNote } from './voices.ts';

/** What is played: a run with its times, the sound of each of its notes, which of them have an accent beside the metre's, and whether it begins again at its end. */
export interface Plan {
  readonly run: Run;
  readonly schedule: Schedule;
  readonly sounds: readonly AudioBuffer[];
  /** What sounds under the notes. */
  readonly chords: readonly ChordSound[];
  readonly groups: Groups;
  readonly loop: boolean;
}
/** A chord that sounds from one time to another, in seconds of the schedule. */
export interface ChordSound {
  readonly at: number;
  readonly until: number;
  readonly buffer: AudioBuffer;
}
/** How many notes make a group whose first one has an accent, 1 where none do; `from` notes of the first group were left out. */
export interface Groups {
  readonly size: number;
  readonly from: number;
}
/** How loud notes, clicks and chords are, from 0 to 1. */
export interface Levels {
  readonly notes: number;
  readonly click: number;
  readonly chords: number;
}
/** What is heard at a moment: the last step of the run and the last beat, counted from 0; null before the first. */
export interface Heard {
  readonly step: number | null;
  readonly beat: number | null;
  /** How often the whole run was heard, from its first note to the end of its last. */
  readonly rounds: number;
}

/**
 * How far ahead sounds are handed to the audio clock, as it begins and from then on, how often that is looked after, and when the
 * first one comes, in seconds.
 */
const AHEAD = { begin: 1.5, sounds: 3, look: 0.2, first: 0.12 };
/** How loud all that is handed over is together, so that a note, the end of the one before and a click stay below full scale. */
export const TOGETHER = 0.4;
/** A sound that is nearer than this is not taken back any more. */
const NEAR = 0.03;
/** What should have sounded longer ago than this is left out: a note that comes late is wrong. */
const LATE = 0.02;
/** How soon all is silent when it is stopped, and by how much the first note of a group, or one with an accent, is louder (3 dB). */
const STOP = 0.015;
const ACCENT = 10 ** (3 / 20);

/** One pass through what is played. */
export interface Pass {
  /** Which one it is, from 0. */
  readonly pass: number;
  /** When its schedule begins, in seconds of the audio clock, as if it had been in these times from the beginning. */
  readonly origin: number;
  readonly schedule: Schedule;
  /** The first of its notes that comes in these times, from 0; earlier ones were played, or are left out. */
  readonly from: number;
}

type Event =
  | { readonly at: number; readonly step: number; readonly until: number }
  | (ChordSound & { readonly chord: number })
  | { readonly at: number; readonly accent: boolean; readonly beat: number };
const isNote = (event: Event): event is Extract<Event, { step: number }> => 'step' in event;
const isChord = (event: Event): event is Extract<Event, { chord: number }> => 'chord' in event;
const rank = (event: Event): number => (isNote(event) ? 2 : isChord(event) ? 1 : 0);

/** Everything of a plan in order of time; clicks before chords, chords before notes. */
function eventsOf({ schedule, chords }: Plan): readonly Event[] {
  const clicks = schedule.clicks.map((c, beat): Event => ({ ...c, beat }));
  const under = chords.map((it, chord): Event => ({ ...it, chord }));
  return [...clicks, ...under, ...schedule.notes].sort((a, b) => a.at - b.at || rank(a) - rank(b));
}

/** Where an event stands among those of the same run in other times; where it is none of them, what comes at its time. */
function sameIn(events: readonly Event[], was: Event | undefined): number {
  if (!was) return events.length;
  const at = events.findIndex((e) =>
    isNote(was)
      ? isNote(e) && e.step === was.step
      : isChord(was)
        ? isChord(e) && e.chord === was.chord
        : 'beat' in e && e.beat === was.beat,
  );
  if (at >= 0) return at;
  const later = events.findIndex((e) => e.at >= was.at);
  return later < 0 ? events.length : later;
}

/** The beat that a step lies in; null where it is the first one. */
function firstBeat({ schedule }: Plan, step: number): { readonly at: number; readonly step: number } | null {
  const note = schedule.notes[step];
  if (!step || !note) return null;
  const before = schedule.clicks.filter((c) => c.at <= note.at + 1e-9).at(-1);
  return { at: before?.at ?? note.at, step };
}

/**
 * Plays a plan on the clock of an audio context: sounds are handed to it some seconds ahead, so that a page in the background keeps
 * time. It begins at step `begin`, on the beat that this lies in, after the count-in unless that is left out. `onEnd` is told once the
 * last one was heard.
 */
export function playback(
  ctx: AudioContext,
  first: Plan,
  levels: Levels,
  begin: number,
  ticks: typeof ticking,
  onEnd: () => void,
  counted = true,
  onPass: (pass: Pass) => void = () => undefined,
) {
  const notes = new GainNode(ctx, { gain: levels.notes });
  const click = new GainNode(ctx, { gain: levels.click });
  const under = new GainNode(ctx, { gain: levels.chords });
  const all = new GainNode(ctx, { gain: TOGETHER });
  notes.connect(all);
  click.connect(all);
  under.connect(all);
  const limited = limiter(ctx);
  all.connect(limited);
  const clicks = clicksFor(ctx);
  let plan = first;
  let events = eventsOf(plan);
  /** When the plan began on the clock of the context, as if it had been in this pass from its beginning; and what comes next. */
  let origin = ctx.currentTime + AHEAD.first;
  let next = counted ? 0 : events.findIndex((e) => e.at >= first.schedule.from);
  if (!counted) origin -= first.schedule.from;
  /** Where the first pass begins: what comes before it is left out. */
  let skip = firstBeat(first, begin);
  let unheard = begin;
  /** What was handed over, in order. */
  let given: {
    readonly at: number;
    readonly origin: number;
    readonly event: Event;
    readonly source: AudioScheduledSourceNode;
  }[] = [];
  let last: number | null = null;
  let heard: Heard = { step: null, beat: null, rounds: 0 };
  /** Whether this pass began with the first note, and whether its end was handed over; and when passes end. */
  let pass = { whole: begin === 0, ended: false };
  /** Which pass is handed over, and whether it was told that it begins. */
  let passes = { now: 0, told: false };
  const tellPass = (from: number): void => {
    passes = { ...passes, told: true };
    onPass({ pass: passes.now, origin, schedule: plan.schedule, from });
  };
  let ends: {
    readonly lastAt: number;
    readonly at: number;
    readonly whole: boolean;
    readonly pass: number;
  }[] = [];

  const sound = (event: Event, at: number): AudioScheduledSourceNode => {
    if (isChord(event)) {
      const until = at + event.until - event.at;
      return soundNote(ctx, under, {
        buffer: event.buffer,
        arrive: 'pick',
        slide: 0,
        held: {},
        loud: 1,
        at,
        until,
      });
    }
    if (!isNote(event)) return soundClick(ctx, click, event.accent ? clicks.accent : clicks.beat, at);
    const step = plan.run[event.step]!;
    const { spot, arrive } = step;
    const after = plan.run[event.step + 1];
    // The string sounds on until the next note has it: a slide has it before its beat.
    const ends = at + event.until - event.at;
    const until = after?.arrive === 'slide' && after.spot.string === spot.string ? leavesAt(ends) : ends;
    const { size, from } = plan.groups;
    const isFirst = size > 1 && (event.step + from) % size === 0;
    const loud = isFirst || step.accent ? ACCENT : 1;
    return soundNote(ctx, notes, {
      buffer: plan.sounds[event.step]!,
      arrive,
      slide: slidFrom(plan.run, event.step),
      held: step,
      loud,
      at,
      until,
    });
  };
  const feed = (ahead = AHEAD.sounds): void => {
    const now = ctx.currentTime;
    given = given.filter((g) => g.at > now - 1);
    while (last === null) {
      if (next === events.length) {
        const end = plan.schedule.notes.at(-1);
        if (end && !pass.ended)
          ends.push({ lastAt: origin + end.at, at: origin + end.until, whole: pass.whole, pass: passes.now });
        pass = { ...pass, ended: true };
        if (!plan.loop) {
          last = origin + plan.schedule.end;
          break;
        }
        origin += plan.schedule.end - plan.schedule.from;
        next = events.findIndex((e) => e.at >= plan.schedule.from);
        pass = { whole: true, ended: false };
        passes = { now: passes.now + 1, told: false };
      }
      if (skip && events[next]!.at >= plan.schedule.from) {
        origin -= skip.at - plan.schedule.from;
        const { at: from } = skip;
        next = events.findIndex((e) => e.at >= from);
        skip = null;
      }
      const event = events[next]!;
      if (isNote(event) && event.step < unheard) {
        next++;
        continue;
      }
      if (isNote(event)) unheard = 0;
      const at = origin + event.at;
      if (at > now + ahead) break;
      if (isNote(event) && !passes.told) tellPass(event.step);
      // What was missed, as where the page stood still, is left out: nothing is played late, or all at once.
      if (at >= now - LATE) given.push({ at, origin, event, source: sound(event, Math.max(at, now)) });
      next++;
    }
    if (last !== null && now > last) {
      stop();
      onEnd();
    }
  };
  const endTicks = ticks(AHEAD.look * 1000, () => feed());
  const stop = (): void => {
    endTicks();
    all.gain.setTargetAtTime(0, ctx.currentTime, STOP / 4);
    for (const { source } of given) source.stop(ctx.currentTime + 2 * STOP);
    setTimeout(() => limited.disconnect(), 100);
  };
  feed(AHEAD.begin);
  /** What is heard now was handed over for this time, as the speakers are late by what the context says of them. */
  const atSpeakers = (): number => ctx.currentTime - (ctx.outputLatency || 0);

  return {
    stop,
    setLevels: (to: Levels): void => {
      notes.gain.setTargetAtTime(to.notes, ctx.currentTime, 0.01);
      click.gain.setTargetAtTime(to.click, ctx.currentTime, 0.01);
      under.gain.setTargetAtTime(to.chords, ctx.currentTime, 0.01);
    },
    /** Goes on with the same run in other times, from the next sound on, which comes when it would have come. */
    retime: (to: Plan): void => {
      const from = ctx.currentTime + NEAR;
      const back = given.filter((g) => g.at > from);
      for (const { source } of back) source.stop();
      given = given.filter((g) => g.at <= from);
      // A pass whose last note is taken back ends when that is handed over again.
      const reopened = ends.find((end) => end.lastAt > from);
      if (reopened) {
        pass = { whole: reopened.whole, ended: false };
        passes = { now: reopened.pass, told: true };
      }
      ends = ends.filter((end) => end.lastAt <= from);
      const at = back[0]?.at ?? origin + (events[next]?.at ?? plan.schedule.end);
      const due = back[0]?.event ?? events[next];
      plan = to;
      if (skip) skip = firstBeat(to, skip.step);
      events = eventsOf(to);
      next = sameIn(events, due);
      origin = at - (events[next]?.at ?? to.schedule.end);
      last = null;
      const note = events.slice(next).find(isNote);
      if (passes.told && note) tellPass(note.step);
      feed();
    },
    heard: (): Heard => {
      const now = atSpeakers();
      for (const { at, event } of given)
        if (at <= now)
          heard = isNote(event)
            ? { ...heard, step: event.step }
            : isChord(event)
              ? heard
              : { ...heard, beat: event.beat };
      heard = { ...heard, rounds: heard.rounds + ends.filter((end) => end.whole && end.at <= now).length };
      ends = ends.filter((end) => end.at > now);
      return heard;
    },
    /** How soon another step, beat or end is heard, in seconds; infinite where none was handed over yet. */
    untilNext: (): number => {
      const now = atSpeakers();
      const steps = given.filter(({ event }) => !isChord(event));
      return Math.min(...[...steps, ...ends].flatMap(({ at }) => (at > now ? [at - now] : [])));
    },
  };
}
export type Playback = ReturnType<typeof playback>;
