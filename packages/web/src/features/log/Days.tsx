import { dayAfter, type KeptRound, type LogDay, type LogQuery, ROUND_LIMITS } from '@crow-ladder/contract';
import { capital, plural } from '@crow-ladder/core';
import { Pencil, Trash2 } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { logServer } from '../../app/logApi.ts';
import { useRounds } from '../../app/practised.ts';
import { type Trouble } from '../../app/trouble.ts';
import { longDaySaid, noonOf, shortDaySaid, timeSaid } from '../../ui/dates.ts';
import { Folded } from './Folded.tsx';
import { keyNamed, longSaid, roundSaid, roundsSaid, thingId, thingName, wayBack } from './said.ts';

/** "Yesterday, Thursday, 4 June". */
function dayNamed(day: string, today: string): string {
  const named = longDaySaid(noonOf(day));
  if (day === today) return `Today, ${named}`;
  return day === dayAfter(today, -1) ? `Yesterday, ${named}` : named;
}

/** Takes a round out of the log. */
type Out = (round: KeptRound) => void;

/** The log day by day, the last one first, some days at a time. */
export function Days({ query, today }: { readonly query: LogQuery; readonly today: string }) {
  // Each page is asked for by the day that it ends before.
  const [pages, setPages] = useState<readonly string[]>(['']);
  const [taken, setTaken] = useState<KeptRound | null>(null);
  const { takeOut, keepAll } = useRounds();
  return (
    <div className="flex flex-col gap-4">
      <p role="status" className="empty:hidden">
        {taken && (
          <>
            {`Taken out: ${thingName(taken)}, ${shortDaySaid(taken.at)} ${timeSaid(taken.at)}. `}
            <button
              type="button"
              className="button"
              onClick={() => {
                keepAll([taken]);
                setTaken(null);
              }}
            >
              Put it back
            </button>
          </>
        )}
      </p>
      {pages.map((before, i) => (
        <Page
          key={before}
          query={query}
          before={before}
          today={today}
          onOut={(round) => {
            takeOut(round.id);
            setTaken(round);
          }}
          onEarlier={i === pages.length - 1 ? (day) => setPages([...pages, day]) : null}
        />
      ))}
    </div>
  );
}

function Page({
  query,
  before,
  today,
  onOut,
  onEarlier,
}: {
  readonly query: LogQuery;
  readonly before: string;
  readonly today: string;
  readonly onOut: Out;
  readonly onEarlier: ((before: string) => void) | null;
}) {
  const { data: read, error } = logServer.useLogQuery({ ...query, before });
  // What is much is drawn piece by piece.
  const data = useDeferredValue(read, undefined);
  if (error) return <p className="error">{(error as Trouble).message}</p>;
  if (!data) return <p role="status">Reading the log…</p>;
  const last = data.days.at(-1);
  if (!last && !before) return <p className="text-soft">Nothing in this part of the log.</p>;
  return (
    <>
      {data.days.map((day) => (
        <Day key={day.day} {...day} today={today} onOut={onOut} />
      ))}
      {onEarlier && data.earlier && last && (
        <button type="button" className="button self-start" onClick={() => onEarlier(last.day)}>
          Earlier days
        </button>
      )}
    </>
  );
}

/** The rounds of a day by what was played on what, that which was played last first. */
function byThing(rounds: readonly KeptRound[]): readonly (readonly [id: string, readonly KeptRound[]])[] {
  const by = new Map<string, KeptRound[]>();
  for (const it of rounds) {
    const id = JSON.stringify([thingId(it), it.name, it.on?.chart, it.on?.root]);
    by.set(id, [...(by.get(id) ?? []), it]);
  }
  return [...by];
}

