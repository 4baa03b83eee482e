import {
  dayAfter,
  daysBetween,
  GOALS,
  type PractisedThing,
  type TempoDay,
  type TempoGoal,
} from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { TEMPO } from '@crow-ladder/core/run';
import { extent, max, min } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { useDeferredValue, useState } from 'react';
import { logServer } from '../../app/logApi.ts';
import { useSettings } from '../../app/settings.ts';
import { daySaid, noonOf, shortDaySaid } from '../../ui/dates.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { Drawing, Levels } from './Drawing.tsx';
import { goalSaid, thingId, thingName } from './said.ts';

const SIZE = { width: 620, height: 230, left: 40, right: 14, top: 12, bottom: 26 };
/** Days without practice after which a line does not go on: a gap is a gap. */
const GAP_DAYS = 9;

interface TempoProps {
  readonly things: readonly PractisedThing[];
  readonly of: string | null;
  readonly onOf: (id: string) => void;
  /** The first day that is looked at; empty is any. */
  readonly from: string;
  readonly today: string;
}

/** The tempo of something over time, and the tempo that it is to reach. */
export function Tempo({ things, of, onOf, from, today }: TempoProps) {
  const timed = things.filter(({ perBeat }) => perBeat !== null);
  const thing = timed.find((it) => thingId(it) === of) ?? timed[0];
  if (!thing) return <p className="text-soft">Tempos stand here once a drill was played to a tempo.</p>;
  return (
    <div className="flex flex-col gap-3">
      <Field label="Of">
        <Choice
          value={thingId(thing)}
          options={timed.map((it) => ({ id: thingId(it), name: thingName(it) }))}
          onChange={onOf}
        />
      </Field>
      <Line key={thingId(thing)} thing={thing} from={from} today={today} />
    </div>
  );
}

function Line({
  thing,
  from,
  today,
}: {
  readonly thing: PractisedThing;
  readonly from: string;
  readonly today: string;
}) {
  const { drill, shape, perBeat } = thing;
  const { data } = logServer.useTempoDaysQuery({ drill, shape, perBeat });
  const all = useDeferredValue(data, undefined);
  const [settings, change] = useSettings();
  const goal = settings.tempoGoals.find((it) => thingId(it) === thingId(thing)) ?? null;
  const days = (all ?? []).filter(({ day }) => day >= from);
  const put = (to: TempoGoal | null): void =>
    change(({ tempoGoals }) => ({
      tempoGoals: [...tempoGoals.filter((it) => thingId(it) !== thingId(thing)), ...(to ? [to] : [])],
    }));
  return (
    <>
      {days.length > 0 && <Drawn days={days} goal={goal} today={today} />}
      {all && days.length === 0 && <p className="text-soft">Not played in this time.</p>}
      <Goal
        thing={thing}
        goal={goal}
        today={today}
        full={settings.tempoGoals.length >= GOALS.tempos}
        onGoal={put}
      />
    </>
  );
}

/** What a tempo did over time, in a sentence. */
export function tempoSaid(days: readonly TempoDay[]): string {
  const clean = days.filter((it) => it.clean !== null);
  const [first, last] = [clean[0], clean.at(-1)];
  if (!first || !last) return `Tried at ${max(days, ({ tried }) => tried)} at most, not clean yet.`;
  const when = ({ day }: TempoDay): string => shortDaySaid(noonOf(day));
  const most = max(clean, (it) => it.clean!)!;
  if (first === last) return `Clean at ${first.clean} on ${when(first)}.`;
  return `From ${first.clean} on ${when(first)} to ${last.clean} on ${when(last)}${most > last.clean! ? `, ${most} at most` : ''}, on ${plural(days.length, 'day')}.`;
}

