import { layOut, layoutFor } from '../layouts/registry.ts';
import { type Alteration } from '../layouts/option.ts';
import { ok } from '../result.ts';
import { defineClimb } from './climb.ts';

interface Options {
  readonly perString: number;
  readonly from: 0 | 1;
  readonly altered: readonly Alteration[];
}
const layout = layoutFor({ kind: 'skip' });

/** String skip: two positions united, on every other string, with single notes altered by a half step. */
export const skipClimb = defineClimb<Options>({
  kind: 'skip',
  name: 'string skip',
  goodFor: 'wide leaps at speed, and another mode by altering one note',
  complete: false,
  options: layout.options as unknown as Readonly<Record<keyof Options, (typeof layout.options)[string]>>,
  usual: ({ key, neck, root }) =>
    layout.usual({ scale: key.scale, string: root.string, strings: neck.open.length }) as unknown as Options,
  up: ({ neck, key, front }, options) => {
    const laid = layOut(neck, key, { kind: 'skip', ...options });
    if (!laid.ok) return laid;
    const far = (low: number): number => Math.abs(low - front.lowFret);
    const [nearest] = [...laid.value].sort((a, b) => far(a.lowFret) - far(b.lowFret));
    return ok(nearest!.spots);
  },
});