function Day({
  day,
  rounds,
  more,
  recalled,
  today,
  onOut,
}: LogDay & { readonly today: string; readonly onOut: Out }) {
  const played = rounds.reduce((sum, { ms }) => sum + ms, 0);
  return (
    <section aria-label={dayNamed(day, today)}>
      <h3 className="flex flex-wrap items-baseline gap-x-3 border-b-2 border-ink font-semibold">
        {dayNamed(day, today)}
        <span className="font-normal text-soft">{longSaid(played + (recalled?.ms ?? 0))}</span>
      </h3>
      <ul>
        {byThing(rounds).map(([id, all]) => (
          <Thing key={id} rounds={all} onOut={onOut} />
        ))}
        {more > 0 && <li className="py-1 text-soft">{`and ${plural(more, 'more round')}`}</li>}
        {recalled && (
          <li className="border-b border-hair py-1.5">
            <Link to="/recall" className="underline">
              Recall
            </Link>
            {`: ${plural(recalled.answers, 'card')} answered, ${recalled.known} known, ${longSaid(recalled.ms)}`}
            {recalled.known < recalled.answers && (
              <Folded summary="What was not known" className="text-sm">
                {() => (
                  <ul className="list-disc pl-5">
                    {recalled.cards
                      .filter(({ grade }) => grade === 1)
                      .map(({ id, name }) => (
                        <li key={id}>{name}</li>
                      ))}
                  </ul>
                )}
              </Folded>
            )}
          </li>
        )}
      </ul>
    </section>
  );
}

/** Something that was played on a day, with its rounds. */
function Thing({ rounds, onOut }: { readonly rounds: readonly KeptRound[]; readonly onOut: Out }) {
  const last = rounds[0]!;
  const { on } = last;
  const back = wayBack(on);
  const what = capital(thingName(last));
  const notes = rounds.flatMap(({ id, note }) => (note ? [{ id, note }] : []));
  return (
    <li className="border-b border-hair py-1.5">
      {back ? (
        <Link to={back} className="underline">
          {what}
        </Link>
      ) : (
        what
      )}
      {on && (
        <span className="text-soft">{` – ${on.chartName || 'a chart without a name'}, ${keyNamed(on)}`}</span>
      )}
      {notes.map(({ id, note }) => (
        <p key={id} className="text-sm italic">
          {note}
        </p>
      ))}
      <Folded summary={roundsSaid(rounds)} className="text-sm">
        {() => (
          <ul className="pl-4">
            {rounds.map((round) => (
              <Round key={round.id} round={round} what={what} onOut={onOut} />
            ))}
          </ul>
        )}
      </Folded>
    </li>
  );
}

function Round({
  round,
  what,
  onOut,
}: {
  readonly round: KeptRound;
  readonly what: string;
  readonly onOut: Out;
}) {
  const { id, at, on, ms, note } = round;
  const { note: keepNote } = useRounds();
  const [typed, setTyped] = useState<string | null>(null);
  const back = wayBack(on);
  const when = `${timeSaid(at)} on ${shortDaySaid(at)}`;
  const how = [roundSaid(round), ms ? longSaid(ms) : ''].filter(Boolean).join(', ') || 'played';
  const save = (): void => {
    if (typed !== null && typed.trim() !== note) keepNote(id, typed.trim());
    setTyped(null);
  };
  return (
    <li className="flex flex-wrap items-center gap-x-3 text-sm">
      <time dateTime={at} className="text-soft">
        {timeSaid(at)}
      </time>
      {back ? (
        <Link to={back} className="underline" aria-label={`${how}: ${what}, ${when}`}>
          {how}
        </Link>
      ) : (
        how
      )}
      <button
        type="button"
        className="button button-quiet"
        aria-label={`Note on ${what}, ${when}`}
        onClick={() => setTyped(note)}
      >
        <Pencil size={15} aria-hidden />
      </button>
      <button
        type="button"
        className="button button-quiet"
        aria-label={`Take out ${what}, ${when}`}
        onClick={() => onOut(round)}
      >
        <Trash2 size={15} aria-hidden />
      </button>
      {typed !== null && (
        <form
          className="w-full"
          onSubmit={(e) => {
            e.preventDefault();
            save();
          }}
        >
          <input
            className="input w-full"
            aria-label="Note"
            autoFocus
            maxLength={ROUND_LIMITS.note}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={save}
            onKeyDown={(e) => e.key === 'Escape' && setTyped(null)}
          />
        </form>
      )}
    </li>
  );
}
