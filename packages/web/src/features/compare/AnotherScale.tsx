import { namedScales, type Settings } from '@crow-ladder/contract';
import {
  CATALOGUE,
  degreeName,
  keySaid,
  list,
  noteName,
  pitchClass,
  plural,
  pretty,
  ROOTS,
  scaleSaid,
  spellScale,
  spotSaid,
  mod,
} from '@crow-ladder/core';
import { blendOf, changesSaid, neighbours, overlaySaid, type ScaleOverlay } from '@crow-ladder/core/overlays';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { useMemo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { keyAbove, type Laid, laidOver, thirdOver, withLaid, withThird } from '../../model/laid.ts';
import { type Model } from '../../model/model.ts';
import { withKey } from '../../model/moves.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { type CompareParams } from './params.ts';
import { Wide } from '../../ui/Wide.tsx';

type Props = PanelProps<CompareParams>;

/** Every scale, those first for which least must change. */
const near = weakMapMemoize(({ key }: Model, { ownScales }: Settings) =>
  neighbours(key, [...namedScales(ownScales), ...CATALOGUE]),
);
const options = (model: Model, settings: Settings) =>
  near(model, settings).map((overlay) => ({
    id: overlay.second.scale.id,
    name: pretty(overlay.second.scale.name),
    note: changesSaid(overlay),
  }));

/** No third scale. */
const NO_THIRD = '';

/** Which scale, from which root. */
export function ScaleWords({ model, settings, onChange }: Props) {
  const laid = laidOver(model);
  const all = useMemo(() => options(model, settings), [model, settings]);
  const above = laid?.part.above ?? 0;
  const third = thirdOver(model);
  const roots = ROOTS.map((_, up) => {
    const scale = laid?.overlay.second.scale ?? model.scale;
    const root = pretty(noteName(keyAbove(model.key, scale, up).root));
    return { id: String(up), name: up ? root : `its root, ${root}` };
  });
  return (
    <>
      :{' '}
      <Picked
        name="Scale laid over it"
        then=", from"
        value={laid?.part.scale ?? null}
        said={laid ? scaleSaid(laid.overlay.second.scale) : 'choose one'}
        options={all}
        onPick={(scale) => onChange((s) => withLaid(s, { scale, above }))}
      >
        {laid && (
          <Field label="And a third beside it, in words">
            <Choice
              value={third?.second.scale.id ?? NO_THIRD}
              options={[{ id: NO_THIRD, name: 'none' }, ...all]}
              onChange={(id) =>
                onChange((s) => withThird(s, id === NO_THIRD ? null : { scale: id, above: 0 }))
              }
            />
          </Field>
        )}
      </Picked>{' '}
      <Picked
        name="Its root"
        then=","
        value={String(above)}
        said={above ? roots[above]!.name : 'the same root'}
        options={roots}
        onPick={(id) =>
          onChange((s) => withLaid(s, { scale: laid?.part.scale ?? s.key.scale, above: Number(id) }))
        }
      />
    </>
  );
}

/** What is done about the scale that is laid over: it becomes the chart's, or goes. */
export function Acts({ model, onChange }: Props) {
  const laid = laidOver(model);
  if (!laid) return null;
  const { second } = laid.overlay;
  return (
    <>
      <button
        type="button"
        className="button"
        onClick={() => onChange((s) => withLaid(withKey(s, second), null))}
      >
        Make it the scale
      </button>
      <button
        type="button"
        className="button button-quiet"
        onClick={() => onChange((s) => withLaid(s, null))}
      >
        Take it away
      </button>
    </>
  );
}

/** What changes, in words: of the scale, of the position in front, and what rubs where both are played at once. */
export function AnotherScale({ model, settings, onChange }: Props) {
  const laid = laidOver(model);
  const third = thirdOver(model);
  if (laid)
    return (
      <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
        <div className="flex flex-col gap-2">
          <Compared laid={laid} />
          {third && <p className="font-reading text-lg">{overlaySaid(third)}</p>}
        </div>
        <Beside laid={laid} third={third} />
      </div>
    );
  const [nearest] = near(model, settings);
  return nearest ? (
    <p className="flex flex-wrap items-center gap-3">
      {`Nearest to it is ${scaleSaid(nearest.second.scale)}, ${changesSaid(nearest)}.`}
      <button
        type="button"
        className="button"
        onClick={() => onChange((s) => withLaid(s, { scale: nearest.second.scale.id, above: 0 }))}
      >
        Lay it over
      </button>
    </p>
  ) : null;
}

/** Two scales beside each other. */
export function Compared({ laid }: { readonly laid: Laid }) {
  const { overlay } = laid;
  const { first, second, notes } = overlay;
  const only = (name: string): string => `${name} alone`;
  return (
    <div className="flex flex-col gap-2">
      <p role="status" className="font-reading text-lg">
        {overlaySaid(overlay)}
      </p>
      <p>
        <MarkKind kind="shared">in both</MarkKind>
        {notes.first.length > 0 && (
          <>
            , <MarkKind kind="lower">{only(scaleSaid(first.scale))}</MarkKind>
          </>
        )}
        {notes.second.length > 0 && (
          <>
            , <MarkKind kind="upper">{only(scaleSaid(second.scale))}</MarkKind>
          </>
        )}
        .
      </p>
      <Here laid={laid} />
      {laid.part.above === 0 ? (
        <Together laid={laid} />
      ) : (
        <p>{`${pretty(noteName(second.root))}, its own root, stands out.`}</p>
      )}
    </div>
  );
}

/** How little changes in the position in front. */
function Here({ laid: { here } }: { readonly laid: Laid }) {
  if (!here) return null;
  const { moved, come, gone } = here;
  const parts = [
    ...moved.map(({ from, to }) => `${spotSaid(from)} goes to fret ${to.fret}`),
    ...(come.length ? [`${list(come.map(spotSaid))} ${come.length > 1 ? 'come' : 'comes'} in`] : []),
    ...(gone.length ? [`${list(gone.map(spotSaid))} ${gone.length > 1 ? 'go' : 'goes'}`] : []),
  ];
  return (
    <p>
      {parts.length
        ? `In the position in front ${parts.join('; ')}.`
        : 'In the position in front nothing changes.'}
    </p>
  );
}

/** Both scales in use at once. */
function Together({ laid: { overlay } }: { readonly laid: Laid }) {
  const { first, second } = overlay;
  const { offsets, clashes } = blendOf(first.scale, second.scale);
  // Where one holds the other, both at once are that one.
  if (!overlay.notes.first.length || !overlay.notes.second.length) return null;
  const degrees = [...first.scale.degrees, ...second.scale.degrees].map((d) => pretty(degreeName(d)));
  const halfSteps = [...first.scale.offsets, ...second.scale.offsets];
  const said = (offset: number): string => degrees[halfSteps.indexOf(offset)]!;
  return (
    <p className="text-sm text-soft">
      {`Both at once: ${offsets.map(said).join(' ')}, ${plural(offsets.length, 'note')}. `}
      {clashes.length
        ? `A half step apart, and together in neither: ${list(clashes.map(([a, b]) => `${said(a)} and ${said(b)}`))}.`
        : 'Nothing rubs that does not rub in one of them.'}
      {' Up in one and down in the other is a drill of Practice.'}
    </p>
  );
}

interface BesideProps {
  readonly laid: Laid;
  readonly third?: ScaleOverlay | null;
}

/** The degrees and notes of all of them, one over the other. */
export function Beside({ laid: { overlay, part }, third = null }: BesideProps) {
  const { first, second } = overlay;
  const root = pitchClass(first.root);
  const columns = Array.from({ length: 12 }, (_, up) => mod(root + up, 12)).filter((pc) =>
    [overlay, ...(third ? [third] : [])].some(({ notes }) =>
      Object.values(notes).some((of) => of.includes(pc)),
    ),
  );
  const rows = [first, second, ...(third ? [third.second] : [])].map((key) => {
    const spelled = spellScale(key);
    return {
      name: key === second && part.above ? keySaid(key) : scaleSaid(key.scale),
      cells: columns.map((pc) => {
        const i = key.scale.offsets.findIndex((o) => mod(pitchClass(key.root) + o, 12) === pc);
        return i < 0
          ? null
          : { degree: pretty(degreeName(key.scale.degrees[i]!)), note: pretty(noteName(spelled[i]!)) };
      }),
    };
  });
  return (
    <Wide name="Degrees and notes">
      <table className="text-center [&_td]:px-2" aria-label={third ? 'Three scales' : 'Both scales'}>
        <tbody>
          {rows.map(({ name, cells }, i) => (
            <tr key={i} className="border-b border-hair">
              <th scope="row" className="pr-4 text-left font-semibold">
                {name}
              </th>
              {cells.map((cell, k) => (
                <td key={k} className={cell && rows.every((row) => row.cells[k]) ? '' : 'font-bold'}>
                  {cell ? (
                    <>
                      <span className="block">{cell.degree}</span>
                      <span className="block text-sm text-soft">{cell.note}</span>
                    </>
                  ) : (
                    <span className="sr-only">none</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Wide>
  );
}
