import { plural } from '@crow-ladder/core';
import { LADDER_LIMITS, USUAL_LADDER } from '@crow-ladder/core/practice';
import { TEMPO } from '@crow-ladder/core/run';
import { Whole } from '../../ui/fields.tsx';
import { type PartProps } from './Sentence.tsx';
import { IN_REACH } from './Transport.tsx';

/** The key that says that a round was clean. */
export const CLEAN_KEY = 'c';

interface CleanProps {
  readonly onRound: (clean: boolean) => void;
  readonly narrow: boolean;
}
/** While it plays: how the round was. */
export const HowItWas = ({ onRound, narrow }: CleanProps) => (
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
    {narrow && <span className="text-sm">Tap anywhere when a round was clean.</span>}
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
