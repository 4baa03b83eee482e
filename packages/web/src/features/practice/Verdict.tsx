import { type RoundDraft } from '@crow-ladder/contract';
import { afterRound } from '@crow-ladder/core/practice';
import { useEffect, useEffectEvent, useState } from 'react';
import { useRounds } from '../../app/practised.ts';
import { onLeaving } from '../../ui/later.ts';
import { type PracticeParams } from './params.ts';
import { type PartProps } from './parts.ts';

/** The key that says that a round was clean. */
export const CLEAN_KEY = 'c';

/** A round that was played to its end. */
export type PlayedRound = Omit<RoundDraft, 'clean' | 'note'> & { readonly tempo: number };

/** What was said of a round, and what stood before. */
interface Kept {
  readonly id: string;
  readonly said: string;
  readonly before: Partial<PracticeParams>;
}
/** What was played and nothing said of yet: the last round, with the time of those before it, and its id where it is in the log already. */
interface Due extends PlayedRound {
  readonly id?: string;
}
const isSame = (a: PlayedRound, b: PlayedRound): boolean =>
  a.drill === b.drill && a.shape === b.shape && a.perBeat === b.perBeat && a.tempo === b.tempo;

/**
 * What the player says of rounds: of each that was played to its end once, and of none that was not. What was said can be taken back,
 * with what it did to the ladder of tempos. What was played and nothing said of is in the log as well, once it stops.
 */
export function useVerdict({
  params,
  tempo,
  put,
  setting,
}: Pick<PartProps, 'params' | 'tempo' | 'put'> & {
  readonly setting: (tempo: number) => Partial<PracticeParams>;
}) {
  const { keep, takeOut } = useRounds();
  /** The last round that was played to its end, until something is said of it. */
  const [due, setDue] = useState<Due | null>(null);
  const [kept, setKept] = useState<Kept | null>(null);
  const [said, say] = useState('');
  /** Puts what nothing was said of into the log. */
  const settle = (): void => {
    if (!due || due.id !== undefined) return;
    setDue({ ...due, id: keep({ ...due, clean: null, note: '' }) });
  };
  // Leaving, and closing the page, keeps it too.
  const leave = useEffectEvent(settle);
  useEffect(() => {
    const stay = onLeaving((gone) => {
      if (gone) leave();
    });
    return () => {
      stay();
      leave();
    };
  }, []);
  return {
    due,
    kept,
    said,
    /** A round was played to its end. */
    ended: (round: PlayedRound): void => {
      if (due && due.id === undefined && isSame(due, round))
        return setDue({ ...round, ms: due.ms + round.ms });
      settle();
      setDue(round);
    },
    /** It stops: what was played is in the log, whatever is said of it later. */
    stopped: settle,
    /** It begins anew: nothing is left to be said of what was played before. */
    began: () => {
      settle();
      setDue(null);
      setKept(null);
      say('');
    },
    judge: (clean: boolean) => {
      if (!due) {
        return say(
          kept
            ? 'That round is in the log already: the next one counts once it is played to its end.'
            : 'A round counts once it is played to its end.',
        );
      }
      const { id: is, ...round } = due;
      const id = keep({ ...round, clean, note: '' }, is);
      setKept({
        id,
        said: `In the log: ${clean ? 'clean' : 'not yet clean'} at ${due.tempo}.`,
        before: { ...setting(tempo), rung: params.rung },
      });
      say('');
      setDue(null);
      const next = params.ladder && afterRound(params.ladder, { tempo, ...params.rung }, clean);
      put({
        ...setting(next?.tempo ?? tempo),
        ...(next && { rung: { clean: next.clean, best: next.best } }),
      });
    },
    takeBack: () => {
      if (!kept) return;
      takeOut(kept.id);
      put(kept.before);
      setKept(null);
      say('Taken back.');
    },
  };
}
type Verdicts = ReturnType<typeof useVerdict>;

interface VerdictProps {
  readonly of: Verdicts;
}

/** The round was clean; on an upright screen a tap anywhere says so as well. */
export const Clean = ({ of: { due, judge } }: VerdictProps) => (
  <button
    type="button"
    className="button button-strong h-14 text-lg"
    aria-keyshortcuts={CLEAN_KEY}
    aria-disabled={!due}
    onClick={() => judge(true)}
  >
    That was clean
  </button>
);
export const NotYet = ({ of: { due, judge } }: VerdictProps) => (
  <button type="button" className="button min-[761px]:h-14" aria-disabled={!due} onClick={() => judge(false)}>
    Not yet
  </button>
);

/** What was kept of a round just now, with a way back. */
export const VerdictSaid = ({ of: { kept, said, takeBack } }: VerdictProps) => (
  <div className="flex flex-wrap items-center gap-x-3 text-sm empty:hidden">
    <p role="status">{said || kept?.said}</p>
    {kept && (
      <button type="button" className="button" onClick={takeBack}>
        Take it back
      </button>
    )}
  </div>
);
