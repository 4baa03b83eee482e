import { degreeName, keySaid, list, noteName, pretty, spellDegree } from '@crow-ladder/core';
import { sameNotes } from '@crow-ladder/core/overlays';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { told } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { type PanelProps } from '../../task/task.ts';
import { alteredAt, alteringOf, laidOver, withAltered } from '../../model/laid.ts';
import { Wide } from '../../ui/Wide.tsx';
import { Beside, Compared } from './AnotherScale.tsx';
import { LOWER_KEY, RAISE_KEY } from './keys.ts';
import { type CompareParams, spotOn } from './params.ts';
import { useLetterKeys } from '../../ui/useLetterKeys.ts';

type Props = PanelProps<CompareParams>;

/** Single degrees raised or lowered by a half step, and what comes of it. */
export function Altered({ model, params, settings, onParams, onChange }: Props) {
  const { key } = model;
  const laid = laidOver(model);
  const scale = alteringOf(model);
  const spot = spotOn(model.neck, params);
  const chosen = spot ? alteredAt(model, spot) : -1;
  const send = useSend();
  const alter = (degree: number, by: 1 | -1): void => {
    const change = withAltered(model, degree, by);
    if (!change) {
      send(
        told(
          by > 0
            ? 'It cannot be raised: it is the root, or the note above is in the scale.'
            : 'It cannot be lowered: it is the root, or the note below is in the scale.',
        ),
      );
      return;
    }
    onChange(change);
    // The spot goes with its note.
    if (spot && degree === chosen) onParams({ ...params, spot: { ...spot, fret: spot.fret + by } });
  };
  const alterSpot = (by: 1 | -1) => (): void => {
    if (chosen >= 0) alter(chosen, by);
    else send(told('Choose a spot of the scale on the neck first.'));
  };
  useLetterKeys({ [RAISE_KEY]: alterSpot(1), [LOWER_KEY]: alterSpot(-1) }, settings.letterKeys);
  return (
    <div className="flex flex-col gap-3">
      <p className="text-sm text-soft">
        {settings.letterKeys
          ? `Choose a spot on the neck: ${RAISE_KEY} raises its note by a half step, ${LOWER_KEY} lowers it. Or a degree here:`
          : 'Raise or lower a degree by a half step:'}
      </p>
      <Wide name="Degrees">
        <div role="group" aria-label="Degrees to alter" className="flex gap-1">
          {scale.degrees.map((degree, i) => {
            const name = pretty(degreeName(degree));
            const note = pretty(noteName(spellDegree(key.root, degree)));
            const was = model.degrees[i]!;
            const turn = (by: 1 | -1) => (
              <button
                type="button"
                className="button justify-center"
                aria-label={`${by > 0 ? 'Raise' : 'Lower'} ${name}, ${note}`}
                aria-disabled={withAltered(model, i, by) === null}
                onClick={() => alter(i, by)}
              >
                {by > 0 ? <ChevronUp size={17} aria-hidden /> : <ChevronDown size={17} aria-hidden />}
              </button>
            );
            return (
              <div
                key={i}
                className={`flex min-w-14 flex-col gap-1 border-b-4 pb-1 text-center ${i === chosen ? 'border-ink' : 'border-transparent'}`}
              >
                {turn(1)}
                <span className={name === was ? '' : 'font-bold'}>{name}</span>
                <span className="text-sm text-soft">{note}</span>
                {turn(-1)}
              </div>
            );
          })}
        </div>
      </Wide>
      {laid && (
        <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
          <div className="flex flex-col gap-2">
            <Compared laid={laid} />
            <p>{namesSaid(laid.overlay.second)}</p>
          </div>
          <Beside laid={laid} />
        </div>
      )}
    </div>
  );
}

/** How many other names are told. */
const TOLD = 6;
/** What the altered notes are called from other roots, or that they have no name. */
function namesSaid(second: Parameters<typeof sameNotes>[0]): string {
  const others = sameNotes(second);
  const isNamed = !second.scale.id.startsWith('own:');
  if (!others.length)
    return isNamed
      ? 'No other root gives these notes a name.'
      : 'No scale of the list has these notes, from this root or another: it is one of its own.';
  const more = others.length - TOLD;
  const told = list([...others.slice(0, TOLD).map(keySaid), ...(more > 0 ? [`${more} more`] : [])]);
  return isNamed
    ? `The same notes are ${told}.`
    : `From this root these notes have no name; they are those of ${told}.`;
}
