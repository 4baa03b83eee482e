import { type Result, keySaid } from '@crow-ladder/core';
import { type AnyMove, type Outcome, rootsByString, rootsSaid, sayings } from '@crow-ladder/core/moves';
import { type Model, movingOf } from '../../model/model.ts';

/** What a move comes to, in its own words. */
export const said = (move: AnyMove, outcome: Outcome, model: Model): readonly string[] =>
  (move.says ?? sayings)(outcome, movingOf(model)!);

/** What a move comes to in words; or why it cannot be. */
export function OutcomeSaid({
  model,
  move,
  outcome,
}: {
  model: Model;
  move: AnyMove;
  outcome: Result<Outcome> | null;
}) {
  if (!outcome) return <p className="text-soft">{move.asks}</p>;
  if (!outcome.ok) return <p className="error">{outcome.error.message}</p>;
  const it = outcome.value;
  return (
    <>
      <div role="status" aria-label="What happens">
        <p>
          <b className="font-semibold">The neck shows {keySaid(it.key)}, not applied yet.</b>{' '}
          {said(move, it, model).join(' ')}
        </p>
        <p>{rootsSaid(it.spots)}</p>
      </div>
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">The root on each string</summary>
        <p className="text-sm">{rootsByString(it).join('; ')}.</p>
      </details>
    </>
  );
}
