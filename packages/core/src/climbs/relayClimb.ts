import { layOut } from '../layouts/registry.ts';
import { relayLayout, type RelayOptions } from '../layouts/relay.ts';
import { ok } from '../result.ts';
import { defineClimb } from './climb.ts';

interface Options extends RelayOptions {
  /** Through all positions, rather than the one in front alone. */
  readonly all: boolean;
}

/** Relay: pairs of legs, for the position in front or for all from it up to the octave; coming down it is mirrored. */
export const relayClimb = defineClimb<Options>({
  kind: 'relay',
  name: 'relay',
  said: ({ notes, all }) => `by a relay, ${notes} notes a leg${all ? ', through all positions' : ''}`,
  goodFor: 'knowing every position next to its neighbours, and falling back without losing the way',
  complete: false,
  options: {
    ...relayLayout.options,
    all: { type: 'switch', words: ['one', 'all'], label: 'Through all positions' },
  },
  usual: ({ neck, key, root }) => ({
    ...relayLayout.usual({ scale: key.scale, string: root.string, strings: neck.open.length }),
    all: true,
  }),
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
