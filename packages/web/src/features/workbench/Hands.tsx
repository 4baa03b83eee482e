import {
  type FingeredNote,
  type Fingering,
  type FingeringSchool,
  type Move,
  plural,
} from '@crow-ladder/core';

interface HandsProps {
  readonly schools: readonly {
    readonly id: FingeringSchool;
    readonly name: string;
    readonly result: Fingering;
  }[];
  readonly chosen: FingeringSchool;
  readonly onChoose: (school: FingeringSchool) => void;
}

/** What stands between two fingers: nothing but room, a slide, or another move of the hand. */
const joint = (move: Move): string => (move === 'stay' ? ' ' : move === 'slide' ? '–' : ' › ');

/** Notes that follow each other on one string, as places in the run. */
function stringRuns(notes: readonly FingeredNote[]): readonly (readonly number[])[] {
  const runs: number[][] = [];
  notes.forEach((n, i) => {
    if (i > 0 && notes[i - 1]!.string === n.string) runs.at(-1)!.push(i);
    else runs.push([i]);
  });
  return runs;
}

/** The fingers of the schools side by side, string by string in the order of play; a heading chooses what the drawing shows. */
export function Hands({ schools, chosen, onChoose }: HandsProps) {
  const runs = stringRuns(schools[0]!.result.notes);
  const moved = schools.some((s) => s.result.notes.some((n, i) => i > 0 && n.move !== 'stay'));
  return (
    <>
      <table className="w-full border-collapse text-sm">
        <caption className="sr-only">Fingers by school, string by string</caption>
        <thead>
          <tr>
            <td />
            {schools.map((s) => (
              <th key={s.id} scope="col" className="p-0.5 text-left align-bottom font-normal">
                <button
                  type="button"
                  className="button w-full !whitespace-normal text-left"
                  aria-pressed={s.id === chosen}
                  onClick={() => onChoose(s.id)}
                >
                  {s.name}
                </button>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {runs.map((run) => (
            <tr key={run[0]} className="border-b border-hair">
              <th scope="row" className="py-0.5 pr-3 text-left font-normal whitespace-nowrap text-soft">
                string {schools[0]!.result.notes[run[0]!]!.string}
              </th>
              {schools.map(({ id, result: { notes } }) => (
                <td key={id} className={`px-3 py-0.5 ${id === chosen ? 'font-bold' : ''}`}>
                  {run.map((i) => `${i > 0 ? joint(notes[i]!.move) : ''}${notes[i]!.finger}`).join('')}
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
                {plural(result.shifts, 'move')}, {result.stretches}{' '}
                {result.stretches === 1 ? 'stretch' : 'stretches'}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      {moved && <p className="text-sm text-soft">0 is an open string, – a slide, › a shift.</p>}
    </>
  );
}
