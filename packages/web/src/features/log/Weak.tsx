import { type LogSum, WEAK, type Went } from '@crow-ladder/contract';
import { list } from '@crow-ladder/core';
import { scaleLinear } from 'd3-scale';
import { keyNamed, notSaid, positionNamed } from './said.ts';

interface Row extends Went {
  readonly name: string;
}

/** What wants more practice: how much of it was not right yet, the most first. The table is its own drawing. */
function Part({ title, rows }: { readonly title: string; readonly rows: readonly Row[] }) {
  const wide = scaleLinear([0, 1], [0, 100]);
  return (
    <table className="weak">
      <caption>{title}</caption>
      <thead className="sr-only">
        <tr>
          <th scope="col">What</th>
          <th scope="col">Not right yet</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((it) => (
          <tr key={it.name}>
            <th scope="row">{it.name}</th>
            <td>
              <span className="bar" style={{ width: `${wide(it.not / it.of)}%` }} aria-hidden />
              <span className="relative">{notSaid(it)}</span>
            </td>
          </tr>
        ))}
        {!rows.length && (
          <tr>
            <td colSpan={2} className="text-soft">
              Nothing stands out.
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

/** Where it is weak, in a sentence, and in three tables. */
export function Weak({ keys, positions, strings }: Pick<LogSum, 'keys' | 'positions' | 'strings'>) {
  const named = {
    keys: keys.map((it) => ({ ...it, name: keyNamed(it) })),
    positions: positions.map((it) => ({ ...it, name: positionNamed(it) })),
    strings: strings.map((it) => ({ ...it, name: `string ${it.string}` })),
  };
  const [key, position, string] = [named.keys[0], named.positions[0], named.strings[0]];
  const worst = [
    key && `in ${key.name}`,
    position && `in positions of ${position.name}`,
    string && `on ${string.name}`,
  ].filter((it) => it !== undefined);
  return (
    <div className="flex flex-col gap-3">
      <p>
        {worst.length
          ? `Most is to be gained ${list(worst)}.`
          : `Nothing stands out: that takes ${WEAK.of} rounds or answers of a kind, with one that was not right.`}
      </p>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        <Part title="Keys" rows={named.keys} />
        <Part title="Positions" rows={named.positions} />
        <Part title="Strings, by recall" rows={named.strings} />
      </div>
      <p className="text-sm text-soft">
        How many rounds were not clean yet, and answers not known, of those of which something was said.
      </p>
    </div>
  );
}
