import { type Practised } from '@crow-ladder/contract';
import { comfortable, LADDER_LIMITS, plural, TEMPO, USUAL_LADDER } from '@crow-ladder/core';
import { Trash2 } from 'lucide-react';
import { server } from '../../app/api.ts';
import { Whole } from '../../ui/fields.tsx';
import { type PartProps } from './Sentence.tsx';
import { IN_REACH } from './Transport.tsx';

/** The key that says that a round was clean. */
export const CLEAN_KEY = 'c';

interface CleanProps {
  readonly onRound: (clean: boolean) => void;
}
/** While it plays: how the round was. */
export const HowItWas = ({ onRound }: CleanProps) => (
  <>
    <button
      type="button"
      className={`button button-strong h-14 text-lg ${IN_REACH} max-[760px]:left-3`}
      aria-keyshortcuts={CLEAN_KEY}
      onClick={() => onRound(true)}
    >
      That was clean
    </button>
    <button type="button" className="button h-14" onClick={() => onRound(false)}>
      Not yet
    </button>
  </>
);

/** Where the ladder of tempos stands. */
export function LadderSaid({ params: { ladder, rung }, tempo }: Pick<PartProps, 'params' | 'tempo'>) {
  if (!ladder) return null;
  const left = ladder.rounds - rung.clean;
  return (
    <p role="status" className="text-sm">
      {rung.best !== null && rung.best >= ladder.to
        ? `Clean at ${rung.best}: the end of the ladder.`
        : `${plural(left, 'clean round')} to go at ${tempo}${rung.best === null ? '' : `; clean so far at ${rung.best}`}.`}
    </p>
  );
}

/** The ladder of tempos: after so many rounds that the player calls clean it goes up a step. */
export function Tempos({ params: { ladder }, put }: PartProps) {
  const [step, rounds] = [LADDER_LIMITS.step, LADDER_LIMITS.rounds];
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <label className="flex gap-2">
        <input
          type="checkbox"
          checked={ladder !== null}
          onChange={(e) =>
            put({ ladder: e.target.checked ? USUAL_LADDER : null, rung: { clean: 0, best: null } })
          }
        />{' '}
        go up in tempo
      </label>
      {ladder && (
        <>
          <label className="flex items-center gap-2">
            up to
            <Whole
              className="!w-20"
              value={ladder.to}
              min={TEMPO.least}
              max={TEMPO.most}
              onChange={(to) => put({ ladder: { ...ladder, to } })}
            />
          </label>
          <label className="flex items-center gap-2">
            by
            <Whole
              className="!w-20"
              value={ladder.step}
              min={step[0]}
              max={step[1]}
              onChange={(by) => put({ ladder: { ...ladder, step: by } })}
            />
          </label>
          <label className="flex items-center gap-2">
            after clean rounds
            <Whole
              className="!w-20"
              value={ladder.rounds}
              min={rounds[0]}
              max={rounds[1]}
              onChange={(many) => put({ ladder: { ...ladder, rounds: many } })}
            />
          </label>
        </>
      )}
    </div>
  );
}

const DATE = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit' }); // prettier-ignore
/** Rounds that are listed. */
const LISTED = 12;

/** What the log of practice holds of what is practised here, with the latest rounds, of which each can be taken out. */
export function Record({ practised }: { practised: Practised | undefined }) {
  const [remove] = server.useRemoveRoundMutation();
  if (!practised?.rounds.length)
    return (
      <p className="text-sm text-soft">
        Say while it plays whether a round was clean: the log of practice keeps it, and the next visit begins
        where it is comfortable.
      </p>
    );
  const { best, rounds } = practised;
  const start = comfortable(rounds);
  return (
    <div className="text-sm">
      <p>
        {best === null
          ? `${plural(rounds.length, 'round')} played, none clean yet.`
          : `Clean at ${best} at most; the next visit begins at ${start}.`}
      </p>
      <details>
        <summary className="cursor-pointer font-semibold text-soft">Rounds played</summary>
        <ul className="flex flex-col">
          {rounds.slice(0, LISTED).map(({ id, at, tempo, clean }) => (
            <li key={id} className="flex items-center gap-2">
              {`${DATE.format(new Date(at))}, ${tempo}: ${clean ? 'clean' : 'not yet'}`}
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Take out the round at ${tempo} of ${DATE.format(new Date(at))}`}
                onClick={() => void remove(id)}
              >
                <Trash2 size={15} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      </details>
    </div>
  );
}
