import { LIMITS, plural, refOf, spotSaid } from '@crow-ladder/core';
import { fromHand, type AtHand } from '@crow-ladder/core/ladder';
import { type PanelProps } from '../../task/task.ts';
import { withFront } from '../../model/moves.ts';
import { Field, Whole } from '../../ui/fields.tsx';
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

/** Positions from where the hand is: by the frets and strings that it covers, or by a chord that it holds. */
export function FromHand({ model, params, onParams, onChange }: PanelProps<LadderParams>) {
  const { neck, positions } = model;
  if (!positions.ok) return null;
  const all = positions.value;
  const names = model.names();
  const hand = handOf(model, params);
  const found = hand.ok ? fromHand(all, hand.value) : [];
  const near = found.filter((f) => f.shared.length > 0).length;
  const strings = params.strings ?? [1, neck.open.length];
  const put = (part: Partial<LadderParams>): void => onParams({ ...params, ...part });
  const ordered = (a: number, b: number): readonly [number, number] => [Math.min(a, b), Math.max(a, b)];
  return (
    <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        <div className="grid grid-cols-2 gap-3 xl:grid-cols-4">
          <Field label="From fret">
            <Whole
              value={params.frets[0]}
              min={0}
              max={neck.frets}
              onChange={(n) => put({ frets: ordered(n, params.frets[1]), chord: '' })}
            />
          </Field>
          <Field label="To fret">
            <Whole
              value={params.frets[1]}
              min={0}
              max={neck.frets}
              onChange={(n) => put({ frets: ordered(params.frets[0], n), chord: '' })}
            />
          </Field>
          <Field label="Lowest string">
            <Whole
              value={strings[1]}
              min={1}
              max={Math.min(LIMITS.strings[1], neck.open.length)}
              onChange={(n) => put({ strings: ordered(strings[0], n), chord: '' })}
            />
          </Field>
          <Field label="Highest string">
            <Whole
              value={strings[0]}
              min={1}
              max={Math.min(LIMITS.strings[1], neck.open.length)}
              onChange={(n) => put({ strings: ordered(n, strings[1]), chord: '' })}
            />
          </Field>
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
    </div>
  );
}
