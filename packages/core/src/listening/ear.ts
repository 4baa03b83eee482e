import { bendTimes } from '../run/bend.ts';
import { type Arrive, type Bend } from '../run/run.ts';
import { aligned, type Alignment, type AskedNote } from './align.ts';
import { type HeardNote, type Listener, listener, type PitchRange } from './listener.ts';
import { ownAmong } from './own.ts';

/** A note that is asked for, as it is reached. */
export interface AskedStep extends AskedNote {
  readonly arrive: Arrive;
  readonly bend?: Bend | undefined;
}

/** Notes that are asked for in a row, in seconds of what is listened to. */
export interface AskedRound {
  readonly id: number;
  readonly notes: readonly AskedStep[];
  /** Whose time is kept: that of a click, or the player's own. */
  readonly to: 'click' | 'own';
  /** When the page itself sounds, in the same seconds: what a loudspeaker gives back of it is left out. */
  readonly own?: readonly number[];
}

/** A round as far as it was heard. */
export interface HeardRound extends Alignment {
  readonly id: number;
  readonly heard: readonly HeardNote[];
  /** How many of its notes are due by now: what comes later may still be played. */
  readonly due: number;
  /** How far bends were from where they should arrive, in cents, by the note that was asked for. */
  readonly bent: ReadonlyMap<number, number>;
}

/** What listens to rounds, one after the other. */
export interface Ear {
  /** Asks for a round, or for one that goes on in other times; earlier ones go on being judged until it begins. */
  readonly ask: (round: AskedRound) => void;
  /** Takes the next samples, and gives the rounds of which something is new. */
  readonly hear: (samples: Float32Array) => readonly HeardRound[];
  readonly end: () => readonly HeardRound[];
}

/** What is told of a note is told so many seconds after it was due, when none came; and a change of pitch is sought so far around it. */
const WAITED = 0.25;
const SOUGHT = { before: 0.16, after: 0.14 };
/** What is heard of a slide on its way, in seconds before and after it arrived, is no note. */
const ON_ITS_WAY = { before: 0.16, after: 0.06 };
/** A note may be due around its time by so many seconds, or notes of its length. */
const DUE = { least: 0.35, notes: 1.5 };
/** So far from the notes of a round that is over, in seconds, nothing belongs to it any more. */
const REACH = 0.6;

interface Round {
  asked: AskedRound;
  heard: HeardNote[];
  /** Slurred notes that were sought already, and what was found. */
  readonly sought: Set<number>;
  readonly found: Set<HeardNote>;
  due: number;
  alignment: Alignment;
  readonly bent: Map<number, number>;
}

/** A round of which nothing was heard. */
const NOTHING: Alignment = { answered: [], extra: [], fit: { delay: 0, tempo: 1 } };

/** A bend is held for so many seconds at least, and looked for so many half steps around where it begins and should arrive. */
const BENT = { held: 0.14, least: 0.05, around: 1 };

const firstOf = ({ asked: { notes } }: Round): number => notes[0]?.at ?? 0;
const lastOf = ({ asked: { notes } }: Round): number => (notes.at(-1)?.at ?? 0) + (notes.at(-1)?.length ?? 0);

/**
 * What listens to rounds at a rate in Hz: beginnings and pitches by `listener`, slides and slurs that have no beginning of their own by the
 * change of pitch near where they are due, and what became of each note by `aligned`.
 *
 * @example earOf(48000, { low: 40, high: 76 }).hear(new Float32Array(4800)) // []
 */
