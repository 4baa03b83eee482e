import { type ChartState, type KeptRun, RUN_NAME } from '@crow-ladder/contract';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { type Change } from '../../model/moves.ts';
import { Field } from '../../ui/fields.tsx';
import { Popup } from '../../ui/Popup.tsx';
import { keptRuns } from '../../model/keptRuns.ts';
import { showing, toKeep } from './kept.ts';
import { type LadderParams } from './params.ts';

type Runs = ChartState['runs'];
const withRuns =
  (change: (runs: Runs) => Runs): Change =>
  (s) => ({ ...s, runs: change(s.runs) });

/** The climbs kept with the chart, and a name to keep the one that is looked at under. */
export function Kept({ model, params, onParams, onChange }: PanelProps<LadderParams>) {
  const [name, setName] = useState('');
  const [naming, setNaming] = useState(false);
  const [listed, setListed] = useState(false);
  const kept = keptRuns(model.state);
  const taken = kept.some((k) => k.kept.name === name.trim());
  const keep = (): void => {
    const it = toKeep(model, params, name.trim());
    if (!it || !it.name || taken) return;
    onChange(withRuns((runs) => [...runs, it]));
    setName('');
    setNaming(false);
  };
  const show = (it: KeptRun): void => {
    const [change, next] = showing(model, params, it);
    onChange(change);
    onParams(next);
  };
  return (
    <>
      {kept.length > 0 && (
        <Popup
          name="Climbs kept with the chart"
          open={listed}
          onOpenChange={setListed}
          body={
            <ul className="flex flex-col gap-1">
              {kept.map(({ at, kept: it }) => (
                <li key={it.name} className="flex items-center justify-between gap-2">
                  <button
                    type="button"
                    className="word"
                    onClick={() => {
                      show(it);
                      setListed(false);
                    }}
                  >
                    {it.name}
                  </button>
                  {it.type === 'plan' && <span className="text-sm text-soft">planned</span>}
                  <button
                    type="button"
                    className="button button-quiet ml-auto"
                    aria-label={`Delete the climb ${it.name}`}
                    onClick={() => onChange(withRuns((runs) => runs.filter((_, i) => i !== at)))}
                  >
                    <Trash2 size={16} aria-hidden />
                  </button>
                </li>
              ))}
            </ul>
          }
        >
          {`${kept.length} kept`}
        </Popup>
      )}
      {toKeep(model, params, '') && (
        <Popup
          name="Keep this climb"
          buttonClass="button button-strong"
          open={naming}
          onOpenChange={setNaming}
          body={
            <form
              className="flex flex-col gap-3"
              onSubmit={(e) => {
                e.preventDefault();
                keep();
              }}
            >
              <Field
                label="Keep this climb with the chart as"
                error={taken ? 'A climb of this chart has this name already: choose another one.' : undefined}
              >
                <input
                  className="input"
                  value={name}
                  maxLength={RUN_NAME}
                  onChange={(e) => setName(e.target.value)}
                />
              </Field>
              <button type="submit" className="button self-start" disabled={!name.trim() || taken}>
                Keep it
              </button>
            </form>
          }
        >
          Keep it
        </Popup>
      )}
    </>
  );
}
