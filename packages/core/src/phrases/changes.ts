import { mod } from '../arithmetic.ts';
import { degreeName } from '../degree.ts';
import { pitchClass } from '../note.ts';
import { degreeIndex, type Key, type Scale } from '../scale.ts';
import { type Told } from './told.ts';
import { type Tune, type TuneNote } from './phrase.ts';

/** A tune that was changed, with what of it could not be kept. */
export interface Changed {
  readonly tune: Tune;
  readonly told: readonly Told[];
}

/** A pitch as steps of a key's scale above its root in MIDI octave 0, and half steps above the note of the scale that lies below it. */
interface InScale {
  readonly step: number;
  readonly off: number;
}

/**
 * Where a pitch lies in a key: steps of its scale, and half steps above that note.
 *
 * @example scaleStep(A, 46) // {"step":15,"off":1}
 */
export function scaleStep(key: Key, midi: number): InScale {
  const size = key.scale.offsets.length;
  let off = 0;
  while (degreeIndex(key, midi - off) < 0) off++;
  const degree = degreeIndex(key, midi - off);
  const root = midi - off - key.scale.offsets[degree]!;
  return { step: Math.floor(root / 12) * size + degree, off };
}
/**
 * The pitch of a step of a key's scale, a MIDI number.
 *
 * @example pitchOfStep(A, { step: 15, off: 1 }) // 46
 */
export function pitchOfStep(key: Key, { step, off }: InScale): number {
  const { offsets } = key.scale;
  const octave = Math.floor(step / offsets.length);
  return octave * 12 + pitchClass(key.root) + offsets[mod(step, offsets.length)]! + off;
}

const mapped = (tune: Tune, to: (midi: number, note: TuneNote, i: number) => number): Tune =>
  tune.map((note, i) => (note.midi === null ? note : { ...note, midi: to(note.midi, note, i) }));
/** Notes that lie outside the scale stay as they were, and are named. */
const outside = (tune: Tune, key: Key): readonly Told[] =>
  tune.flatMap(({ midi }, note): readonly Told[] =>
    midi !== null && degreeIndex(key, midi) < 0 ? [{ kind: 'outside', note }] : [],
  );

/**
 * All pitches higher by half steps, or lower: another key, another octave.
 *
 * @example raised([{ midi: 60, string: 1, length: 960 }], 12)[0].midi // 72
 */
export const raised = (tune: Tune, by: number): Tune => mapped(tune, (midi) => midi + by);

/**
 * By steps of the scale, up or down (a sequence); what lies between two of its notes stays between those to which they go, and is named.
 *
 * @example sequenced([{ midi: 45, string: 6, length: 960 }], A, 2).tune[0].midi // 50
 */
export const sequenced = (tune: Tune, key: Key, steps: number): Changed => ({
  tune: mapped(tune, (midi) => {
    const { step, off } = scaleStep(key, midi);
    return pitchOfStep(key, { step: step + steps, off });
  }),
  told: [],
});

/**
 * Turned round its first note: what rose falls by as many steps of the scale. Notes outside the scale are
 * turned by half steps, and are named.
 *
 * @example turnedRound([{ midi: 45, length: 480 }, { midi: 48, length: 480 }], A).tune[1].midi // 43
 */
export function turnedRound(tune: Tune, key: Key): Changed {
  const first = tune.find(({ midi }) => midi !== null)?.midi;
  if (first === undefined || first === null) return { tune, told: [] };
  const inScale = degreeIndex(key, first) >= 0;
  const axis = scaleStep(key, first);
  const isTurnedByStep = (midi: number): boolean => inScale && degreeIndex(key, midi) >= 0;
  return {
    tune: mapped(tune, (midi) =>
      isTurnedByStep(midi)
        ? pitchOfStep(key, { step: 2 * axis.step - scaleStep(key, midi).step, off: 0 })
        : 2 * first - midi,
    ),
    told: outside(tune, key),
  };
}

/**
 * Backwards: the last note first, each with its own length; what was slurred or slid to is joined to the same note as before.
 *
 * @example backwards([{ midi: 45, length: 480 }, { midi: 48, length: 480, joined: 'slur' }])[1].joined // "slur"
 */
export function backwards(tune: Tune): Tune {
  const joins = tune.map(({ joined }, i) => (i > 0 && joined !== 'tap' ? joined : undefined));
  return tune
    .map(({ joined, ...note }, i): TuneNote => {
      const to = joined === 'tap' ? joined : joins[i + 1];
      return to ? { ...note, joined: to } : note;
    })
    .reverse();
}

/** How a phrase goes into another mode: each degree to the same number, or every pitch as it was. */
export const MODE_WAYS = [
  { id: 'number', name: 'each degree to the same number' },
  { id: 'chromatic', name: 'every pitch as it is' },
] as const;
export type ModeWay = (typeof MODE_WAYS)[number]['id'];

/**
 * A phrase in another scale on its root, as handbooks of improvisation teach it (common practice, no source): each degree goes to the same number, b3 to 3; of several
 * with that number to the one altered likewise, else to the nearest. A number that the new scale lacks stays as it was and is named, and so is a
 * note outside the old one. Chromatically every pitch stays; those outside the new scale are named.
 *
 * @example inMode([{ midi: 48, string: 1, length: 480 }], A, A.scale, 'number').tune[0].midi // 48
 */
export function inMode(tune: Tune, from: Key, to: Scale, way: ModeWay): Changed {
  if (way === 'chromatic') return { tune, told: outside(tune, { root: from.root, scale: to }) };
  const told: Told[] = [...outside(tune, from)];
  const changed = mapped(tune, (midi, _, note) => {
    const degree = degreeIndex(from, midi);
    if (degree < 0) return midi;
    const { number, alteration } = from.scale.degrees[degree]!;
    const near = to.degrees
      .map((d, i) => ({ i, far: Math.abs(d.alteration - alteration), number: d.number }))
      .filter((d) => d.number === number)
      .sort((a, b) => a.far - b.far)[0];
    if (!near) {
      told.push({ kind: 'lacks', note, degree: degreeName({ number, alteration }) });
      return midi;
    }
    return midi + to.offsets[near.i]! - from.scale.offsets[degree]!;
  });
  return { tune: changed, told };
}
