import { list, refOf, spotSaid } from '@crow-ladder/core';
import { indexRoots, jumpRules } from '@crow-ladder/core/ladder';
import { type PanelProps } from '../../task/task.ts';
import { withFront, withSpot } from '../../model/moves.ts';
import { FINGERS } from '../../model/wording.ts';
import { Picked } from '../../ui/Picked.tsx';
import { type LadderParams } from './params.ts';
import { fingerAt, netOf, rootHeld } from './seen.ts';
import { jumpSaid } from './words.ts';

/** From which root. */
export function RootWords({ model, settings, onChange }: PanelProps<LadderParams>) {
  const { neck, key, state } = model;
  const { roots } = netOf(neck, key);
  const word = ({ string, fret }: { readonly string: number; readonly fret: number }): string =>
    `${string}/${fret}`;
  return (
    <>
      {' '}
      from{' '}
      <Picked
        name="The root"
        then="."
        said={spotSaid(state.at)}
        value={word(state.at)}
        options={roots.map((r) => ({ id: word(r), name: spotSaid(r) }))}
        onPick={(id) =>
          onChange((s) =>
            withSpot(
              s,
              roots.find((r) => word(r) === id)!,
              settings.spelling,
            ),
          )
        }
      />
    </>
  );
}

/** The roots as anchors: how they hang together, and which positions each of them holds. */
export function Roots({ model, onChange }: PanelProps<LadderParams>) {
  const { neck, state, positions, notes } = model;
  if (!positions.ok) return null;
  const all = positions.value;
  const names = model.names();
  const held = rootHeld(model);
  const beside = (spot: { readonly degree: number; readonly fret: number } | null): string =>
    spot ? `${notes[spot.degree]} at fret ${spot.fret}` : 'nothing';
  const boxes = all.flatMap((p) => {
    const on = indexRoots(p);
    return on.length ? [`${names[p.index]}: ${on.length === 1 ? 'string' : 'strings'} ${list(on)}`] : [];
  });
  return (
    <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-2">
      <section>
        <h3 className="mb-1 font-semibold">The root on {spotSaid(state.at)}</h3>
        {held.length ? (
          <ul className="flex flex-col gap-1">
            {held.map(({ position, below, above }) => (
              <li key={position.index}>
                <button
                  type="button"
                  className="word"
                  aria-pressed={position === model.front?.position}
                  onClick={() => onChange((s) => withFront(s, refOf(all, position)))}
                >
                  {names[position.index]}
                </button>
                : {FINGERS[fingerAt(model, position, state.at) ?? 0]}; on its string {beside(below)} below,{' '}
                {beside(above)} above.
              </li>
            ))}
          </ul>
        ) : (
          <p>No position of this layout goes through it.</p>
        )}
      </section>
      <div className="flex flex-col gap-3">
        <section>
          <h3 className="mb-1 font-semibold">Octave jumps</h3>
          <ul>
            {jumpRules(neck).map((rule) => (
              <li key={`${rule.strings}/${rule.frets}`}>{jumpSaid(rule)}</li>
            ))}
          </ul>
        </section>
        {boxes.length > 0 && (
          <section>
            <h3 className="mb-1 font-semibold">Where the index finger finds the root</h3>
            <ul>
              {boxes.map((box) => (
                <li key={box}>{box}.</li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
