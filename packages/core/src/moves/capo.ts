import { LIMITS, mostCapo } from '../instrument.ts';
import { neckOf } from '../neck.ts';
import { type Note, noteName, pitchClass, pretty } from '../note.ts';
import { mod } from '../arithmetic.ts';
import { ok, refuse, type Result } from '../result.ts';
import { chooseRoot } from '../root.ts';
import { type Key } from '../scale.ts';
import { defineMove, lostIn, type Moving, type Outcome, spotOnNeck } from './move.ts';

/**
 * The capo that keeps a grip and makes it sound in another key, at most at fret `most`: frets are counted from the capo, so
 * every one stays. Code `move.capo` where it would lie further up, or no fret is left above it.
 *
 * @example capoFor(moving, note('C'), 7).value?.instrument.capo // 3
 */
export function capoFor(moving: Moving, root: Note, most: number): Result<Outcome> {
  const { instrument, key, layout, front } = moving;
  // From the nut: the capo that there is gives way to the new one.
  const capo = mod(instrument.capo + pitchClass(root) - pitchClass(key.root), 12);
  const limit = Math.min(most, mostCapo(instrument.frets));
  if (capo > limit)
    return refuse(
      'move.capo',
      `In ${pretty(noteName(root))} this grip needs the capo at fret ${capo}, above fret ${limit}: choose another key, or allow a higher capo.`,
    );
  const { root: shape } = chooseRoot(mod(pitchClass(root) - capo, 12), key.scale);
  const after = { ...instrument, capo };
  const neck = neckOf(after);
  const to: Key = { root, scale: key.scale };
  const spots = front.held.map((from) => ({ from, to: spotOnNeck(neck, to, from) }));
  return ok({
    instrument: after,
    key: to,
    root: moving.root,
    layout,
    spots,
    says: [{ is: 'capo', at: capo, shape: { root: shape, scale: key.scale } }, ...lostIn(spots)],
  });
}

/** Which capo keeps the grip in another key; `to` is half steps up to it, -1 where none is chosen. */
export const capoMove = defineMove<{ readonly to: number; readonly most: number }>({
  kind: 'capo',
  name: 'Capo',
  to: 'a key by capo',
  asks: 'Choose a key: every fret of the grip stays, counted from the capo.',
  options: {
    most: { type: 'whole', min: 0, max: LIMITS.frets[1], label: 'Highest fret for the capo' },
    to: { type: 'whole', min: -1, max: 11, label: 'Keys with their capo', picks: 'capoKey' },
  },
  usual: () => ({ most: 7, to: -1 }),
  move: (moving, { to, most }, { prefer }) => {
    const { key, instrument } = moving;
    if (to < 0 || (to === 0 && instrument.capo === 0)) return null;
    const { root } = to ? chooseRoot(mod(pitchClass(key.root) + to, 12), key.scale, prefer) : key;
    return capoFor(moving, root, most);
  },
  brief: (outcome) => {
    if (!outcome.ok) return 'too high';
    const { capo } = outcome.value.instrument;
    return capo === 0 ? 'no capo' : `capo ${capo}`;
  },
});
