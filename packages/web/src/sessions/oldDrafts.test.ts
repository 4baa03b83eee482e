import { handBrowser } from '../../test/browser.ts';
import { handClock, handKeeping, handNetwork, storeOf } from '../../test/world.tsx';
import { serverCharts } from '../app/api.ts';
import { OLD_DRAFTS } from '../ports/keeping.ts';
import { live } from './living.ts';
import { drafts } from './left.ts';
import { openChart } from './opening.ts';
import { sessionOf } from './sessions.ts';

/** As the version before the journal wrote them. */
const KEPT = [
  {
    begun: 1780000000000,
    at: 1780000060000,
    query:
      'root=Bb&scale=mixolydian&at=5.1&layout=count.3&strings=E2.A2.D3.G3.B3.E4&neck=22.648.0.3.right&called=standard&front=2.5&run=climb%3B6.5%3BA%3Bzigzag.2%3Bboth%3Btwice%3Bpicked%3B0.5%3BDeck+to+deck',
  },
  {
    begun: 1780000100000,
    at: 1780000160000,
    query:
      'root=C%23&scale=phrygian&at=7.2&layout=reach.4&strings=B1.E2.A2.D3.G3.B3.E4&neck=24.660.0.4.right&called=seven-string',
  },
  { begun: 1780000200000, at: 1780000260000, query: 'root=Q&scale=none' },
];

test('drafts of before stand among the charts and open whole; what cannot be read stays where it was', async () => {
  const keeping = handKeeping();
  keeping.setItem(OLD_DRAFTS, JSON.stringify(KEPT));
  const browser = handBrowser();
  const network = handNetwork(() => undefined);
  const charts = serverCharts(network);
  const outside = { ...browser.tab('a'), clock: handClock(), network, charts, keeping };
  const store = storeOf(outside);
  await live(store, outside);
  const found = await store.dispatch(drafts());
  expect(
    found.map(({ draft: { state }, at }) => [state.key, state.at, state.instrument.tuning.length, at]),
  ).toEqual([
    [{ root: 'C#', scale: 'phrygian' }, { string: 7, fret: 2 }, 7, 1780000160000],
    [{ root: 'Bb', scale: 'mixolydian' }, { string: 5, fret: 1 }, 6, 1780000060000],
  ]);
  expect(JSON.parse(keeping.getItem(OLD_DRAFTS)!)).toEqual([KEPT[2]]);
  const { id } = found[1]!;
  await store.dispatch(openChart(id));
  expect(sessionOf(store.getState(), id)).toMatchObject({
    save: 'unsaved',
    draft: {
      name: '',
      state: { front: { start: 2, low: 5 }, runs: [{ type: 'climb', name: 'Deck to deck' }] },
    },
  });
});
