import { type UsedInstrument } from '@crow-ladder/contract';
import { pretty, tuningText } from '@crow-ladder/core';
import { Trash2 } from 'lucide-react';
import { Link, useParams } from 'react-router';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { remove, useUndelete } from '../../app/deleting.ts';
import { useSend } from '../../app/state.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { InstrumentForm } from './InstrumentForm.tsx';

/** The player's instruments, and the form for one of them. */
export function InstrumentsPage() {
  const { id } = useParams();
  const { data, error } = server.useInstrumentsQuery();
  useUndelete();
  useTitle('Instruments');
  if (error) return <p className="error">{(error as Trouble).message}</p>;
  if (!data) return <Waiting what="the instruments" />;
  const chosen = data.find((i) => i.id === id);
  if (id && id !== 'new' && !chosen)
    return (
      <p>
        There is no such instrument; it may have been deleted.{' '}
        <Link to="/instruments" className="underline">
          All instruments
        </Link>
      </p>
    );
  return (
    <div className="flex flex-col gap-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-semibold">Instruments</h1>
        <div className="flex gap-2">
          <Link to="/bin" className="button button-quiet">
            <Trash2 size={17} aria-hidden /> Bin
          </Link>
          <Link to="/instruments/new" className="button button-strong">
            New instrument
          </Link>
        </div>
      </div>
      {id ? <InstrumentForm key={id} kept={chosen ?? null} /> : null}
      <ul className="border-t-2 border-ink">
        {data.map((k) => (
          <Row key={k.id} kept={k} />
        ))}
        {!data.length && (
          <li className="py-3">No instruments yet. Make one, starting from a tuning of the table.</li>
        )}
      </ul>
    </div>
  );
}

function Row({ kept }: { kept: UsedInstrument }) {
  const send = useSend();
  const { instrument: it, charts: users, revision } = kept;
  const keep = users
    ? ` ${users === 1 ? 'The chart that uses it keeps' : `The ${users} charts that use it keep`} the instrument as it was.`
    : '';
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2.5">
      <div className="min-w-64 basis-0 grow [overflow-wrap:anywhere]">
        <Link
          to={`/instruments/${kept.id}`}
          className="entry font-reading text-lg font-semibold underline decoration-line decoration-2 underline-offset-4"
        >
          {it.name}
        </Link>
        <p className="text-sm text-soft">
          {pretty(tuningText(it.tuning))}, {it.frets} frets, {it.scaleLength} mm
          {it.capo ? `, capo at ${it.capo}` : ''}
          {it.handed === 'left' ? ', left-handed' : ''}
        </p>
      </div>
      <p className="text-sm text-soft">
        {users ? `used by ${users} chart${users === 1 ? '' : 's'}` : 'not used yet'}
      </p>
      <button
        type="button"
        className="button"
        aria-label={`Delete ${it.name}`}
        onClick={() => void send(remove({ kind: 'instrument', id: kept.id, name: it.name, revision }, keep))}
      >
        Delete
      </button>
    </li>
  );
}
