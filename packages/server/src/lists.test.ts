import {
  type Chart,
  CHART_ORDERS,
  CHART_PAGE,
  type ChartSummary,
  FIRST_STATE,
  type Tagged,
} from '@crow-ladder/contract';
import { instrumentOf, tuningById } from '@crow-ladder/core';
import { type Served, served } from '../test/served.ts';

let it: Served;
/** All that there is, as it was sent. */
let made: Chart[];
const TAGS = ['deck', 'fog', 'ballad', 'Ä-deck'];
const SCALES = ['dorian', 'minor-pentatonic', 'own:1,b2,5'];
beforeAll(async () => {
  it = await served();
  for (const c of await it.charts()) await it.remove('chart', c);
  made = [];
  for (let i = 0; i < CHART_PAGE * 2 + 7; i++) {
    const drop = instrumentOf(tuningById('drop-d')!);
    const state = {
      ...FIRST_STATE,
      key: { root: 'F#', scale: SCALES[i % 3]! },
      ...(i % 5 ? {} : { instrument: drop, at: { string: 6, fret: 4 } }),
    };
    const tags = TAGS.filter((_, nth) => i % (nth + 2) === 0);
    const draft = {
      name: `${['Öland', 'Harbour', 'night'][(i * 7) % 3]} ${(i * 37) % 100}`,
      tags,
      notes: i % 11 ? '' : 'Until the horn answers 100%.',
      state,
    };
    made.push((await it.call<Chart>('POST', '/charts', draft)).body);
  }
});
afterAll(() => it.close());

/** Every page of what is asked for. */
async function all(query: string): Promise<readonly ChartSummary[]> {
  const found: ChartSummary[] = [];
  for (let from = 0; ; from += CHART_PAGE) {
    const page = await it.page(`?${query}&from=${from}`);
    expect(page.charts.length).toBe(Math.min(CHART_PAGE, Math.max(0, page.found - from)));
    found.push(...page.charts);
    if (found.length >= page.found) return found;
  }
}
const names = (charts: readonly { readonly name: string }[]): readonly string[] =>
  charts.map((c) => c.name).sort();
const find = (text: string): Promise<readonly ChartSummary[]> => all(`find=${encodeURIComponent(text)}`);

test('every order has every chart once, over the borders of the pages', async () => {
  for (const order of CHART_ORDERS) {
    const charts = await all(`order=${order}`);
    expect(new Set(charts.map((c) => c.id))).toEqual(new Set(made.map((c) => c.id)));
    expect(charts).toHaveLength(made.length);
  }
  const by = (await all('order=name')).map((c) => c.name.toLowerCase());
  expect(by).toEqual([...by].sort((a, b) => (a.normalize('NFKD') < b.normalize('NFKD') ? -1 : 1)));
  expect((await all('order=made'))[0]!.id).toBe(made.at(-1)!.id);
});

test('words are found as a plain search finds them, short and long, whatever their case and accents', async () => {
  const plain = (words: readonly string[], of: (c: Chart) => string) =>
    names(made.filter((c) => words.every((w) => of(c).toLowerCase().includes(w))));
  const text = (c: Chart): string => `${c.name} ${c.tags.join(' ')} ${c.notes}`;
  for (const words of [
    ['harbour'],
    ['arbo'],
    ['7'],
    ['31'],
    ['harbour', '7'],
    ['horn', 'answers'],
    ['100%.'],
    ['fog', 'nig'],
  ])
    expect([words, names(await find(words.join(' ')))]).toEqual([words, plain(words, text)]);
  expect(names(await find('oland'))).toEqual(plain(['öland'], text));
  expect(names(await find('HARBOUR'))).toEqual(plain(['harbour'], text));
  expect(names(await find('DORIAN'))).toEqual(names(made.filter((c) => c.state.key.scale === 'dorian')));
  for (const root of ['F#', 'f♯']) expect(await find(root)).toHaveLength(made.length);
  expect(names(await find('drop'))).toEqual(names(made.filter((_, i) => i % 5 === 0)));
  for (const nothing of ['harbours', '"', 'a"b"c', '*', 'NEAR(', '%', '_____']) {
    const none = made.filter((c) => text(c).includes(nothing)).length;
    expect([nothing, (await find(nothing)).length]).toEqual([nothing, none]);
  }
});

test('a scale of the player’s own is found by the name that it has now', async () => {
  const own = made.filter((c) => c.state.key.scale === 'own:1,b2,5');
  expect(await find('lighthouse')).toEqual([]);
  await it.call('PATCH', '/settings', {
    from: {},
    to: { ownScales: [{ id: 'own:1,b2,5', name: 'Lighthouse' }] },
  });
  expect(names(await find('lighthouse'))).toEqual(names(own));
  expect(names(await find('lighthouse fog'))).toEqual(names(own.filter((c) => c.tags.includes('fog'))));
});

