import { type PhraseFound, PHRASE_PAGE, type PhraseQuery } from '@crow-ladder/contract';
import { keySaid, note, plural, pretty, resolveScale } from '@crow-ladder/core';
import { degreeSaid, halfStepsTyped, PHRASE_CHORDS, PHRASE_LIMITS, tuneOf } from '@crow-ladder/core/phrases';
import { useDeferredValue, useState } from 'react';
import { server } from '../../app/api.ts';
import { useSessionId } from '../../sessions/useSession.ts';
import { freeName, phrasesOf, withPhrase } from '../../model/phrases.ts';
import { type PanelProps } from '../../task/task.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { AT_FIRST, type PhraseParams } from './params.ts';

type Props = PanelProps<PhraseParams>;

const ANY = '';
const CHORDS = [{ id: ANY, name: 'any chord' }, ...PHRASE_CHORDS] as const;
const AT_FIRST_ASKED: PhraseQuery = { find: '', degrees: '', chord: ANY, most: 0 };

/** The degrees of a phrase, in its own key. */
function degreesOf({ phrase: { root, scale, notes, open } }: PhraseFound): string {
  const read = resolveScale(scale);
  if (!read.ok) return '';
  const key = { root: note(root), scale: read.value };
  return tuneOf(notes, open)
    .map(({ midi }) => (midi === null ? '' : pretty(degreeSaid(key, midi))))
    .filter((it) => it !== '')
    .join(' ');
}
/** The key that a phrase was made in, in words. */
function keyOf({ phrase: { root, scale } }: PhraseFound): string {
  const read = resolveScale(scale);
  return read.ok ? keySaid({ root: note(root), scale: read.value }) : pretty(root);
}

/** The phrases of all charts, found by what is known of them; the one that is chosen is brought here. */
export function Collection({ model, onChange, onParams, onDone }: Props & { readonly onDone: () => void }) {
  const [asked, ask] = useState(AT_FIRST_ASKED);
  const [from, setFrom] = useState(0);
  const line = halfStepsTyped(asked.degrees);
  const query = useDeferredValue(line.ok ? asked : { ...asked, degrees: '' });
  const { data, error, isFetching } = server.usePhrasesQuery({ ...query, from });
  const put = (part: Partial<PhraseQuery>): void => {
    ask((now) => ({ ...now, ...part }));
    setFrom(0);
  };
  const here = useSessionId();
  const take = ({ phrase, chart }: PhraseFound): void => {
    const isHere = chart === here && phrasesOf(model.state).some((it) => it.phrase.name === phrase.name);
    const name = isHere ? phrase.name : freeName(model.state, phrase.name);
    if (!isHere) onChange((s) => withPhrase(s, null, { ...phrase, name }));
    onParams((now) => ({ ...AT_FIRST, tempo: now.tempo, copied: now.copied, phrase: name }));
    onDone();
  };
  return (
    <>
      <Field label="Name, tag or chart">
        <input className="input" value={asked.find} onChange={(e) => put({ find: e.target.value })} />
      </Field>
      <Field
        label="Degrees in order"
        error={line.ok ? undefined : line.error.message}
        hint="A piece of its line finds it, in any key: ♭3 4 ♭5."
      >
        <input
          className="input"
          value={asked.degrees}
          spellCheck={false}
          onChange={(e) => put({ degrees: e.target.value })}
        />
      </Field>
      <div className="grid grid-cols-2 gap-3">
        <Field label="Over, on its root">
          <Choice value={asked.chord} options={CHORDS} onChange={(chord) => put({ chord })} />
        </Field>
        <Field label="Notes at most">
          <Whole
            value={asked.most}
            min={1}
            max={PHRASE_LIMITS.notes}
            none={0}
            onChange={(most) => put({ most })}
          />
        </Field>
      </div>
      {error ? (
        <p className="error" role="alert">
          {error.message}
        </p>
      ) : (
        <p role="status">
          {data ? `${plural(data.found, 'phrase')} of ${data.all} found.` : isFetching ? 'Looking…' : ''}
        </p>
      )}
      <ul aria-label="Phrases of all charts" className="flex flex-col gap-1.5">
        {data?.phrases.map((it, i) => (
          <li key={`${it.chart} ${i}`}>
            <button
              type="button"
              className="button w-full whitespace-normal text-left"
              onClick={() => take(it)}
            >
              <span>
                <span className="font-semibold">{it.phrase.name}</span>
                {`: ${degreesOf(it)}. `}
                <span className="text-soft">
                  {`${it.chart === here ? 'In this chart' : `In ${it.chartName}`}, ${keyOf(it)}${it.phrase.tags.length ? `; ${it.phrase.tags.join(', ')}` : ''}.`}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {data && data.found > PHRASE_PAGE && (
        <div className="flex gap-1.5">
          <button
            type="button"
            className="button"
            disabled={from === 0}
            onClick={() => setFrom(Math.max(0, from - PHRASE_PAGE))}
          >
            Those before
          </button>
          <button
            type="button"
            className="button"
            disabled={from + PHRASE_PAGE >= data.found}
            onClick={() => setFrom(from + PHRASE_PAGE)}
          >
            More of them
          </button>
        </div>
      )}
    </>
  );
}