export function earOf(rate: number, range: PitchRange): Ear {
  let rounds: Round[] = [];
  let samples = 0;

  /** The round to which a moment belongs: that with the note nearest in time. */
  const roundAt = (at: number): Round | undefined => {
    let best: Round | undefined;
    let least = REACH;
    for (const round of rounds) {
      const away = Math.max(firstOf(round) - at, at - lastOf(round), 0);
      if (away < least || (away === 0 && best === undefined)) [best, least] = [round, away];
    }
    return best;
  };

  const listening: Listener = listener(rate, {
    ...range,
    due: (at) => {
      const round = roundAt(at);
      if (!round) return [];
      const { delay, tempo } = round.alignment.fit;
      const due = round.asked.notes.filter(
        (note) => Math.abs(delay + tempo * note.at - at) < Math.max(DUE.least, DUE.notes * note.length),
      );
      return due.map((note) => note.midi);
    },
  });

  /** Looks for slides and slurs that are due and were not heard; whether something was found. */
  function seek(round: Round, { answered, fit }: Alignment, now: number): boolean {
    const { notes } = round.asked;
    let found = false;
    notes.forEach(({ arrive, at, midi }, i) => {
      const before = notes[i - 1];
      if (!before || arrive === 'pick' || arrive === 'tap' || round.sought.has(i) || before.midi === midi)
        return;
      const due = fit.delay + fit.tempo * at;
      if (now < due + WAITED) return;
      round.sought.add(i);
      const was = answered[i]!;
      const heard = was.is === 'right' ? round.heard[was.heard]! : null;
      // A slide on its way may sound like notes of its own, or like a wrong one.
      if (heard ? arrive !== 'slide' : was.is === 'wrong' && arrive !== 'slide') return;
      const note =
        heard ??
        listening.changed({
          from: before.midi,
          to: midi,
          after: due - SOUGHT.before,
          before: due + SOUGHT.after,
        });
      if (!note) return;
      const right = new Set(answered.flatMap((a) => (a.is === 'right' ? [round.heard[a.heard]!] : [])));
      const [low, high] = [Math.min(before.midi, midi), Math.max(before.midi, midi)];
      // On its way the octave may speak louder.
      const between = (it: number): boolean => it >= low && it <= high;
      const passed = (it: HeardNote): boolean =>
        !right.has(it) &&
        !round.found.has(it) &&
        it.at > note.at - ON_ITS_WAY.before &&
        it.at < note.at + ON_ITS_WAY.after &&
        (between(it.midi) || between(it.midi - 12));
      const left = round.heard.filter((it) => !passed(it));
      if (heard && left.length === round.heard.length) return;
      found = true;
      round.found.add(note);
      round.heard = heard ? left : [...left, note].sort((a, b) => a.at - b.at);
    });
    return found;
  }

  /** A bent note may be heard on its way: that is no other note. */
  function unbent(round: Round, note: HeardNote): HeardNote {
    const { delay, tempo } = round.alignment.fit;
    const away = ({ at }: AskedNote): number => Math.abs(delay + tempo * at - note.at);
    const nearest = round.asked.notes.reduce((best, it) => (away(it) < away(best) ? it : best));
    const { midi, bend } = nearest;
    return bend && note.midi > midi && note.midi <= midi + Math.ceil(bend.by) ? { ...note, midi } : note;
  }

  /** Measures bends that have arrived; whether there was one. */
  function bends({ asked, heard, alignment, bent }: Round, now: number): boolean {
    const before = bent.size;
    asked.notes.forEach(({ midi, bend, length }, i) => {
      const answer = alignment.answered[i];
      if (!bend || bent.has(i) || answer?.is !== 'right') return;
      const { at } = heard[answer.heard]!;
      const { there, letGo } = bendTimes(bend, alignment.fit.tempo * length);
      const from = at + there;
      const to = at + Math.min(letGo, there + BENT.held);
      if (to - from < BENT.least || now < to) return;
      const between = { low: midi - BENT.around, high: midi + bend.by + BENT.around };
      const pitch = listening.pitchIn(from, to, between);
      if (pitch !== null) bent.set(i, 100 * (pitch - midi - bend.by));
    });
    return bent.size > before;
  }

  function told(notes: readonly HeardNote[], ended: boolean): readonly HeardRound[] {
    const changed = new Set<Round>();
    for (const note of notes) {
      const round = roundAt(note.at);
      if (!round) continue;
      round.heard = [...round.heard, unbent(round, note)].sort((a, b) => a.at - b.at);
      changed.add(round);
    }
    const now = ended ? Infinity : samples / rate;
    for (const round of rounds) if (!changed.has(round) && bends(round, now)) changed.add(round);
    const said = rounds.flatMap((round): readonly HeardRound[] => {
      const { notes: asked, to } = round.asked;
      // Until the player's delay is known a note is due when it is asked for; what is due stays so.
      const delay = Math.max(0, round.alignment.fit.delay);
      const soon = asked.findIndex(({ at, length }) => delay + at + Math.max(length, WAITED) > now - WAITED);
      const due = soon < 0 ? asked.length : Math.max(soon, round.due);
      if (!changed.has(round) && due === round.due) return [];
      round.due = due;
      let alignment = aligned(asked, round.heard, to);
      if (round.heard.length && seek(round, alignment, now)) alignment = aligned(asked, round.heard, to);
      round.alignment = alignment;
      if (ended) bends(round, now);
      return [{ ...withoutOwn(round, alignment, now), id: round.asked.id, due, bent: new Map(round.bent) }];
    });
    rounds = rounds.filter((round) => now < lastOf(round) + 2 * REACH);
    return said;
  }

  /** What was heard without what the page itself played. */
  function withoutOwn(
    { asked, heard }: Round,
    alignment: Alignment,
    now: number,
  ): Alignment & Pick<HeardRound, 'heard'> {
    const own = asked.own?.filter((at) => at < now) ?? [];
    const right = new Set(alignment.answered.flatMap((a) => (a.is === 'right' ? [a.heard] : [])));
    const others = heard.flatMap((_, i) => (right.has(i) ? [] : [i]));
    const back = new Set(
      ownAmong(
        others.map((i) => heard[i]!.at),
        own,
      ).map((k) => others[k]!),
    );
    if (!back.size) return { ...alignment, heard };
    const left = heard.filter((_, i) => !back.has(i));
    return { ...aligned(asked.notes, left, asked.to), heard: left };
  }

  return {
    ask: (asked) => {
      const going = rounds.find((round) => round.asked.id === asked.id);
      if (going) going.asked = asked;
      else
        rounds.push({
          asked,
          heard: [],
          sought: new Set(),
          found: new Set(),
          due: 0,
          alignment: NOTHING,
          bent: new Map(),
        });
    },
    hear: (more) => {
      samples += more.length;
      return told(listening.hear(more), false);
    },
    end: () => told(listening.end(), true),
  };
}