function Drawn({
  days,
  goal,
  today,
}: {
  readonly days: readonly TempoDay[];
  readonly goal: TempoGoal | null;
  readonly today: string;
}) {
  const { width, height, left, right, top, bottom } = SIZE;
  const first = days[0]!.day;
  const until = goal && goal.by > today ? goal.by : today;
  const x = scaleLinear([0, Math.max(1, daysBetween(first, until))], [left, width - right]);
  const at = (day: string): number => x(daysBetween(first, day));
  const tempos = days.flatMap(({ clean, tried }) => [tried, ...(clean === null ? [] : [clean])]);
  const [low = 60, high = 60] = extent([...tempos, ...(goal ? [goal.tempo] : [])]);
  const y = scaleLinear([low - 5, high + 5], [height - bottom, top]).nice(5);
  // Clean tempos are joined where no longer gap lies between them.
  const clean = days.filter((it) => it.clean !== null);
  const pieces: TempoDay[][] = [];
  for (const it of clean) {
    const piece = pieces.at(-1);
    const last = piece?.at(-1);
    if (piece && last && daysBetween(last.day, it.day) <= GAP_DAYS) piece.push(it);
    else pieces.push([it]);
  }
  const path = line<TempoDay>()
    .x(({ day }) => at(day))
    .y((it) => y(it.clean!));
  const marked = x.ticks(6).filter(Number.isInteger);
  return (
    <Drawing
      title="Tempo"
      says={tempoSaid(days)}
      width={width}
      height={height}
      table={{
        heads: ['Day', 'Clean at', 'Tried at'],
        rows: [...days].reverse().map((it) => [daySaid(noonOf(it.day)), it.clean ?? 'not yet', it.tried]),
      }}
    >
      <Levels y={y} levels={y.ticks(5)} from={left} to={width - right} />
      {marked.map((n) => (
        <text key={n} x={x(n)} y={height - 6} textAnchor={n === 0 ? 'start' : 'middle'}>
          {shortDaySaid(noonOf(dayAfter(first, n)))}
        </text>
      ))}
      {goal && (
        <>
          <path
            d={`M${at(min([days.at(-1)!.day, goal.by])!)},${y(days.at(-1)!.clean ?? days.at(-1)!.tried)}L${at(goal.by)},${y(goal.tempo)}`}
            className="to-goal"
          />
          <path d={`M${at(goal.by)},${y(goal.tempo) - 7}l7,7l-7,7l-7,-7z`} className="aim" />
        </>
      )}
      {pieces.map((piece) => (
        <path key={piece[0]!.day} d={path(piece)!} className="trace" />
      ))}
      {days.map(({ day, clean: is, tried }) => (
        <g key={day}>
          {tried !== is && <circle cx={at(day)} cy={y(tried)} r={3.5} className="tried" />}
          {is !== null && <circle cx={at(day)} cy={y(is)} r={4.5} className="clean" />}
        </g>
      ))}
    </Drawing>
  );
}

function Goal({
  thing,
  goal,
  today,
  full,
  onGoal,
}: {
  readonly thing: PractisedThing;
  readonly goal: TempoGoal | null;
  readonly today: string;
  /** Whether there is room for no other one. */
  readonly full: boolean;
  readonly onGoal: (goal: TempoGoal | null) => void;
}) {
  const { drill, shape, perBeat, name, best } = thing;
  const [tempo, setTempo] = useState(goal?.tempo ?? Math.min(TEMPO.most, (best ?? 80) + 20));
  const [by, setBy] = useState(goal?.by ?? dayAfter(today, 28));
  const early = by <= today ? 'Choose a day to come.' : undefined;
  return (
    <div className="flex flex-col gap-2">
      <p role="status">{goal && goalSaid(goal, best, today)}</p>
      <div className="flex flex-wrap items-end gap-3">
        <Field label="A tempo to reach">
          <Whole value={tempo} min={TEMPO.least} max={TEMPO.most} onChange={setTempo} className="!w-24" />
        </Field>
        <Field label="By" error={early}>
          <input
            type="date"
            className="input !w-auto"
            value={by}
            min={dayAfter(today, 1)}
            onChange={(e) => setBy(e.target.value)}
          />
        </Field>
        <button
          type="button"
          className="button"
          disabled={Boolean(early) || !by || (full && !goal)}
          onClick={() => onGoal({ drill, shape, perBeat, name, tempo, by })}
        >
          {goal ? 'Change the goal' : 'Make it a goal'}
        </button>
        {goal && (
          <button type="button" className="button button-quiet" onClick={() => onGoal(null)}>
            Let the goal go
          </button>
        )}
      </div>
    </div>
  );
}
