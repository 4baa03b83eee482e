import { plural } from '@crow-ladder/core';
import {
  fingersSaid,
  type Fingering,
  type FingeringSchool,
  movesAt,
  stretchOf,
  stringVisits,
} from '@crow-ladder/core/run';
import { Wide } from '../../ui/Wide.tsx';

interface HandsProps {
  readonly schools: readonly {
    readonly id: FingeringSchool;
    readonly name: string;
    readonly result: Fingering;
  }[];
  readonly chosen: FingeringSchool;
}

/** The signs that need a word, where they occur. */
function signs(results: readonly Fingering[]): string {
  const some = (is: (f: Fingering) => boolean): boolean => results.some(is);
  const said = [
    some((f) => f.steps.some((s) => s.finger === 0)) && '0 is an open string',
    some((f) => f.shifts > 0) && 's a slide, | a shift of the hand on one string',
    some((f) => f.steps.some((s) => stretchOf(s) !== 0)) && 'a stretch stands in the gap that is stretched',
  ].filter(Boolean);
  return said.length ? `${said.join('; ')}.` : '';
}

/** The fingers of the schools side by side, string by string in the order of play; what the drawing shows stands out. */
export function Hands({ schools, chosen }: HandsProps) {
  const results = schools.map((s) => s.result);
  const visits = stringVisits(results[0]!.steps.map((s) => s.spot));
  const told = signs(results);
  /** Whether the hand moves as it comes to a string. */
  const arrives = (f: Fingering, visit: readonly number[]): boolean => movesAt(f.steps, visit[0]!);
  return (
    <>
      <Wide name="Fingers by school">
        <table className="w-full border-collapse text-sm">
          <caption className="sr-only">Fingers by school, string by string</caption>
          <thead>
            <tr>
              <td />
              {schools.map((s) => (
                <th
                  key={s.id}
                  scope="col"
                  className={`px-3 py-0.5 text-left align-bottom ${s.id === chosen ? 'font-bold' : 'font-normal text-soft'}`}
                >
                  {s.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {visits.map((visit) => (
              <tr key={visit[0]} className="border-b border-hair">
                <th scope="row" className="py-0.5 pr-3 text-left font-normal whitespace-nowrap text-soft">
                  string {results[0]!.steps[visit[0]!]!.spot.string}
                </th>
                {schools.map(({ id, result }) => (
                  <td key={id} className={`px-3 py-0.5 ${id === chosen ? 'font-bold' : ''}`}>
                    {fingersSaid(result.steps, visit)}
                    {arrives(result, visit) && (
                      <span className="ml-2 font-normal text-soft">
                        hand to {result.steps[visit[0]!]!.hand}
                      </span>
                    )}
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <th scope="row" className="py-0.5 pr-3 text-left font-normal text-soft">
                in all
              </th>
              {schools.map(({ id, result }) => (
                <td key={id} className="px-3 py-0.5 text-soft">
                  {plural(result.shifts, 'shift')}, {result.stretches}{' '}
                  {result.stretches === 1 ? 'stretch' : 'stretches'}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </Wide>
      {told && <p className="text-sm text-soft">{told}</p>}
    </>
  );
}
