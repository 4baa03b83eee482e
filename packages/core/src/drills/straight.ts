import { defineDrill, played } from './drill.ts';

/** The notes once, in their order: a line through chords would meet other ones on its way back. */
export const straight = defineDrill<Record<never, never>>({
  kind: 'straight',
  name: 'straight through',
  goodFor: 'lines that go one way, such as those through chords',
  options: {},
  usual: () => ({}),
  play: ({ notes }) => played(notes),
});
