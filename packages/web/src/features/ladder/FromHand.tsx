import { plural, refOf, spotSaid } from '@crow-ladder/core';
import { fromHand, type AtHand } from '@crow-ladder/core/ladder';
import { type PanelProps } from '../../task/task.ts';
import { withFront } from '../../model/moves.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { Word } from '../../ui/Word.tsx';
import { type LadderParams } from './params.ts';
import { handOf } from './seen.ts';

const moveSaid = (move: number): string =>
  move === 0
    ? 'the hand stays'
    : `the hand goes ${plural(Math.abs(move), 'fret')} ${move > 0 ? 'up' : 'down'}`;
const under = ({ shared }: AtHand): string =>
  shared.length ? `${plural(shared.length, 'note')} under the hand` : 'no note under the hand';
/** How many positions that do not lie under the hand are told after those that do. */
const FARTHER = 2;

/** Where the hand is: the frets and strings that it covers, or a chord that it holds. */
export function HandWords({ model, params, onParams }: PanelProps<LadderParams>) {
  const { neck } = model;
  const many = neck.open.length;
  const hand = handOf(model, params);
  const [high, low] = params.strings ?? [1, many];
  const [from, to] = params.frets;
  const put = (part: Partial<LadderParams>): void => onParams({ ...params, ...part });
  const ordered = (a: number, b: number): readonly [number, number] => [Math.min(a, b), Math.max(a, b)];
  const fret = (label: string, value: number, on: (n: number) => readonly [number, number]) => (
    <Field label={label}>
      <Whole value={value} min={0} max={neck.frets} onChange={(n) => put({ frets: on(n), chord: '' })} />
    </Field>
  );
  const string = (label: string, value: number, on: (n: number) => readonly [number, number]) => (
    <Field label={label}>
      <Whole value={value} min={1} max={many} onChange={(n) => put({ strings: on(n), chord: '' })} />
    </Field>
  );
  const strings = high === 1 && low === many ? 'all strings' : `strings ${low} to ${high}`;
  return (
    <>
      {' '}
      <Word
        name="Hand"
        then="."
        body={
          <div className="flex flex-col gap-3">
            <div className="grid grid-cols-2 gap-3">
              {fret('From fret', from, (n) => ordered(n, to))}
              {fret('To fret', to, (n) => ordered(from, n))}
              {string('Lowest string', Math.min(low, many), (n) => ordered(high, n))}
              {string('Highest string', high, (n) => ordered(n, low))}
            </div>
            <Field
              label="Or the frets of a chord, lowest string first"
              error={hand.ok ? undefined : hand.error.message}
              hint="Such as x 7 7 5 5 5; x is a string that is not played."
            >
              <input
                className="input"
                value={params.chord}
                spellCheck={false}
                onChange={(e) => put({ chord: e.target.value })}
              />
            </Field>
          </div>
        }
      >
        {params.chord ? `holding ${params.chord}` : `at frets ${from} to ${to}, ${strings}`}
      </Word>
    </>
  );
}

/** Positions from where the hand is. */
export function FromHand({ model, params, onChange }: PanelProps<LadderParams>) {
  const { positions } = model;
  if (!positions.ok) return null;
  const all = positions.value;
  const names = model.names();
  const hand = handOf(model, params);
  if (!hand.ok) return <p className="error">{hand.error.message}</p>;
  const found = fromHand(all, hand.value);
  const near = found.filter((f) => f.shared.length > 0).length;
  return (
    <ol aria-label="Positions from the hand" className="flex flex-col gap-1.5">
      {found.slice(0, near + FARTHER).map((f) => (
        <li key={f.position.index}>
          <button
            type="button"
            className="word"
            aria-pressed={f.position === model.front?.position}
            onClick={() => onChange((s) => withFront(s, refOf(all, f.position)))}
          >
            {names[f.position.index]}
          </button>
          : {under(f)}, {moveSaid(f.move)};{' '}
          {f.root ? `the nearest root is on ${spotSaid(f.root)}` : 'it holds no root'}.
        </li>
      ))}
    </ol>
  );
}
