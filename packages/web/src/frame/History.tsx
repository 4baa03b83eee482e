import { type ChartDraft } from '@crow-ladder/contract';
import { useMemo } from 'react';
import { useSettings } from '../app/settings.ts';
import { changeSaid } from '../model/history.ts';
import { redone, undone } from '../sessions/sessions.ts';
import { useSendAll } from '../sessions/state.ts';
import { useSession, useSessionId } from '../sessions/useSession.ts';
import { Picks } from '../ui/Picks.tsx';

/** As many steps as are shown back from where the chart is, and forward. */
const SHOWN = { back: 20, forward: 10 };

/** What was changed in this chart, the latest first, with what was undone over it; each step is one to go to. */
export function History() {
  const id = useSessionId();
  const send = useSendAll();
  const [settings] = useSettings();
  const past = useSession((s) => s.past);
  const future = useSession((s) => s.future);
  const now = useSession((s) => s.draft);
  const steps = useMemo(() => {
    const back = past.slice(-SHOWN.back);
    const all: readonly ChartDraft[] = [...back, now, ...future.slice(0, SHOWN.forward)];
    const first = past.length > back.length ? 'before that' : 'as it was opened';
    return all.map((draft, i) => ({
      id: String(i - back.length),
      name: i ? changeSaid(all[i - 1]!, draft, settings) : first,
      ...(i > back.length && { tag: 'undone' }),
    }));
  }, [past, now, future, settings]);
  const goTo = (to: string): void => {
    const by = Number(to);
    for (let i = 0; i < Math.abs(by); i++) send((by < 0 ? undone : redone)(id));
  };
  return <Picks name="History" options={steps.toReversed()} value="0" onPick={goTo} />;
}
