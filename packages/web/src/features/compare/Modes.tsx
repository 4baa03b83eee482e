import { keySaid, mod, pitchClass, pretty, scaleSaid } from '@crow-ladder/core';
import { chordSaid, showingChord } from '@crow-ladder/core/chords';
import { parallelKeys, relativeKeys } from '@crow-ladder/core/moves';
import { changesSaid, overlayOf } from '@crow-ladder/core/overlays';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type PanelProps } from '../../task/task.ts';
import { laidOver, withLaid } from '../../model/laid.ts';
import { type Model } from '../../model/model.ts';
import { Picks } from '../../ui/Picks.tsx';
import { Beside, Compared } from './AnotherScale.tsx';
import { type CompareParams } from './params.ts';

type Props = PanelProps<CompareParams>;

/** The modes that a chart is compared with: from its root from the brightest on, or of its notes in order. */
const modesOf = weakMapMemoize(({ key, degrees }: Model, isParallel: boolean) => {
  const keys = isParallel ? parallelKeys(key) : relativeKeys(key);
  return keys.map((mode, i) => {
    const above = mod(pitchClass(mode.root) - pitchClass(key.root), 12);
    const mine = mode.scale.id === key.scale.id && above === 0;
    const before = keys[i - 1];
    const special = mode.scale.characteristic.map(pretty).join(' and ');
    const from = before && changesSaid(overlayOf(before, mode));
    const chord = showingChord(mode);
    return {
      id: idOf({ above, scale: mode.scale.id }),
      above,
      mode,
      name: isParallel ? scaleSaid(mode.scale) : keySaid(mode),
      tag: [
        isParallel
          ? (from ?? 'the brightest')
          : `from ${degrees[i]}${special && `, heard by its ${special}`}${chord ? `, over ${chordSaid(chord)}` : ''}`,
        ...(mine ? ['the scale of the chart'] : []),
      ].join('; '),
    };
  });
});
const idOf = ({ above, scale }: { readonly above: number; readonly scale: string }): string =>
  `${above};${scale}`;
/** The one of them that is laid over the scale; undefined where none is. */
function modeNow(model: Model, isParallel: boolean) {
  const laid = laidOver(model);
  return laid ? modesOf(model, isParallel).find(({ id }) => id === idOf(laid.part)) : undefined;
}

/** The mode that is laid over the scale now. */
export function ModeWords({ model, params }: Props) {
  const mode = modeNow(model, params.view === 'parallel');
  return mode ? `, now ${mode.name},` : ',';
}

/** The modes in a list that is stepped through, each laid over the scale as it is chosen. */
export function Modes({ model, params, onChange }: Props) {
  const isParallel = params.view === 'parallel';
  const modes = modesOf(model, isParallel);
  const laid = laidOver(model);
  const now = modeNow(model, isParallel);
  return (
    <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
      <div>
        <p className="font-semibold">
          {isParallel
            ? 'From the brightest to the darkest, each told by the one above'
            : 'Along the neck, from degree to degree'}
        </p>
        <Picks
          name={isParallel ? 'Modes from its root' : 'Modes of its notes'}
          standing
          value={now?.id ?? null}
          options={modes}
          onPick={(id) => {
            const { mode, above } = modes.find((m) => m.id === id)!;
            onChange((s) => withLaid(s, { scale: mode.scale.id, above }));
          }}
        />
      </div>
      {now && laid && (
        <div className="flex flex-col gap-3">
          <Compared laid={laid} />
          <Beside laid={laid} />
        </div>
      )}
    </div>
  );
}
