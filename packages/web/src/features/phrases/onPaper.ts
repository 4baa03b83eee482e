import { fingeringOf } from '../../model/phrases.ts';
import { type Model } from '../../model/model.ts';
import { type OnPaper } from '../../paper/onPaper.ts';
import { phraseNow } from './moved.ts';
import { type PhraseParams } from './params.ts';
import { canWrite, writtenAs } from './written.ts';

/** The phrase that is looked at, as it was made. */
export function onPaper(model: Model, params: PhraseParams): OnPaper | null {
  const now = phraseNow(model, params);
  if (!now?.here.way.run.length) return null;
  const { way, phrase } = now.here;
  if (!canWrite(way, phrase.beats).ok) return null;
  return {
    sheet: 'practice',
    title: phrase.name,
    said: [],
    run: way.run,
    steps: fingeringOf(way).steps,
    as: writtenAs(model, way, phrase.beats),
    strokes: [],
  };
}
