import { defineDrill, played, outAndBack, turnOption } from './drill.ts';

interface Options {
  readonly topTwice: boolean;
}

export const upAndDown = defineDrill<Options>({
  kind: 'up-and-down',
  name: 'up and down',
  goodFor: 'the fingers',
  options: { topTwice: turnOption },
  usual: () => ({ topTwice: false }),
  play: (drilling, { topTwice }) => played(outAndBack(drilling, 0, drilling.notes.length - 1, topTwice)),
});
