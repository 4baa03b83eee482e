import { type Settings } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { X } from 'lucide-react';
import { memo, useEffect, useEffectEvent, useState } from 'react';
import { server } from '../app/api.ts';
import { type Trouble } from '../app/trouble.ts';
import { said } from '../app/notice.ts';
import { type SettingsChange } from '../app/settings.ts';
import { useSend } from '../app/state.ts';
import { type Model } from '../model/model.ts';

interface HintsProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
}

/** What a hint watches: it is done once this differs from what it was. */
type Watched = (model: Model) => unknown;

/** Three things to try, in this order; each goes for good when it is done or closed. */
const HINTS: readonly { readonly id: string; readonly text: string; readonly done: Watched }[] = [
  {
    id: 'map',
    text: 'Map: choose a spot on the neck, and it becomes the root.',
    done: ({ state }) => `${state.at.string}/${state.at.fret}`,
  },
  {
    id: 'connect',
    text: 'Connect: choose another rung of the ladder; the seams show the notes that two positions share.',
    done: ({ state }) => JSON.stringify(state.front),
  },
  {
    id: 'move',
    text: 'Move: open the key or the tuning in the sentence and choose another one.',
    done: ({ state }) => `${state.key.root} ${state.instrument.tuning.join()}`,
  },
];
const WELCOME = 'welcome';

/** What a first visit is told, and then one hint at a time along the way. */
export const Hints = memo(function Hints({ model, settings, change }: HintsProps) {
  const { isSuccess: read } = server.useSettingsQuery();
  const see = (...ids: readonly string[]): void =>
    change(({ seen }) => ({ seen: [...seen.filter((s) => !ids.includes(s)), ...ids] }));
  if (!read) return null;
  const next = HINTS.find((h) => !settings.seen.includes(h.id));
  // What is put away says nothing more, now or later.
  const onClose = (): void => see(WELCOME, ...HINTS.map((h) => h.id));
  return next ? (
    <Card onClose={onClose}>
      {!settings.seen.includes(WELCOME) && <Welcome onCleared={() => see(WELCOME)} />}
      <Hint key={next.id} hint={next} model={model} onDone={() => see(WELCOME, next.id)} />
    </Card>
  ) : null;
});

/** A card over the foot of the page; what lies under it is used through it. */
function Card({ children, onClose }: { children: React.ReactNode; onClose: () => void }) {
  return (
    <aside
      aria-label="Hint"
      className="on-screen panel pointer-events-none fixed right-3 bottom-3 z-10 flex max-w-md items-start gap-2 p-3 text-sm max-[760px]:static max-[760px]:max-w-none"
    >
      <div className="flex grow flex-col gap-1.5">{children}</div>
      <button
        type="button"
        className="button button-quiet pointer-events-auto !px-1.5"
        aria-label="Close the hints"
        onClick={onClose}
      >
        <X size={16} aria-hidden />
      </button>
    </aside>
  );
}

function Welcome({ onCleared }: { onCleared: () => void }) {
  const send = useSend();
  const { data: demo } = server.useDemoQuery();
  const [clear] = server.useClearDemoMutation();
  const clearIt = async (): Promise<void> => {
    const done = await clear();
    if (done.error) return void send(said({ text: (done.error as Trouble).message }));
    const { charts, instruments } = done.data;
    send(
      said({
        text: `${plural(charts, 'chart')} and ${plural(instruments, 'instrument')} of the demo are in the bin, its practice is out of the log.`,
      }),
    );
    onCleared();
  };
  return (
    <p>
      Crow Ladder maps scale shapes on the neck, connects them along it, and moves them to any key and tuning.
      {demo && demo.charts > 0 && (
        <>
          {' '}
          What is here to begin with is a demo.{' '}
          <button type="button" className="word pointer-events-auto" onClick={() => void clearIt()}>
            Clear the demo
          </button>
        </>
      )}
    </p>
  );
}

function Hint({ hint, model, onDone }: { hint: (typeof HINTS)[number]; model: Model; onDone: () => void }) {
  const now = hint.done(model);
  const [first] = useState(now);
  const done = now !== first;
  const close = useEffectEvent(onDone);
  useEffect(() => {
    if (done) close();
  }, [done]);
  return <p>{hint.text}</p>;
}
