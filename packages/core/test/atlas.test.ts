import { CATALOGUE, instrumentOf, neckOf, note, ROOTS, TUNINGS, usualOf, LAYOUTS } from './core.ts';
import { keepsPromises } from './promises.ts';

describe('the atlas', () => {
  // Everything at once takes minutes, so each run walks one root of twelve for every scale, tuning and layout, a
  // twelfth of the atlas, with the roots spread evenly; `npm run thorough` walks the whole of it.
  test('all scales x roots x all tunings x all layouts keep their promises', () => {
    const all = Boolean(process.env['THOROUGH']);
    let walked = 0;
    TUNINGS.forEach((t, i) => {
      const neck = neckOf(instrumentOf(t));
      CATALOGUE.forEach((scale, j) =>
        LAYOUTS.all().forEach((layout, l) =>
          ROOTS.forEach((names, r) => {
            if (!all && r !== (i + j + l) % 12) return;
            keepsPromises(
              neck,
              { root: note(names[0]!), scale },
              usualOf(layout, { scale, string: (r % t.tuning.length) + 1, strings: t.tuning.length }),
            );
            walked++;
          }),
        ),
      );
    });
    expect(walked).toBe(TUNINGS.length * CATALOGUE.length * LAYOUTS.all().length * (all ? 12 : 1));
  });
});
