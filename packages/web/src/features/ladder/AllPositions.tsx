import { list, placeId, plural, pretty, rootsIn, spotSaid } from '@crow-ladder/core';
import { sharedSpots } from '@crow-ladder/core/ladder';
import { type PanelProps } from '../../task/task.ts';
import { FINGERS } from '../../model/wording.ts';
import { type LadderParams } from './params.ts';
import { fingerAt } from './seen.ts';
import { Wide } from '../../ui/Wide.tsx';

/** Every position of the ladder: where it lies, its lowest note, its roots with their fingers, its seam with the next one. */
export function AllPositions({ model }: PanelProps<LadderParams>) {
  if (!model.positions.ok) return null;
  const all = model.positions.value;
  const names = model.names();
  return (
    <Wide name="All positions">
      <table className="listing">
        <thead>
          <tr>
            <th scope="col">Position</th>
            <th scope="col">Frets</th>
            <th scope="col">Lowest note</th>
            <th scope="col">Roots</th>
            <th scope="col">Shared with the next</th>
          </tr>
        </thead>
        <tbody>
          {all.map((p) => {
            const roots = [...new Map(rootsIn(p).map((s) => [placeId(s), s])).values()];
            const next = all[p.index + 1];
            const low = p.spots[0]!;
            return (
              <tr key={p.index}>
                <th scope="row" className={p === model.front?.position ? '!font-bold' : ''}>
                  {names[p.index]}
                  {p === model.front?.position && <span className="sr-only">, in front</span>}
                </th>
                <td>
                  {p.lowFret} to {p.highFret}
                </td>
                <td>{pretty(`${model.notes[low.degree]}, ${spotSaid(low)}`)}</td>
                <td>
                  {list(roots.map((s) => `${spotSaid(s)} (${FINGERS[fingerAt(model, p, s) ?? 0]})`)) ||
                    'none'}
                </td>
                <td>{next ? plural(sharedSpots(p, next).length, 'note') : ''}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}
