import { layOut } from '../layouts/registry.ts';
import { skipLayout, type SkipOptions } from '../layouts/skip.ts';
import { type Position, unalteredLow } from '../position.ts';
import { ok } from '../result.ts';
import { defineClimb } from './climb.ts';

/** String skip: two positions united, on every other string, with single notes altered by a half step. */
export const skipClimb = defineClimb<SkipOptions>({
  kind: 'skip',
  name: 'string skip',
  said: () => 'by string skips',
  goodFor: 'wide leaps at speed, and another mode by altering one note',
  complete: false,
  options: skipLayout.options,
  usual: ({ key, neck, root }) =>
    skipLayout.usual({ scale: key.scale, string: root.string, strings: neck.open.length }),
  up: ({ neck, key, front }, options) => {
    const laid = layOut(neck, key, { kind: 'skip', ...options });
    if (!laid.ok) return laid;
    const far = (p: Position): number => Math.abs(unalteredLow(p) - unalteredLow(front));
    const [nearest] = [...laid.value].sort((a, b) => far(a) - far(b));
    return ok(nearest!.spots);
  },
});
