import { FIRST_STATE, type KeptPhrase, PHRASE_PAGE, type PhrasePage } from '@crow-ladder/contract';
import { type Chart } from '@crow-ladder/contract';
import { type PhraseNote } from '@crow-ladder/core/phrases';
import { type Served, served } from '../test/served.ts';

let it: Served;
beforeAll(async () => {
  it = await served();
  for (const c of await it.charts()) await it.remove('chart', c);
});
afterAll(() => it.close());

/** Notes on string 6 of E, so that frets are half steps above E. */
const on = (...frets: (number | null)[]): readonly PhraseNote[] =>
  frets.map((fret) => ({ at: fret === null ? null : { string: 6, fret }, length: 480 }));
const phrase = (name: string, notes: readonly PhraseNote[], more: Partial<KeptPhrase> = {}): KeptPhrase => ({
  type: 'phrase',
  name,
  tags: [],
  root: 'E',
  scale: 'minor-pentatonic',
  open: [64, 59, 55, 50, 45, 40],
  beats: 4,
  notes,
  ...more,
});
const keep = async (name: string, ...phrases: readonly KeptPhrase[]): Promise<Chart> =>
  (await it.call<Chart>('POST', '/charts', { name, tags: [], notes: '', state: { ...FIRST_STATE, phrases } }))
    .body;
const found = async (query: string): Promise<readonly string[]> => {
  const { status, body } = await it.call<PhrasePage>('GET', `/phrases?${query}`);
  expect(status).toBe(200);
  return body.phrases.map((p) => p.phrase.name);
};

test('phrases of all charts are found by name, tag and chart, by a piece of their line in any key, by length and over a chord', async () => {
  // 1 ♭3 4 ♭3 1 from E; the same from G, as from the root of its own; a major one.
  const minor = phrase('Bilge', on(0, 3, null, 5, 3, 0), { tags: ['Ebb tide'] });
  const fromG = phrase('Keel', on(3, 6, 8), { root: 'G' });
  const major = phrase('Mast', on(0, 4, 7, 12, 11, 9));
  const chart = await keep('Lower deck', minor, fromG);
  await keep('Upper deck', major);
  expect([...(await found(''))].sort()).toEqual(['Bilge', 'Keel', 'Mast']);
  expect(await found('find=bil')).toEqual(['Bilge']);
  expect(await found('find=EBB')).toEqual(['Bilge']);
  expect(await found('find=upper')).toEqual(['Mast']);
  expect(await found(`degrees=${encodeURIComponent('♭3 4')}`)).toEqual(['Bilge', 'Keel']);
  expect(await found(`degrees=${encodeURIComponent('4 b3')}`)).toEqual(['Bilge']);
  expect(await found('degrees=3%205')).toEqual(['Mast']);
  expect(await found('most=3')).toEqual(['Keel']);
  expect(await found('chord=major')).toEqual(['Mast']);
  // Of the one 4 of 5 notes are the chord's, of the other 2 of 3.
  expect(await found('chord=minor')).toEqual(['Bilge', 'Keel']);
  // What is changed is found as it is now, and what is deleted not at all.
  const other = { ...chart.state, phrases: [phrase('Rudder', on(0))] };
  const { name, tags, notes, revision } = chart;
  const { body: now } = await it.call<Chart>('PUT', `/charts/${chart.id}`, {
    name,
    tags,
    notes,
    revision,
    state: other,
  });
  expect([...(await found(''))].sort()).toEqual(['Mast', 'Rudder']);
  await it.remove('chart', now);
  expect(await found('')).toEqual(['Mast']);
});

test('many phrases come in pages, each once', async () => {
  await keep('Many', ...Array.from({ length: 45 }, (_, i) => phrase(`Cleat ${i}`, on(0, i % 12))));
  const names: string[] = [];
  for (let from = 0; from < 60; from += PHRASE_PAGE) {
    const { body } = await it.call<PhrasePage>('GET', `/phrases?find=cleat&from=${from}`);
    expect(body.found).toBe(45);
    names.push(...body.phrases.map((p) => p.phrase.name));
  }
  expect(new Set(names).size).toBe(45);
  expect(names).toHaveLength(45);
});

test('what cannot be looked for is refused by its field', async () => {
  for (const [query, field] of [
    ['degrees=b9x', 'degrees'],
    ['chord=sus9', 'chord'],
    ['most=501', 'most'],
    ['most=few', 'most'],
    ['from=-1', 'from'],
    [`find=${'x'.repeat(201)}`, 'find'],
  ]) {
    const { status, body } = await it.call<{ error: { field: string } }>('GET', `/phrases?${query}`);
    expect([query, status, body.error.field]).toEqual([query, 422, field]);
  }
});
