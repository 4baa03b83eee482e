import { ALL_OF_LOG, weekOf } from '@crow-ladder/contract';
import { capital, plural } from '@crow-ladder/core';
import { Link } from 'react-router';
import { LAST_CHANGED, server } from '../../app/api.ts';
import { logServer } from '../../app/logApi.ts';
import { said } from '../../app/notice.ts';
import { useCards, useRecall } from '../../app/recalled.ts';
import { useSettings } from '../../app/settings.ts';
import { useSend } from '../../app/state.ts';
import { type Trouble } from '../../app/trouble.ts';
import { goalSaid, longSaid, msOfAll, thingId, thingName, wayBack } from './said.ts';
import { daySaid, momentSaid, noonOf } from '../../ui/dates.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';

/** How long a card takes, in seconds, where nothing is known of it. */
const CARD_S = 20;
const LAST = 5;
/** More cards than this are nobody's duty of one day. */
const MANY = 20;

/** What there is to do today: what is due, where practice stopped, the charts of the last days. */
export function TodayPage() {
  useTitle('Today');
  const { data, error } = useRecall();
  const { rest, learn } = useCards();
  const send = useSend();
  const { data: lesson } = logServer.useNextToLearnQuery();
  const { data: stopped } = logServer.usePractisedLastQuery();
  const { data: charts } = server.useChartsQuery(LAST_CHANGED);
  if (error) return <p className="error">{(error as Trouble).message}</p>;
  if (!data) return <Waiting what="today" />;
  const { due, fresh, waiting, all, rested, resting, next } = data;
  const many = due + fresh;
  const times = Object.values(data.usual);
  const each = times.length ? times.reduce((a, b) => a + b, 0) / times.length / 1000 : CARD_S;
  const minutes = Math.max(1, Math.round((many * each) / 60));
  const back = stopped ? wayBack(stopped.on) : null;
  const last = charts?.charts[0];
  const learnIt = (): void => {
    learn(lesson!.cards);
    send(said({ text: `${plural(lesson!.cards.length, 'card')} to learn: they come a few a day.` }));
  };
  return (
    <div className="flex flex-col gap-6">
      <h1 className="text-2xl font-semibold">Today</h1>
      <section aria-label="Recall" className="flex flex-col gap-2">
        <p className="font-reading text-2xl">
          {many
            ? `${many} to recall, ${plural(minutes, 'minute')}.`
            : all
              ? 'Nothing to recall today.'
              : 'Nothing to recall yet.'}
        </p>
        <p className="text-soft">
          {all
            ? [
                many > MANY ? 'Begin with as many as you like: a round can be left after any card' : '',
                fresh ? `${fresh} of them new` : '',
                waiting ? `${plural(waiting, 'new one')} for another day` : '',
                rested ? `${rested} resting` : '',
                !many && next ? `the next one is due on ${daySaid(noonOf(next))}` : '',
              ]
                .filter(Boolean)
                .join('; ')
            : 'Open a chart, and choose “Learn this” from its menu: what you choose is asked for on the neck, a little each day.'}
        </p>
        {resting.length > 0 && (
          <details>
            <summary className="cursor-pointer font-semibold text-soft">Cards that rest</summary>
            <ul>
              {resting.map(({ id, name }) => (
                <li key={id} className="flex flex-wrap items-center gap-2">
                  {name}
                  <button
                    type="button"
                    className="button button-quiet"
                    aria-label={`Ask ${name} again`}
                    onClick={() => rest(id, false)}
                  >
                    Ask it again
                  </button>
                </li>
              ))}
            </ul>
          </details>
        )}
        {many > 0 && (
          <Link to="/recall" className="button button-strong self-start">
            Begin
          </Link>
        )}
      </section>
      <div className="grid gap-x-10 gap-y-6 min-[900px]:grid-cols-2">
        {stopped && (
          <section aria-label="Practice" className="flex flex-col gap-1">
            <h2 className="text-lg font-semibold">Where practice stopped</h2>
            <p>
              {`${capital(thingName(stopped))}, ${momentSaid(stopped.last)}: ${stopped.best === null ? 'not clean yet' : `clean at ${stopped.best}`}.`}
            </p>
            {back && (
              <Link to={back} className="button self-start">
                Go on
              </Link>
            )}
          </section>
        )}
        {lesson && (
          <section aria-label="Next to learn" className="flex flex-col gap-1">
            <h2 className="text-lg font-semibold">Next to learn</h2>
            <p className="font-reading text-lg">{`${capital(lesson.says)}.`}</p>
            <p className="text-soft">{capital(lesson.why)}</p>
            {lesson.cards.length > 0 && (
              <button type="button" className="button self-start" onClick={learnIt}>
                {`Learn it: ${plural(lesson.cards.length, 'card')}`}
              </button>
            )}
          </section>
        )}
        {lesson === null && last && (
          <section aria-label="Next to learn" className="flex flex-col gap-1">
            <h2 className="text-lg font-semibold">Next to learn</h2>
            <p>
              <Link to={`/charts/${last.id}`} className="font-reading text-lg underline">
                {last.name}
              </Link>
            </p>
            <p className="text-soft">
              It is what you worked on last: choose “Learn this” from its menu, its roots first, then the
              position at hand.
            </p>
          </section>
        )}
        <Week day={data.day} />
        {charts && charts.charts.length > 0 && (
          <section aria-label="Last charts" className="flex flex-col gap-1">
            <h2 className="text-lg font-semibold">Last charts</h2>
            <ul>
              {charts.charts.slice(0, LAST).map(({ id, name }) => (
                <li key={id}>
                  <Link to={`/charts/${id}`} className="font-reading text-lg underline">
                    {name}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}

/** How long was practised since Monday, against the goal. */
function Week({ day }: { readonly day: string }) {
  const [{ weekMinutes, tempoGoals }] = useSettings();
  const { data: sum } = logServer.useLogSumQuery({ ...ALL_OF_LOG, from: weekOf(day) });
  const { data: things } = logServer.usePractisedThingsQuery(undefined, { skip: !tempoGoals.length });
  if (!sum) return null;
  const ms = msOfAll(sum.days);
  const left = (weekMinutes ?? 0) * 60_000 - ms;
  return (
    <section aria-label="This week" className="flex flex-col gap-1">
      <h2 className="text-lg font-semibold">This week</h2>
      <p>
        {`${capital(longSaid(ms))} since Monday`}
        {weekMinutes !== null &&
          (left > 0
            ? ` of ${longSaid(weekMinutes * 60_000)}: ${longSaid(left)} to go`
            : `, the ${longSaid(weekMinutes * 60_000)} are full`)}
        .
      </p>
      {tempoGoals.length > 0 && (
        <ul>
          {tempoGoals.map((goal) => (
            <li key={thingId(goal)}>
              {`${capital(thingName(goal))}: ${goalSaid(goal, things?.find((it) => thingId(it) === thingId(goal))?.best ?? null, day)}`}
            </li>
          ))}
        </ul>
      )}
      <Link to="/log" className="underline">
        The log
      </Link>
    </section>
  );
}
