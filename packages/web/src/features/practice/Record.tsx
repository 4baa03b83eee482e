import { type Practised } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { comfortable } from '@crow-ladder/core/practice';
import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { useRounds } from '../../app/practised.ts';
import { momentSaid } from '../../ui/dates.ts';

/** Rounds that are listed. */
const LISTED = 12;

/** What the log of practice holds of what is practised here, with the latest rounds, of which each can be taken out. */
export function Record({ practised }: { practised: Practised | undefined }) {
  const { takeOut } = useRounds();
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
              {`${momentSaid(at)}, ${tempo}: ${clean === null ? 'nothing said' : clean ? 'clean' : 'not yet'}`}
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Take out the round at ${tempo} of ${momentSaid(at)}`}
                onClick={() => takeOut(id)}
              >
                <Trash2 size={15} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
        <Link to="/log" className="underline">
          Everything in the log
        </Link>
      </details>
    </div>
  );
}
