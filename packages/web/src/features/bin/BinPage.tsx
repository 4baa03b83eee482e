import { BIN_DAYS, BIN_SHOWN, type Binned } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { Link } from 'react-router';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { bringBack, useUndelete } from '../../app/deleting.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { useClock } from '../../ports/clock.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';

const DAY = 86_400_000;
const daysLeft = ({ deletedAt }: Binned, now: number): number =>
  Math.max(0, Math.ceil(BIN_DAYS - (now - Date.parse(deletedAt)) / DAY));

/** What was deleted: brought back, or discarded for good. */
export function BinPage() {
  const { data, error } = server.useBinQuery(undefined, { refetchOnMountOrArgChange: true });
  const [discard] = server.useDiscardMutation();
  const send = useSend();
  const { now } = useClock();
  useUndelete();
  useTitle('Bin');
  const drop = async (it: Binned): Promise<void> => {
    const done = await discard(it);
    send(said({ text: done.error ? (done.error as Trouble).message : `“${it.name}” is gone for good.` }));
  };
  return (
    <div className="flex flex-col gap-4">
      <h1 className="text-2xl font-semibold">Bin</h1>
      <p className="text-soft">
        Charts and instruments stay here for {BIN_DAYS} days after they were deleted.{' '}
        <Link to="/charts" className="underline">
          All charts
        </Link>
      </p>
      {error ? (
        <p className="error">{(error as Trouble).message}</p>
      ) : !data ? (
        <Waiting what="the bin" />
      ) : !data.length ? (
        <p>The bin is empty.</p>
      ) : (
        <ul className="border-t-2 border-ink">
          {data.map((it) => (
            <li
              key={it.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2.5"
            >
              <div className="min-w-64 grow basis-0 [overflow-wrap:anywhere]">
                <p className="font-reading text-lg font-semibold">{it.name}</p>
                <p className="text-sm text-soft">
                  {it.kind}, {plural(daysLeft(it, now()), 'day')} left
                </p>
              </div>
              <button
                type="button"
                className="button"
                aria-label={`Bring back ${it.name}`}
                onClick={() => void send(bringBack(it))}
              >
                Bring back
              </button>
              <button
                type="button"
                className="button"
                aria-label={`Discard ${it.name} for good`}
                onClick={() => void drop(it)}
              >
                Discard for good
              </button>
            </li>
          ))}
        </ul>
      )}
      {data?.length === BIN_SHOWN && (
        <p className="text-soft">
          These are the {BIN_SHOWN} deleted last; older ones are listed as these go.
        </p>
      )}
    </div>
  );
}
