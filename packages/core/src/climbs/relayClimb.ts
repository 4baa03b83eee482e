import { LIMITS } from '../instrument.ts';
import { NOTES_PER_STRING, usualCount } from '../layouts/byCount.ts';
import { layOut } from '../layouts/registry.ts';
import { ok } from '../result.ts';
import { defineClimb } from './climb.ts';

interface Options {
  readonly notes: number;
  readonly perString: number;
  /** Through all positions, rather than the one in front alone. */
  readonly all: boolean;
}

/** Relay: pairs of legs, for the position in front or for all from it up to the octave; coming down it is mirrored. */
export const relayClimb = defineClimb<Options>({
  kind: 'relay',
  name: 'relay',
  goodFor: 'knowing every position next to its neighbours, and falling back without losing the way',
  complete: false,
  options: {
    notes: { type: 'whole', min: 1, max: LIMITS.strings[1] * NOTES_PER_STRING.max, label: 'Notes of a leg' },
    perString: { type: 'whole', ...NOTES_PER_STRING, label: 'Notes per string' },
    all: { type: 'switch', words: ['one', 'all'], label: 'Through all positions' },
  },
  usual: ({ neck, key }) => {
    const perString = usualCount(key.scale);
    return { notes: Math.min(4, neck.open.length - 1) * perString, perString, all: true };
  },
  up: ({ neck, key, front }, { notes, perString, all }) => {
    const laid = layOut(neck, key, { kind: 'relay', notes, perString });
    if (!laid.ok) return laid;
    const from = laid.value.findIndex((p) => p.lowFret >= front.lowFret);
    const first = from < 0 ? laid.value.length - 1 : from;
    const low = laid.value[first]!.lowFret;
    const through = all
      ? laid.value.filter((p) => p.lowFret >= low && p.lowFret < low + 12)
      : [laid.value[first]!];
    return ok(through.flatMap((p) => p.spots));
  },
});
