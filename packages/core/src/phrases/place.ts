import { type Neck, onNeck } from '../neck.ts';
import { type Place } from '../place.ts';
import { costOfWay, waysOf } from '../plan/search.ts';
import {
  type Asks,
  type Choice,
  isJoined,
  type PlanNote,
  type PlanTask,
  stepOf,
  wayBetween,
} from '../plan/task.ts';
import { type HandPlace, widestHand } from '../run/hands.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Articulated, QUARTER, type Run, type Step, TAP } from '../run/run.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { raised } from './changes.ts';
import { type Told } from './told.ts';
import { type PhraseNote, startsOf, ticksOf, type Tune, type TuneNote } from './phrase.ts';

/** Where a phrase is to be placed. */
export interface PhraseGround {
  readonly neck: Neck;
  readonly key: Key;
  readonly hand: HandOptions;
  /** Strings with a number above this are wound. */
  readonly plain: number;
  /** Quarter notes a minute. */
  readonly tempo: number;
}
/** Where on the neck it may lie; what is left out is not limited. */
export interface Within {
  /** Lowest and highest fret, from the capo; open strings lie outside where the lowest is not 0. */
  readonly frets?: readonly [number, number] | undefined;
  readonly strings?: readonly number[] | undefined;
}

/** A phrase as it is taken somewhere. */
export interface PhraseWay {
  /** Its notes in time; rests are gaps. */
  readonly run: Run;
  /** Which note of the phrase each step of the run is. */
  readonly notes: readonly number[];
  /** How long it lasts, its last rests too, in ticks. */
  readonly ticks: number;
  readonly cost: number;
  /** How often the hand moves. */
  readonly shifts: number;
  /** The place of the hand that is widest, null where nothing is pressed. */
  readonly widest: HandPlace | null;
  /** What of the phrase could not be kept here. */
  readonly told: readonly Told[];
}

/**
 * Notes of a tune where a way takes them; what falls off the neck is a rest.
 *
 * @example notesOn(tune, asFound(ground, tune)).length // 4
 */
export function notesOn(tune: Tune, { run, notes }: Pick<PhraseWay, 'run' | 'notes'>): readonly PhraseNote[] {
  const places = new Map<number, Place>(
    run.map(({ spot: { string, fret } }, i) => [notes[i]!, { string, fret }]),
  );
  return tune.map(({ midi: _, string: __, ...rest }, i) => ({ ...rest, at: places.get(i) ?? null }));
}

/** All places of a pitch within what is allowed, by string. */
const placesOf = ({ open, frets }: Neck, midi: number, { frets: only, strings }: Within): readonly Place[] =>
  open.flatMap((at, i): readonly Place[] => {
    const place = { string: i + 1, fret: midi - at };
    const [low, high] = only ?? [0, frets];
    const fits = place.fret >= Math.max(0, low) && place.fret <= high;
    return fits && (strings?.includes(place.string) ?? true) ? [place] : [];
  });

/** A note that is to be placed, and what it cannot be asked. */
interface Asked {
  readonly note: number;
  readonly plan: PlanNote;
  readonly told: readonly Told[];
}

/** The notes of a tune with what each asks of the fingers and the places that it may have. */
function asked(
  { key }: PhraseGround,
  tune: Tune,
  placesFor: (note: TuneNote & { readonly midi: number }, i: number) => readonly Place[],
): readonly Asked[] {
  return tune.flatMap((it, note): readonly Asked[] => {
    const { midi, joined, bend, vibrato, finger } = it;
    if (midi === null) return [];
    const all = placesFor({ ...it, midi }, note);
    const pressed = all.filter((p) => p.fret > 0);
    const wantsTap = joined === 'tap';
    const wantsHeld = (bend ?? vibrato) !== undefined;
    // What is held or tapped is pressed; after a rest there is nothing to be slurred from.
    const isHeld = wantsHeld && !wantsTap && pressed.length > 0;
    const canJoin = wantsTap ? pressed.length > 0 : note > 0 && tune[note - 1]!.midi !== null;
    const told: Told[] = [
      ...(joined && !canJoin ? [{ kind: 'picked', note } as const] : []),
      ...(wantsHeld && !isHeld ? [{ kind: 'straight', note } as const] : []),
    ];
    const asks: Asks = {
      ...(finger !== undefined && { finger }),
      ...(isHeld && { bent: bend?.by ?? 0 }),
      ...(joined && canJoin && { joined }),
    };
    const places = isHeld || (wantsTap && canJoin) ? pressed : all;
    return [{ note, told, plan: { midi, degree: degreeIndex(key, midi), places, asks } }];
  });
}

