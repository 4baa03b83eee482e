import {
  type Chart,
  foldedText,
  isPhrase,
  type KeptPhrase,
  PHRASE_PAGE,
  type PhraseFound,
  type PhrasePage,
  type PhraseQuery,
} from '@crow-ladder/contract';
import { note } from '@crow-ladder/core';
import {
  halfStepsTyped,
  halfStepTicks,
  halfStepWord,
  PHRASE_CHORDS,
  tuneOf,
} from '@crow-ladder/core/phrases';
import { type Knex } from 'knex';
import { json, liveCharts } from './rows.ts';
import { type PhraseRow } from './tables.ts';

/** What of a phrase that goes over a chord has to be notes of it, by their lengths: half. */
const MOSTLY = 2;

/** A chart's phrases as rows of the collection. */
export const phraseRows = ({ name: chartName, state }: Chart): readonly Omit<PhraseRow, 'chart_id'>[] =>
  state.phrases.flatMap((phrase, at) => {
    if (!isPhrase(phrase)) return [];
    const tune = tuneOf(phrase.notes, phrase.open);
    const root = note(phrase.root);
    const ticks = halfStepTicks(tune, root);
    const line = halfStepWord(tune, root);
    return [
      {
        at,
        words: foldedText([phrase.name, ...phrase.tags, chartName].join('\n')),
        phrase: JSON.stringify(phrase),
        notes: line.length,
        line,
        ticks: ticks.reduce((sum, n) => sum + n, 0),
        ...(Object.fromEntries(ticks.map((n, above) => [`above_${above}`, n])) as Pick<
          PhraseRow,
          `above_${number}`
        >),
      },
    ];
  });

/** One page of the phrases of all charts that are asked for, from the `from`th on: over a chord those that hold most of it, else those of the charts changed last. */
export async function phrasePage(
  db: Knex,
  { find, degrees, chord, most }: PhraseQuery,
  from: number,
): Promise<PhrasePage> {
  const all = liveCharts(db).join('chart_phrases', 'chart_phrases.chart_id', 'charts.id');
  const some = all.clone();
  for (const word of foldedText(find).split(/\s+/).filter(Boolean))
    void some.whereRaw('instr(chart_phrases.words, ?) > 0', [word]);
  const line = halfStepsTyped(degrees);
  if (line.ok && line.value) void some.whereRaw('instr(chart_phrases.line, ?) > 0', [line.value]);
  if (most) void some.where('chart_phrases.notes', '<=', most);
  const over = PHRASE_CHORDS.find(({ id }) => id === chord);
  const held = over?.above.map((above) => `above_${above}`).join(' + ');
  if (over)
    void some.whereRaw(
      `chart_phrases.ticks > 0 AND above_${over.above[1]} > 0 AND (${held}) * ${MOSTLY} >= chart_phrases.ticks`,
    );
  const ordered = some.clone();
  if (over) void ordered.orderByRaw(`(${held}) * 1.0 / chart_phrases.ticks DESC`);
  const rows = (await ordered
    .orderBy([{ column: 'charts.updated_at', order: 'desc' }, 'charts.id', 'chart_phrases.at'])
    .limit(PHRASE_PAGE)
    .offset(from)
    .select('charts.id', 'charts.name', 'chart_phrases.phrase')) as {
    readonly id: string;
    readonly name: string;
    readonly phrase: string;
  }[];
  const count = async (of: Knex.QueryBuilder): Promise<number> =>
    ((await of.clone().count({ n: '*' })) as { n: number }[])[0]!.n;
  return {
    phrases: rows.map(({ id, name, phrase }): PhraseFound => ({
      chart: id,
      chartName: name,
      phrase: json(phrase) as KeptPhrase,
    })),
    found: await count(some),
    all: await count(all),
  };
}
