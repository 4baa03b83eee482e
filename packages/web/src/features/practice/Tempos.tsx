import { plural } from '@crow-ladder/core';
import { LADDER_LIMITS, USUAL_LADDER } from '@crow-ladder/core/practice';
import { TEMPO } from '@crow-ladder/core/run';
import { useRef } from 'react';
import { Field, Whole } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { type PartProps } from './parts.ts';

/** A pause between two taps that begins a new tempo, in ms, and how many taps are looked at. */
const TAP = { pauseMs: 2500, kept: 5 };

/** A tempo from taps: the mean of the last of them. */
export function useTaps(onTempo: (tempo: number) => void): () => void {
  const taps = useRef<readonly number[]>([]);
  return () => {
    const at = performance.now();
    const before = taps.current.at(-1);
    const on = before !== undefined && at - before < TAP.pauseMs;
    taps.current = on ? [...taps.current, at].slice(-TAP.kept) : [at];
    const many = taps.current.length - 1;
    if (many > 0) onTempo(Math.round((60_000 * many) / (at - taps.current[0]!)));
  };
}

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
export function LadderOfTempos({ params: { ladder }, put }: Pick<PartProps, 'params' | 'put'>) {
  return (
    <>
      <Switch
        on={ladder !== null}
        onChange={(on) => put({ ladder: on ? USUAL_LADDER : null, rung: { clean: 0, best: null } })}
      >
        go up in tempo
      </Switch>
      {ladder && (
        <div className="grid grid-cols-3 items-end gap-3">
          <Field label="Up to">
            <Whole
              value={ladder.to}
              min={TEMPO.least}
              max={TEMPO.most}
              onChange={(to) => put({ ladder: { ...ladder, to } })}
            />
          </Field>
          <Field label="By">
            <Whole
              value={ladder.step}
              min={LADDER_LIMITS.step[0]}
              max={LADDER_LIMITS.step[1]}
              onChange={(step) => put({ ladder: { ...ladder, step } })}
            />
          </Field>
          <Field label="After clean rounds">
            <Whole
              value={ladder.rounds}
              min={LADDER_LIMITS.rounds[0]}
              max={LADDER_LIMITS.rounds[1]}
              onChange={(rounds) => put({ ladder: { ...ladder, rounds } })}
            />
          </Field>
        </div>
      )}
    </>
  );
}
