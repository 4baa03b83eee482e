import { aboutOf, aboutSaid } from '@crow-ladder/contract';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useSettings } from '../../app/settings.ts';
import { discardDraft, type Drafted, drafts } from '../../sessions/left.ts';
import { useSendAll } from '../../sessions/state.ts';
import { momentSaid } from '../../ui/dates.ts';

/** New charts that were worked on in this browser and have no name yet. */
export function Drafts() {
  const send = useSendAll();
  const [settings] = useSettings();
  const [all, setAll] = useState<readonly Drafted[]>([]);
  /** What takes those back that were thrown away here, by id. */
  const [gone, setGone] = useState<ReadonlyMap<string, () => Promise<void>>>(new Map());
  useEffect(() => {
    let wanted = true;
    void send(drafts()).then((found) => wanted && setAll(found));
    return () => {
      wanted = false;
    };
  }, [send]);
  if (!all.length) return null;
  const discard = async (draft: Drafted): Promise<void> => {
    const back = await send(discardDraft(draft));
    setGone((now) => new Map(now).set(draft.id, back));
  };
  const takeBack = async ({ id }: Drafted): Promise<void> => {
    await gone.get(id)?.();
    setGone((now) => new Map([...now].filter(([of]) => of !== id)));
  };
  return (
    <section aria-label="Drafts" className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">Not saved yet</h2>
      <ul className="border-t border-line">
        {all.map((draft) => {
          const isGone = gone.has(draft.id);
          const when = momentSaid(draft.at);
          return (
            <li
              key={`${draft.id} ${draft.tab}`}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2"
            >
              <div className="min-w-64 grow">
                {isGone ? (
                  <p className="text-soft">Draft of {when}, discarded</p>
                ) : (
                  <Link to={`/charts/${draft.id}`} className="entry font-semibold underline">
                    Draft of {when}
                  </Link>
                )}
                <p className="text-sm text-soft">{aboutSaid(aboutOf(draft.draft.state), settings)}</p>
              </div>
              {draft.elsewhere ? (
                <p className="text-sm text-soft">open in another tab</p>
              ) : (
                <button
                  type="button"
                  className="button"
                  aria-label={isGone ? `Take back the draft of ${when}` : `Discard the draft of ${when}`}
                  onClick={() => void (isGone ? takeBack(draft) : discard(draft))}
                >
                  {isGone ? 'Take it back' : 'Discard'}
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
