import { fingeringOf, type PhraseHere } from '../../model/phrases.ts';
import { playedOver } from '../../model/progression.ts';
import { readOf } from '../../model/way.ts';
import { type PanelProps } from '../../task/task.ts';
import { QUARTER } from '@crow-ladder/core/run';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { fitSaid, noteOverSaid, overNow, startSaid } from './over.ts';
import { type PhraseParams } from './params.ts';
import { WrittenPhrase } from './WrittenPhrase.tsx';

/** Beginnings that are listed. */
const LISTED = 8;

/** A phrase over the chart's chords: where it could begin, which of its notes are notes of them, and what rubs. */
export function OverChords({
  model,
  params,
  onParams,
  onOpen,
  here,
}: PanelProps<PhraseParams> & { readonly here: PhraseHere }) {
  const now = overNow(model, here, params);
  if (!now)
    return (
      <p role="status">
        {here.way.run.length
          ? 'This scale holds no chord on its root, and the chart has no progression: type one in Chords.'
          : 'This phrase has no note yet: write it first, as it was made.'}
      </p>
    );
  const many = here.way.run.length;
  const step = Math.min(params.step, many - 1);
  const listed = now.starts.slice(0, LISTED);
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        {!playedOver(model) && (
          <p>
            This chart has no progression: it is shown over the chord of its scale.{' '}
            <button type="button" className="button" onClick={() => onOpen('chords', { do: 'changes' })}>
              Type one in Chords
            </button>
          </p>
        )}
        <h3 className="text-sm font-semibold text-soft">Where it could begin</h3>
        <ol aria-label="Where it could begin" className="flex flex-col gap-1.5">
          {[...listed, ...(listed.includes(now.start) ? [] : [now.start])].map((it) => (
            <li key={it.at}>
              <button
                type="button"
                className="button w-full text-left"
                aria-pressed={it === now.start}
                onClick={() => onParams((p) => ({ ...p, start: it.at / QUARTER, step: 0 }))}
              >
                <span>
                  <span className="font-semibold">{startSaid(now, it)}</span>
                  {`: ${fitSaid(it, many)}.`}
                </span>
              </button>
            </li>
          ))}
        </ol>
      </div>
      <div className="flex flex-col gap-3">
        <p>
          <MarkKind kind="shared">a note of its chord</MarkKind>, <MarkKind kind="altered">rubs</MarkKind>.
          The roots of the chart stay as they are.
        </p>
        <WrittenPhrase
          model={model}
          way={here.way}
          beats={here.phrase.beats}
          read={readOf(model, fingeringOf(here.way), here.way.run)}
          step={step}
          onStep={(to) => onParams((p) => ({ ...p, step: to }))}
          name={here.phrase.name}
        />
        <ol aria-label="Its notes over the chords" className="list-decimal pl-8">
          {now.notes.map((it) => (
            <li key={it.note} className={it.is === 'tone' ? 'font-semibold' : ''}>
              {noteOverSaid(model, now, it)}
            </li>
          ))}
        </ol>
      </div>
    </div>
  );
}
