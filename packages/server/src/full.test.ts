import { FIRST_STATE } from '@crow-ladder/contract';
import { type Served, served } from '../test/served.ts';
import { isForNow } from './refused.ts';

// A library whose file may not grow any more, as on a full disk.
let it: Served;
beforeEach(async () => {
  it = await served();
});
afterEach(() => it.close());

const draft = (name: string, bytes = 0) => ({
  name,
  tags: [],
  notes: 'x'.repeat(bytes),
  state: FIRST_STATE,
});
const pages = async (): Promise<number> =>
  ((await it.db.raw('PRAGMA page_count')) as [{ page_count: number }])[0].page_count;
const grow = async (by: number): Promise<void> => {
  await it.db.raw(`PRAGMA max_page_count = ${(await pages()) + by}`);
};
const names = async (find: string): Promise<readonly string[]> =>
  (await it.library.charts({ find, tag: '', order: 'made' }, 0)).charts.map((c) => c.name);
/** Makes charts until there is room for no more. */
async function fill(bytes: number): Promise<void> {
  for (let nth = 0; ; nth++)
    try {
      await it.library.createChart(draft(`More ${nth}`, bytes));
    } catch (error) {
      expect(error).toMatchObject({ code: expect.stringMatching(/^SQLITE_FULL/) });
      return;
    }
}

test('while nothing can be written the lists are read as they stand, with all that was accepted', async () => {
  const { id } = await it.library.createChart(draft('Full hold'));
  await it.db('charts').where({ id }).update({ notes: 'waits to be indexed' });
  await grow(0);
  // The last pages are filled, with large charts and then with small ones.
  for (const bytes of [19_000, 1000, 0]) await fill(bytes);
  expect(await names('full')).toEqual(['Full hold']);
  expect(await it.library.tags()).not.toEqual([]);
  expect(await it.library.instruments()).not.toEqual([]);
  expect((await it.library.demo()).charts).toBeGreaterThan(0);
  await grow(1000);
  expect(await names('indexed')).toEqual(['Full hold']);
});

test('whatever part of a change a full disk stops, it is said as that, and the change is made whole or not at all', async () => {
  const accepted: string[] = [];
  let refused = 0;
  for (let more = 0; more < 6; more++) {
    await grow(more);
    for (let nth = 0; nth < 40; nth++) {
      const words = Array.from(
        { length: 7 },
        (_, i) =>
          // None begins as another one does.
          `${((more * 40 + nth + 1) * (i + 7) * 99_991).toString(36)}x`,
      );
      const name = words.join(' ').slice(0, 70);
      try {
        await it.library.createChart({ ...draft(name), notes: nth % 3 ? '' : words.join('-').repeat(6) });
        accepted.push(name);
      } catch (error) {
        refused++;
        expect([name, isForNow(error)]).toEqual([name, true]);
      }
    }
  }
  expect(refused).toBeGreaterThan(100);
  expect(accepted.length).toBeGreaterThan(5);
  await grow(1000);
  await it.library.createChart(draft('Room again'));
  for (const name of accepted) expect(await names(name)).toEqual([name]);
  expect(await it.db('charts').count({ n: '*' })).toEqual(await it.db('chart_index').count({ n: '*' }));
});
