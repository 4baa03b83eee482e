import { type ChartState, type KeptRun, RUN_NAME } from '@crow-ladder/contract';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { type Change } from '../../model/moves.ts';
import { Field } from '../../ui/fields.tsx';
import { keptRuns } from '../../model/keptRuns.ts';
import { showing, toKeep } from './kept.ts';
import { type LadderParams } from './params.ts';

type Runs = ChartState['runs'];
const withRuns =
  (change: (runs: Runs) => Runs): Change =>
  (s) => ({ ...s, runs: change(s.runs) });

/** The climbs saved with the chart, and a name to save the one that is looked at under. */
export function Kept({ model, params, onParams, onChange }: PanelProps<LadderParams>) {
  const [name, setName] = useState('');
  const kept = keptRuns(model.state);
  const taken = kept.some((k) => k.kept.name === name.trim());
  const keep = (): void => {
    const it = toKeep(model, params, name.trim());
    if (!it || !it.name || taken) return;
    onChange(withRuns((runs) => [...runs, it]));
    setName('');
  };
  const show = (it: KeptRun): void => {
    const [change, next] = showing(model, params, it);
    onChange(change);
    onParams(next);
  };
  return (
    <section aria-label="Climbs saved with the chart" className="flex flex-col gap-2">
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <Field
          label="Save this climb with the chart as"
          error={taken ? 'A climb of this chart has this name already: choose another one.' : undefined}
        >
          <input
            className="input"
            value={name}
            maxLength={RUN_NAME}
            onChange={(e) => setName(e.target.value)}
          />
        </Field>
        <button type="submit" className="button" disabled={!name.trim() || taken}>
          Save climb
        </button>
      </form>
      {kept.length > 0 && (
        <ul className="flex flex-col gap-1">
          {kept.map(({ at, kept: it }) => (
            <li key={it.name} className="flex items-center gap-2">
              <button type="button" className="word" onClick={() => show(it)}>
                {it.name}
              </button>
              {it.type === 'plan' && <span className="text-sm text-soft">planned</span>}
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Delete the climb ${it.name}`}
                onClick={() => onChange(withRuns((runs) => runs.filter((_, i) => i !== at)))}
              >
                <Trash2 size={16} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