/** Notes a second, as its shorter ones go. */
function speedOf(tune: Tune, tempo: number): number {
  const lengths = tune.map(({ length }) => length).sort((a, b) => a - b);
  const usual = lengths[Math.floor(lengths.length / 4)] ?? QUARTER;
  return (tempo / 60) * (QUARTER / usual);
}

/** How a note that was placed is struck. */
const arriveOf = (
  before: Choice | undefined,
  { spot, grip, asks }: Choice,
  joined: boolean,
): Articulated['arrive'] => {
  if (grip.finger === TAP) return 'tap';
  if (!asks?.joined || !joined) return 'pick';
  if (asks.joined === 'slide') return 'slide';
  return spot.fret > before!.spot.fret ? 'hammer' : 'pull';
};

function wayFrom(
  { neck }: PhraseGround,
  tune: Tune,
  asks: readonly Asked[],
  way: readonly Choice[],
  cost: number,
  off: readonly Told[],
): PhraseWay {
  const starts = startsOf(tune);
  const told: Told[] = [...off];
  const run = way.map((choice, i): Step => {
    const { note, told: before } = asks[i]!;
    const { bend, vibrato, accent, length, finger } = tune[note]!;
    told.push(...before);
    const joined = isJoined(way[i - 1], choice);
    if (!joined) told.push({ kind: 'picked', note });
    if (finger !== undefined && choice.grip.finger > 0 && choice.grip.finger !== finger)
      told.push({ kind: 'finger', note });
    const isHeld = choice.asks?.bent !== undefined;
    return {
      ...stepOf(choice),
      arrive: arriveOf(way[i - 1], choice, joined),
      ...(isHeld && bend && { bend }),
      ...(isHeld && vibrato && { vibrato }),
      ...(accent && { accent }),
      start: starts[note]!,
      length,
    };
  });
  return {
    run,
    notes: asks.map(({ note }) => note),
    ticks: ticksOf(tune),
    cost,
    shifts: way.filter((c, i) => i > 0 && wayBetween(way[i - 1]!, c)).length,
    widest: widestHand(neck, run),
    told: told.sort((a, b) => a.note - b.note),
  };
}

/** Notes that have no place at all, with whether they lie too low. */
const offNeck = ({ neck }: PhraseGround, tune: Tune): readonly Extract<Told, { kind: 'off' }>[] =>
  tune.flatMap(({ midi }, note) =>
    midi === null || placesOf(neck, midi, {}).length
      ? []
      : [{ kind: 'off' as const, note, low: midi < Math.max(...neck.open) }],
  );
/** A tune with rests in place of some notes; what follows them is picked. */
const without = (tune: Tune, off: readonly Told[]): Tune => {
  const gone = new Set(off.map(({ note }) => note));
  return tune.map((note, i) => (gone.has(i) ? { length: note.length, midi: null, string: null } : note));
};

const taskOf = (ground: PhraseGround, tune: Tune, notes: readonly Asked[]): PlanTask => ({
  neck: ground.neck,
  hand: ground.hand,
  notes: notes.map(({ plan }) => plan),
  limits: {},
  speed: speedOf(tune, ground.tempo),
  plain: ground.plain,
  stays: true,
});

/**
 * The ways to take a phrase, each beginning on another string, the easiest first: the same pitches elsewhere, by the cost of the fingering, in
 * which a slur that is lost weighs like a slide across the hand. At most `k`; none where it has no place within what is allowed. Notes that lie nowhere on the neck are
 * rests, and named; where all do, nothing sounds.
 *
 * @example placesOfPhrase(ground, tune, {}, 3).length // 3
 */
