import { routeThrough } from '../run/route.ts';
import { defineDrill, played, turnOption } from './drill.ts';

interface Options {
  readonly topTwice: boolean;
}

export const upAndDown = defineDrill<Options>({
  kind: 'up-and-down',
  name: 'up and down',
  goodFor: 'the fingers',
  options: { topTwice: turnOption },
  usual: () => ({ topTwice: false }),
  play: ({ notes }, { topTwice }) => played(routeThrough(notes, 'both', topTwice)),
});
