import { keySaid } from '@crow-ladder/core';
import { CHART_LIMITS, type ChartState, type Settings } from '@crow-ladder/contract';
import { type Outcome } from '@crow-ladder/core/moves';
import { Check, Copy, X } from 'lucide-react';
import { said } from '../../app/notice.ts';
import { type Change } from '../../model/moves.ts';
import { keepAsChart } from '../../sessions/saving.ts';
import { useSendAll } from '../../sessions/state.ts';
import { useSession } from '../../sessions/useSession.ts';
import { applied, type Model, modelOf } from '../../model/model.ts';

/** The name of a chart that was moved: its own with the new key, else the key alone. */
function movedName(name: string, { key }: Model): string {
  const more = keySaid(key);
  const whole = name ? `${name}, ${more}` : more;
  return whole.length <= CHART_LIMITS.name ? whole : more;
}

/** Keeps a state as a chart of its own, and tells so; gives its id. */
export function useKeepCopy(settings: Settings): (state: ChartState) => string {
  const send = useSendAll();
  const draft = useSession((s) => s.draft);
  return (state) => {
    const name = movedName(draft.name, modelOf(state, settings));
    const copy = send(keepAsChart({ ...draft, name, state }));
    send(said({ text: `Kept as “${name}”. You find it among your charts.` }));
    return copy;
  };
}

/** Apply, keep as a copy, or leave. */
export function WaysOut({
  model,
  outcome,
  settings,
  onChange,
  onLeave,
  what = '',
  instrumentId = null,
}: {
  model: Model;
  outcome: Outcome;
  settings: Settings;
  onChange: (change: Change) => void;
  onLeave: () => void;
  /** Said after the buttons' words where there are several of them on the page. */
  what?: string;
  /** The player's own instrument that it goes to, if any. */
  instrumentId?: string | null;
}) {
  const keep = useKeepCopy(settings);
  return (
    <div className="flex flex-wrap gap-2">
      <button
        type="button"
        className="button button-strong"
        onClick={() => {
          onLeave();
          onChange((s) => applied(s, outcome, settings, instrumentId));
        }}
      >
        <Check size={16} aria-hidden /> Apply{what}
      </button>
      <button
        type="button"
        className="button"
        onClick={() => keep(applied(model.state, outcome, settings, instrumentId))}
      >
        <Copy size={16} aria-hidden /> Keep as a copy{what}
      </button>
      {!what && (
        <button type="button" className="button" onClick={onLeave}>
          <X size={16} aria-hidden /> Leave
        </button>
      )}
    </div>
  );
}
