import { AHEAD, dayAfter, type RecallAhead } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { max } from 'd3-array';
import { scaleBand, scaleLinear } from 'd3-scale';
import { daySaid, noonOf, shortDaySaid } from '../../ui/dates.ts';
import { Drawing, Levels } from './Drawing.tsx';

const SIZE = { width: 620, height: 190, left: 34, right: 6, top: 12, bottom: 26 };

/** What is remembered and what comes, in a sentence. */
export function aheadSaid({ cards, known, firm, due }: RecallAhead): string {
  if (!cards) return 'Nothing is recalled yet.';
  const all = due.reduce((sum, n) => sum + n, 0);
  return `Of ${plural(cards, 'card')} you would know about ${known} today, and ${firm} hold for three weeks or longer. ${due[0]} come today, ${plural(all, 'card')} within ${AHEAD.days} days.`;
}

/** What is remembered, and what comes due in the next days. */
export function Ahead({ ahead, today }: { readonly ahead: RecallAhead; readonly today: string }) {
  const { width, height, left, right, top, bottom } = SIZE;
  const { due } = ahead;
  const x = scaleBand(
    due.map((_, i) => i),
    [left, width - right],
  ).padding(0.25);
  const y = scaleLinear([0, Math.max(4, max(due) ?? 0)], [height - bottom, top]).nice(4);
  const day = (n: number): string => noonOf(dayAfter(today, n));
  return (
    <Drawing
      title="What comes to recall"
      says={aheadSaid(ahead)}
      width={width}
      height={height}
      table={{
        heads: ['Day', 'Cards'],
        rows: due.map((n, i) => [i === 0 ? 'today' : daySaid(day(i)), n]),
      }}
    >
      <Levels y={y} levels={y.ticks(4).filter(Number.isInteger)} from={left} to={width - right} />
      {due.map((n, i) => (
        <rect
          key={i}
          x={x(i)}
          width={x.bandwidth()}
          y={y(n)}
          height={Math.max(0, y(0) - y(n))}
          className={i === 0 ? 'now' : 'later'}
        />
      ))}
      {[0, 7, 14, 21, 28].map((i) => (
        <text
          key={i}
          x={x(i)! + (i ? x.bandwidth() / 2 : 0)}
          y={height - 6}
          textAnchor={i ? 'middle' : 'start'}
        >
          {i ? shortDaySaid(day(i)) : 'today'}
        </text>
      ))}
    </Drawing>
  );
}
