import { refWord } from '@crow-ladder/contract';
import { plural, type PositionRef, refOf } from '@crow-ladder/core';
import { seamByString, type SeamString } from '@crow-ladder/core/ladder';
import { type PanelProps } from '../../task/task.ts';
import { type Model } from '../../model/model.ts';
import { withFront } from '../../model/moves.ts';
import { Explained } from '../../ui/Explained.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { type LadderParams } from './params.ts';
import { fingerAt, pairOf } from './seen.ts';
import { fretsSaid, sharedSaid } from './words.ts';

type Pair = NonNullable<ReturnType<typeof pairOf>>;

/** A string of a seam in words: what both share and on which fingers, then what each has alone. */
function stringSaid(model: Model, [lower, upper]: Pair, on: SeamString): string {
  const frets = (spots: SeamString['lower']): readonly number[] => spots.map((s) => s.fret);
  const parts = [
    ...on.shared.map((s) => sharedSaid(s, fingerAt(model, lower, s), fingerAt(model, upper, s))),
    ...(on.lower.length ? [`below only ${fretsSaid(frets(on.lower))}`] : []),
    ...(on.upper.length ? [`above only ${fretsSaid(frets(on.upper))}`] : []),
  ];
  return `${parts.join('; ')}.`;
}

/** Which two positions: the one in front, and another one. */
export function SeamWords({ model, params, onParams, onChange }: PanelProps<LadderParams>) {
  const pair = pairOf(model, params);
  const { front, positions } = model;
  if (!pair || !front || !positions.ok) return '.';
  const all = positions.value;
  const names = model.names();
  const refs = new Map<string, PositionRef>(all.map((p) => [refWord(refOf(all, p)), refOf(all, p)]));
  const options = all.map((p) => ({ id: refWord(refOf(all, p)), name: names[p.index]! }));
  const mine = refWord(refOf(all, front.position));
  return (
    <>
      {' '}
      <Picked
        name="Position in front"
        value={mine}
        options={options}
        onPick={(id) => onChange((s) => withFront(s, refs.get(id)!))}
      />{' '}
      with{' '}
      <Picked
        name="Compare with"
        then="."
        value={refWord(refOf(all, pair[0] === front.position ? pair[1] : pair[0]))}
        options={options.filter(({ id }) => id !== mine)}
        onPick={(id) => onParams({ ...params, other: refs.get(id)! })}
      />
    </>
  );
}

/** Two positions beside each other: what they share, string by string, and on which finger. */
export function TwoPositions({ model, params }: PanelProps<LadderParams>) {
  const pair = pairOf(model, params);
  if (!pair) return <p>There is one position alone in this layout: nothing to compare it with.</p>;
  const [lower, upper] = pair;
  const names = model.names();
  const seam = seamByString(model.neck, lower, upper);
  const shared = seam.reduce((n, s) => n + s.shared.length, 0);
  return (
    <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <p>
        {shared ? (
          <>
            Their <Explained term="seam">seam</Explained> is {plural(shared, 'note')}:
          </>
        ) : (
          'They share no note.'
        )}{' '}
        <MarkKind kind="shared">in both</MarkKind>,{' '}
        <MarkKind kind="lower">{`${names[lower.index]} alone`}</MarkKind>,{' '}
        <MarkKind kind="upper">{`${names[upper.index]} alone`}</MarkKind>.
      </p>
      <dl aria-label="The seam, string by string" className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        {seam.map((on) => (
          <div key={on.string} className="contents">
            <dt className="font-semibold">String {on.string}:</dt>
            <dd>{stringSaid(model, pair, on)}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
