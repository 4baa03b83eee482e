import { type Result, keySaid } from '@crow-ladder/core';
import { type AnyMove, type Outcome, rootsByString, rootsSaid, sayings } from '@crow-ladder/core/moves';
import { type Model, movingOf } from '../../model/model.ts';
import { type PanelProps } from '../../task/task.ts';
import { type MoveParams } from './params.ts';
import { WaysOut } from './WaysOut.tsx';

/** What a move comes to, in its own words. */
export const said = (move: AnyMove, outcome: Outcome, model: Model): readonly string[] =>
  (move.says ?? sayings)(outcome, movingOf(model)!);

/** What a move comes to in words, and the three ways out of it; or why it cannot be. */
export function OutcomeSaid({
  model,
  settings,
  onChange,
  onLeave,
  move,
  outcome,
}: Pick<PanelProps<MoveParams>, 'model' | 'settings' | 'onChange'> & {
  move: AnyMove;
  outcome: Result<Outcome> | null;
  onLeave: () => void;
}) {
  if (!outcome) return <p className="text-soft">{move.asks}</p>;
  if (!outcome.ok) return <p className="error">{outcome.error.message}</p>;
  const it = outcome.value;
  return (
    <div className="flex flex-col gap-3">
      <div role="status" aria-label="What happens">
        <p className="font-reading text-lg">To {keySaid(it.key)}.</p>
        {said(move, it, model).map((text) => (
          <p key={text}>{text}</p>
        ))}
        <p>{rootsSaid(it.spots)}</p>
      </div>
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">The root on each string</summary>
        <p className="text-sm">{rootsByString(it).join('; ')}.</p>
      </details>
      <WaysOut model={model} outcome={it} settings={settings} onChange={onChange} onLeave={onLeave} />
    </div>
  );
}
