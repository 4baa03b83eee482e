import { usualOf } from '@crow-ladder/core/kinds';
import { MOST_OTHERS } from '@crow-ladder/contract';
import { list, mod, tuningSaid, keySaid } from '@crow-ladder/core';
import { type AnyMove, gained, type Outcome } from '@crow-ladder/core/moves';
import { applied, pitchName } from '../../model/model.ts';
import { withBoth } from '../../model/moves.ts';
import { type PanelProps } from '../../task/task.ts';
import { said } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { afterOf, suitedBest } from './seen.ts';
import { SmallNeck } from '../../task/SmallNeck.tsx';
import { WaysOut } from './WaysOut.tsx';

interface SideProps extends Pick<PanelProps<MoveParams>, 'model' | 'settings' | 'onChange'> {
  readonly move: AnyMove;
  readonly title: string;
  readonly outcome: Outcome;
  /** The player's own instrument that it goes to, if any. */
  readonly instrumentId: string | null;
  readonly onLeave: () => void;
}

/** One of several ways to make a move: how it lies, what it says, and the ways out. */
export function Side({
  model,
  settings,
  onChange,
  onLeave: leave,
  move,
  title,
  outcome,
  instrumentId,
}: SideProps) {
  const after = afterOf(model, outcome, settings);
  const says = said(move, outcome, model);
  // "Keep the notes" is said after the buttons' words as "the notes".
  const what = `: ${title.replace(/^Keep /, '')}`;
  const { tuning } = outcome.instrument;
  const come = [...new Set(gained(outcome).map((s) => mod(s.midi, 12)))].map((pc) => pitchName(after, pc));
  const strains = outcome.says.some((s) => s.is === 'beyond' || (s.is === 'scale' && !s.key));
  const anew = strains ? suitedBest(after, settings.spanMm) : null;
  const full = model.state.others.length >= MOST_OTHERS;
  const layAnew = (): Outcome => ({
    ...outcome,
    layout: usualOf(anew!.layout, {
      scale: after.scale,
      string: outcome.root.string,
      strings: tuning.length,
    }),
  });
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">{title}</h2>
      <SmallNeck
        model={after}
        settings={settings}
        spots={outcome.spots}
        name={`${title}: how it lies then`}
      />
      <div role="status" aria-label={`What happens: ${title}`}>
        <p>
          {keySaid(outcome.key)} in {tuningSaid(tuning, after.accidentals)}.
        </p>
        {says.length ? (
          says.map((text) => <p key={text}>{text}</p>)
        ) : (
          <p>Nothing changes on these strings.</p>
        )}
        {come.length > 0 && <p>New notes: {list(come)}.</p>}
      </div>
      {anew && (
        <div>
          <button
            type="button"
            className="button"
            onClick={() => {
              leave();
              onChange((s) => applied(s, layAnew(), settings, instrumentId));
            }}
          >
            Lay it out anew: {anew.layout.name}
          </button>
          <p className="mt-1 text-sm text-soft">It suits best: {anew.why}</p>
        </div>
      )}
      <WaysOut
        model={model}
        outcome={outcome}
        settings={settings}
        onChange={onChange}
        onLeave={leave}
        what={what}
        instrumentId={instrumentId}
      />
      <button
        type="button"
        className="button self-start"
        disabled={full}
        onClick={() => {
          leave();
          onChange((s) => withBoth(s, applied(s, outcome, settings, instrumentId)));
        }}
      >
        Keep both instruments in this chart{what}
      </button>
      {full && (
        <p className="text-sm">A chart holds at most {MOST_OTHERS} instruments beside the one it shows.</p>
      )}
    </section>
  );
}
