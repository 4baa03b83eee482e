import { aboutOf, aboutSaid } from '@crow-ladder/contract';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { dropDraft, type KeptDraft, keptDrafts } from '../../app/drafts.ts';

const time = (ms: number): string =>
  new Date(ms).toLocaleString(undefined, {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });

/** Each draft in words; what an address carries is read by code that is loaded for it. */
function useSaid(drafts: readonly KeptDraft[]): readonly string[] {
  const [said, setSaid] = useState<readonly string[]>([]);
  useEffect(() => {
    let wanted = true;
    void import('../../model/address.ts').then(({ stateFromQuery }) => {
      if (!wanted) return;
      setSaid(
        drafts.map(({ query }) => {
          const state = stateFromQuery(new URLSearchParams(query));
          return state.ok ? aboutSaid(aboutOf(state.value)) : state.error.message;
        }),
      );
    });
    return () => {
      wanted = false;
    };
  }, [drafts]);
  return said;
}

/** New charts that were worked on in this browser and not saved. */
export function Drafts() {
  const [drafts, setDrafts] = useState(keptDrafts);
  const said = useSaid(drafts);
  if (!drafts.length) return null;
  return (
    <section aria-label="Drafts" className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">Not saved yet</h2>
      <ul className="border-t border-line">
        {drafts.map((draft, i) => (
          <li
            key={draft.begun}
            className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2"
          >
            <div className="min-w-64 grow">
              <Link to={`/new?${draft.query}`} className="entry font-semibold underline">
                Draft of {time(draft.at)}
              </Link>
              <p className="text-sm text-soft">{said[i]}</p>
            </div>
            <button
              type="button"
              className="button"
              aria-label={`Discard the draft of ${time(draft.at)}`}
              onClick={() => {
                dropDraft(draft.begun);
                setDrafts(keptDrafts());
              }}
            >
              Discard
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