test('tags are counted, the most used first, and choose their charts', async () => {
  const tags = (await it.call<Tagged[]>('GET', '/tags')).body;
  const count = (tag: string): number => made.filter((c) => c.tags.includes(tag)).length;
  expect(tags).toEqual(TAGS.map((tag) => ({ tag, charts: count(tag) })));
  for (const tag of TAGS) expect(await all(`tag=${encodeURIComponent(tag)}`)).toHaveLength(count(tag));
  expect(await all('tag=dec')).toEqual([]);
});

test('what is changed, deleted and brought back is so in the list at once', async () => {
  const [one] = await find('öland');
  const { tags, notes, state, revision } = (await it.call<Chart>('GET', `/charts/${one!.id}`)).body;
  const put = { name: 'Breakwater', tags: [...tags, 'squall'], notes, state, revision };
  const now = (await it.call<Chart>('PUT', `/charts/${one!.id}`, put)).body;
  expect(names(await find('breakw'))).toEqual(['Breakwater']);
  expect((await all('tag=squall')).map((c) => [c.id, c.revision])).toEqual([[one!.id, revision + 1]]);
  // What was seen before it was changed is not deleted unseen.
  expect(await it.remove('chart', one!)).toMatchObject({
    status: 409,
    body: { error: { code: 'conflict' }, current: { name: 'Breakwater' } },
  });
  expect((await it.remove('chart', now)).status).toBe(200);
  expect(await find('breakw')).toEqual([]);
  expect((await it.call<Tagged[]>('GET', '/tags')).body.map((t) => t.tag)).not.toContain('squall');
  await it.call('POST', `/charts/${one!.id}/restore`);
  expect(names(await find('breakw'))).toEqual(['Breakwater']);
  await it.remove('chart', now);
  await it.call('DELETE', `/bin/charts/${one!.id}`);
  for (const table of ['chart_index', 'chart_tags', 'chart_instruments'])
    expect(await it.db(table).where({ chart_id: one!.id })).toEqual([]);
  expect(await find('squall')).toEqual([]);
});

test('what is saved is in the lists with the same write', async () => {
  const stale = async () => (await it.db('charts').where({ indexed: 0 })).length;
  await it.page();
  const draft = { name: 'Written once', tags: ['once'], notes: '', state: FIRST_STATE };
  const { body } = await it.call<Chart>('POST', '/charts', draft);
  expect(await stale()).toBe(0);
  await it.call('PUT', `/charts/${body.id}`, { ...draft, name: 'Written twice', revision: 1 });
  await it.call('PUT', '/charts/of-the-page', { ...draft, revision: 0 });
  expect(await stale()).toBe(0);
  expect(await it.db('chart_index').where({ chart_id: body.id }).select('sort_name')).toEqual([
    { sort_name: 'written twice' },
  ]);
  for (const { id, revision } of (await it.page('?find=written')).charts)
    await it.remove('chart', { id, revision });
});

test('a page is small, has a tag of its own, and odd questions are answered with the field', async () => {
  const res = await it.send('GET', '/api/charts');
  expect((await res.clone().text()).length).toBeLessThan(60_000);
  const tag = res.headers.get('etag')!;
  expect((await it.send('GET', '/api/charts', undefined, { 'if-none-match': tag })).status).toBe(304);
  for (const [query, field] of [
    ['order=__proto__', 'order'],
    ['order=constructor', 'order'],
    ['from=-1', 'from'],
    ['from=1e9', 'from'],
    ['from=999999999', 'from'],
    [`find=${'x'.repeat(201)}`, 'find'],
    [`tag=${'x'.repeat(31)}`, 'tag'],
    ['find=%00', 'find'],
  ] as const)
    expect(await it.call('GET', `/charts?${query}`)).toMatchObject({
      status: 422,
      body: { error: { field } },
    });
});

test('a key that is searched for by its full name comes first', async () => {
  const key = { root: 'Bb', scale: 'minor-pentatonic' };
  for (const [name, of] of [
    ['Zz capstan', { root: 'A#', scale: 'minor-pentatonic' }],
    ['Aa capstan in A', key],
    ['Ab capstan', { root: 'A', scale: 'minor-pentatonic' }],
  ] as const)
    expect(
      (
        await it.call<Chart>('POST', '/charts', {
          name,
          tags: [],
          notes: '',
          state: { ...FIRST_STATE, key: of, at: { string: 6, fret: of.root === 'A' ? 5 : 6 } },
        })
      ).status,
    ).toBe(201);
  const found = async (text: string): Promise<readonly string[]> =>
    (await all(`find=${encodeURIComponent(text)}&order=name`))
      .map((c) => c.name)
      .filter((name) => name.includes('capstan'));
  expect(await found('A minor pentatonic')).toEqual(['Ab capstan', 'Aa capstan in A', 'Zz capstan']);
  expect(await found('B♭ minor pentatonic')).toEqual(['Aa capstan in A']);
});