export function placesOfPhrase(
  ground: PhraseGround,
  tune: Tune,
  within: Within,
  k: number,
  onNote?: (done: number) => void,
): readonly PhraseWay[] {
  const off = offNeck(ground, tune);
  const kept = without(tune, off);
  const notes = asked(ground, kept, ({ midi }) => placesOf(ground.neck, midi, within));
  if (!notes.length) return off.length ? [silent(tune, off)] : [];
  const task = taskOf(ground, kept, notes);
  return waysOf(task, k, onNote, 'start').map((way) =>
    wayFrom(ground, kept, notes, way, costOfWay(task, way), off),
  );
}

/** Octaves that a phrase is looked for in a position in: its own first. */
const OCTAVES = [0, 12, -12];
/**
 * A phrase within the frets of a position: as high as it is, or where it does not lie there an octave up or down; where none does, with the notes outside as near as can be, which are named. Null where it has no note.
 *
 * @example inFrets(ground, tune, [5, 8]).told // []
 */
export function inFrets(
  ground: PhraseGround,
  tune: Tune,
  [low, high]: readonly [number, number],
): PhraseWay | null {
  const { neck } = ground;
  const outside = ({ fret }: Place): number => Math.max(low - fret, fret - high, 0);
  const tries = OCTAVES.map((by): PhraseWay | null => {
    const moved = raised(tune, by);
    const off = offNeck(ground, moved);
    const kept = without(moved, off);
    const notes = asked(ground, kept, ({ midi }) => {
      const all = placesOf(neck, midi, {});
      const least = Math.min(...all.map(outside));
      return all.filter((place) => outside(place) === least);
    });
    if (!notes.length) return null;
    const task = taskOf(ground, kept, notes);
    const [way] = waysOf(task, 1);
    if (!way) return null;
    const beyond = way.flatMap(({ spot }, i): readonly Told[] =>
      outside(spot) ? [{ kind: 'beyond', note: notes[i]!.note }] : [],
    );
    const moves: readonly Told[] = by ? [{ kind: 'octave', note: 0, up: by > 0 }] : [];
    return wayFrom(ground, kept, notes, way, costOfWay(task, way), [...moves, ...off, ...beyond]);
  });
  const lost = ({ told }: PhraseWay): number =>
    told.filter(({ kind }) => kind === 'off' || kind === 'beyond').length;
  // As high as it is, unless that leaves more of it outside.
  return tries.reduce<PhraseWay | null>(
    (best, way) => (way && (!best || lost(way) < lost(best)) ? way : best),
    null,
  );
}

/**
 * A phrase on the strings that it was written on, with its fingers; null where a note has no place there.
 *
 * @example asWritten(ground, tune).shifts // 0
 */
export function asWritten(ground: PhraseGround, tune: Tune): PhraseWay | null {
  const { neck } = ground;
  const notes = asked(ground, tune, ({ midi, string }) => {
    if (string === null) return [];
    const place = { string, fret: midi - (neck.open[string - 1] ?? Infinity) };
    return onNeck(neck, place.string, place.fret) ? [place] : [];
  });
  if (notes.some(({ plan }) => !plan.places.length)) return null;
  if (!notes.length) return silent(tune);
  const task = taskOf(ground, tune, notes);
  const [way] = waysOf(task, 1);
  return way ? wayFrom(ground, tune, notes, way, costOfWay(task, way), []) : null;
}
/**
 * A tune whose notes have strings or not, as those of a file: strings are kept where the notes lie on them, the others are chosen so that all is
 * taken most easily. Notes that lie nowhere on the neck are rests, and named.
 *
 * @example asFound(ground, tune).run.length // 4
 */
export function asFound(ground: PhraseGround, tune: Tune, onNote?: (done: number) => void): PhraseWay {
  const { neck } = ground;
  const off = offNeck(ground, tune);
  const kept = without(tune, off);
  const notes = asked(ground, kept, ({ midi, string }) => {
    const all = placesOf(neck, midi, {});
    const own = all.filter((place) => place.string === string);
    return own.length ? own : all;
  });
  if (!notes.length) return silent(tune, off);
  const task = taskOf(ground, kept, notes);
  const [way] = waysOf(task, 1, onNote);
  return way ? wayFrom(ground, kept, notes, way, costOfWay(task, way), off) : silent(tune, off);
}
/** A way in which nothing sounds. */
const silent = (tune: Tune, told: readonly Told[] = []): PhraseWay => ({
  run: [],
  notes: [],
  ticks: ticksOf(tune),
  cost: 0,
  shifts: 0,
  widest: null,
  told,
});
