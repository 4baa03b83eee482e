import { type DaySum, dayAfter } from '@crow-ladder/contract';
import { max } from 'd3-array';
import { scaleLinear, scaleSqrt } from 'd3-scale';
import { daySaid, noonOf, shortDaySaid, weekdaySaid } from '../../ui/dates.ts';
import { longSaid, msOf, msOfAll, weeksOf } from './said.ts';

/** Weeks that are shown day by day; more are shown as a bar each. */
const BY_DAY = 12;
/** The side of a day, and the largest disc in it, in px. */
const SIDE = 40;
const LARGEST = 17;

interface CalendarProps {
  readonly days: readonly DaySum[];
  readonly from: string;
  readonly to: string;
  /** The goal of a week, in minutes. */
  readonly goal: number | null;
}

/** How long was practised on each day: a disc as large as the time, in the week's row; days without anything are free. */
export function Calendar({ days, from, to, goal }: CalendarProps) {
  const weeks = weeksOf(days, from, to);
  const most = max(days, msOf) ?? 0;
  const radius = scaleSqrt([0, Math.max(most, 1)], [0, LARGEST]);
  const sums = weeks.map((week) => msOfAll(week.days.filter((it) => it !== null)));
  const wide = scaleLinear([0, Math.max(max(sums) ?? 0, (goal ?? 0) * 60_000, 1)], [0, 100]);
  const byDay = weeks.length <= BY_DAY;
  return (
    <div className="overflow-x-auto">
      <table className="calendar">
        <caption className="sr-only">Minutes a day, a week in a row</caption>
        <thead>
          <tr>
            <th scope="col">Week of</th>
            {byDay &&
              weeks[0]?.days.map((_, i) => (
                <th key={i} scope="col">
                  {weekdaySaid(noonOf(dayAfter(weeks[0]!.monday, i)))}
                </th>
              ))}
            <th scope="col">{goal === null ? 'Together' : `of ${longSaid(goal * 60_000)}`}</th>
          </tr>
        </thead>
        <tbody>
          {weeks.map(({ monday, days: all }, w) => (
            <tr key={monday}>
              <th scope="row">{shortDaySaid(noonOf(monday))}</th>
              {byDay &&
                all.map((it, i) => {
                  const day = dayAfter(monday, i);
                  return (
                    <td key={day} className={day > to || day < from ? 'outside' : day === to ? 'today' : ''}>
                      {it && (
                        <>
                          <svg width={SIDE} height={SIDE} viewBox={`0 0 ${SIDE} ${SIDE}`} aria-hidden>
                            <circle cx={SIDE / 2} cy={SIDE / 2} r={Math.max(3, radius(msOf(it)))} />
                          </svg>
                          <span className="sr-only">{`${daySaid(noonOf(day))}: ${longSaid(msOf(it))}`}</span>
                          <span aria-hidden>{Math.round(msOf(it) / 60_000) || '·'}</span>
                        </>
                      )}
                    </td>
                  );
                })}
              <td className="together">
                <span className="bar" style={{ width: `${wide(sums[w]!)}%` }} aria-hidden />
                {goal !== null && (
                  <span className="goal" style={{ left: `${wide(goal * 60_000)}%` }} aria-hidden />
                )}
                <span className="relative">{sums[w] ? longSaid(sums[w]) : '–'}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
