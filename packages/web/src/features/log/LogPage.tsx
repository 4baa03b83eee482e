import { GOALS, RECALLED } from '@crow-ladder/contract';
import { DRILLS } from '@crow-ladder/core/drills';
import { lazy, Suspense, useDeferredValue, useMemo } from 'react';
import { logServer } from '../../app/logApi.ts';
import { useDay } from '../../app/recalled.ts';
import { useSettings } from '../../app/settings.ts';
import { type Trouble } from '../../app/trouble.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { useWords } from '../../ui/useWords.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { Ahead } from './Ahead.tsx';
import { Calendar } from './Calendar.tsx';
import { Days } from './Days.tsx';
import { queryIn, timeIn, TIMES } from './query.ts';
import { daysSaid } from './said.ts';
import { Tempo } from './Tempo.tsx';
import { Weak } from './Weak.tsx';

const FileIn = lazy(() => import('./FileIn.tsx').then((m) => ({ default: m.FileIn })));
/** Minutes a week that are offered at first. */
const USUAL_MINUTES = 120;

/** Everything that was practised and recalled: how long, how fast, how well, day by day, with the way back to each. */
export function LogPage() {
  useTitle('Log');
  const today = useDay();
  const [params, put] = useWords();
  const time = timeIn(params);
  const query = useMemo(() => queryIn(params, today), [params, today]);
  const { data: summed, error } = logServer.useLogSumQuery(query);
  const { data: parts } = logServer.useLogPartsQuery();
  const { data: listed } = logServer.usePractisedThingsQuery();
  // What is much is drawn piece by piece.
  const sum = useDeferredValue(summed, undefined);
  const things = useDeferredValue(listed, undefined);
  const { data: ahead } = logServer.useRecallAheadQuery(today);
  // What is looked for first comes first.
  const later = useDeferredValue(sum !== undefined, false);
  const [settings, change] = useSettings();
  const drillName = (kind: string): string =>
    kind === RECALLED ? 'recall' : (DRILLS.of(kind)?.name ?? kind);
  // How fast something goes is asked of what is looked at.
  const timed = (things ?? []).filter(
    ({ on, drill }) =>
      (!query.chart || on?.chart === query.chart) && (!query.what || drill.split('.')[0] === query.what),
  );
  const files = new URLSearchParams(Object.entries(query).filter(([, word]) => word !== '')).toString();
  if (error) return <p className="error">{(error as Trouble).message}</p>;
  if (!sum) return <Waiting what="the log" />;
  const first = query.from || (sum.days[0]?.day ?? today);
  const { weekMinutes } = settings;
  return (
    <div className="flex flex-col gap-8">
      <div className="flex flex-col gap-2">
        <h1 className="text-2xl font-semibold">Log</h1>
        <p className="task-sentence">
          {'What was done in '}
          <Picked
            name="Time"
            options={TIMES}
            value={time.id}
            onPick={(id) => put('time', id === '4w' ? null : id)}
          />
          {', on '}
          <Picked
            name="Chart"
            options={[
              { id: '', name: 'any chart' },
              ...(parts?.charts ?? []).map(({ id, name }) => ({ id, name: name || 'without a name' })),
            ]}
            value={query.chart}
            onPick={(id) => put('chart', id)}
            then=","
          />{' '}
          <Picked
            name="Drill"
            options={[
              { id: '', name: 'any drill' },
              ...(parts?.drills ?? []).map((id) => ({ id, name: drillName(id) })),
              { id: RECALLED, name: 'recall' },
            ]}
            value={query.what}
            onPick={(id) => put('what', id)}
            then=","
          />
          {' of '}
          <Picked
            name="Tag"
            options={[{ id: '', name: 'any tag' }, ...(parts?.tags ?? []).map((id) => ({ id, name: id }))]}
            value={query.tag}
            onPick={(id) => put('tag', id)}
            then="."
          />
        </p>
        <p role="status" className="font-reading text-lg">
          {daysSaid(sum.days)}
        </p>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] min-[1000px]:grid-rows-[auto_auto_auto_auto_1fr]">
        <section aria-label="Minutes a day" className="flex flex-col gap-3">
          <h2 className="text-lg font-semibold">Minutes a day</h2>
          <Calendar days={sum.days} from={first} to={today} goal={weekMinutes} />
          <div className="flex flex-wrap items-end gap-3">
            <Switch
              on={weekMinutes !== null}
              onChange={(on) => change(() => ({ weekMinutes: on ? USUAL_MINUTES : null }))}
            >
              a goal for the week
            </Switch>
            {weekMinutes !== null && (
              <Field label="Minutes a week">
                <Whole
                  value={weekMinutes}
                  min={GOALS.minutes[0]}
                  max={GOALS.minutes[1]}
                  className="!w-28"
                  onChange={(minutes) => change(() => ({ weekMinutes: minutes }))}
                />
              </Field>
            )}
          </div>
        </section>
        <section
          aria-label="Day by day"
          className="flex min-w-0 flex-col gap-3 min-[1000px]:col-start-2 min-[1000px]:row-span-5 min-[1000px]:row-start-1"
        >
          <h2 className="text-lg font-semibold">Day by day</h2>
          <Days key={JSON.stringify(query)} query={query} today={today} />
        </section>
        {later && (
          <>
            <section aria-label="Tempo over time" className="flex flex-col gap-2">
              <h2 className="text-lg font-semibold">How fast</h2>
              <Tempo
                things={timed}
                of={params.get('of')}
                onOf={(id) => put('of', id)}
                from={query.from}
                today={today}
              />
            </section>
            <section aria-label="Remembered">{ahead && <Ahead ahead={ahead} today={today} />}</section>
            <section aria-label="Weak spots" className="flex flex-col gap-2">
              <h2 className="text-lg font-semibold">Where it is weak</h2>
              <Weak {...sum} />
            </section>
            <section aria-label="Files" className="flex flex-col gap-2">
              <h2 className="text-lg font-semibold">The log in a file</h2>
              <p className="text-soft">
                {`What is chosen above goes out as a table for other programs, or as JSON. A table of a log that was kept elsewhere comes in with a line for each round, and with “day” and “what” in its first line.`}
              </p>
              <div className="flex flex-wrap items-center gap-2">
                {(['csv', 'json'] as const).map((kind) => (
                  <a key={kind} className="button" href={`/api/log.${kind}${files && `?${files}`}`} download>
                    {kind === 'csv' ? 'Save as a table (CSV)' : 'Save as JSON'}
                  </a>
                ))}
                <Suspense>
                  <FileIn />
                </Suspense>
              </div>
            </section>
          </>
        )}
      </div>
    </div>
  );
}
