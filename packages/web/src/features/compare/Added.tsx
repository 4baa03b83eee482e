import { isNoteAdded } from '@crow-ladder/contract';
import { placeId, type Position, spotSaid } from '@crow-ladder/core';
import { addedKind, type AddedSpot } from '@crow-ladder/core/overlays';
import { told } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { type PanelProps } from '../../task/task.ts';
import { aboveRoot, addedIn, addedMoved, beside, withAddedNote } from '../../model/added.ts';
import { type Model } from '../../model/model.ts';
import { Choice } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { MOVE_KEY } from './keys.ts';
import { type CompareParams, spotOn } from './params.ts';
import { useLetterKeys } from '../../ui/useLetterKeys.ts';

type Props = PanelProps<CompareParams>;

/** What a note beside the scale is to it. */
const ROLES = [
  { id: 'none', name: 'left out' },
  { id: 'rest', name: 'added, hammered' },
  { id: 'slid', name: 'added, slid to' },
  { id: 'passing', name: 'passing' },
] as const;

/** Half steps above the root that are none of the scale's notes. */
const others = ({ scale }: Model): readonly number[] =>
  Array.from({ length: 12 }, (_, above) => above).filter((above) => !scale.offsets.includes(above));

/** Notes beside the scale, each left out, added, or only touched on the way; and where they lie in the position in front. */
export function Added(props: Props) {
  const { model, onChange, onOpen } = props;
  const { state, front } = model;
  const role = (above: number): (typeof ROLES)[number]['id'] => {
    const note = state.overlays.filter(isNoteAdded).find((it) => it.above === above);
    return note ? addedKind(note) : 'none';
  };
  const here = front ? addedIn(model, front.position) : [];
  return (
    <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
      <ul aria-label="Notes beside the scale" className="flex flex-col gap-1">
        {others(model).map((above) => {
          const { degree: name, note } = beside(model, above);
          return (
            <li key={above}>
              <label className="flex items-center gap-3">
                <span className="min-w-8 font-semibold">{name}</span>
                <span className="min-w-8 text-sm text-soft">{note}</span>
                <Choice
                  aria-label={`${name}, ${note}`}
                  value={role(above)}
                  options={ROLES}
                  onChange={(id) => onChange((s) => withAddedNote(s, above, id === 'none' ? null : id))}
                />
              </label>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-col gap-2">
        <p>
          <MarkKind kind="added">rested on</MarkKind>, <MarkKind kind="passing">only touched</MarkKind>. An
          added note is hammered or slid to from the half step below it on its string, going up and coming
          down; a passing one falls between the beats. Both are in the drills on this position and in climbs.
        </p>
        {here.length > 0 && front ? (
          <>
            <Here {...props} position={front.position} here={here} />
            <button
              type="button"
              className="button self-start"
              onClick={() => onOpen('practice', { on: 'position', drill: 'up-and-down.once', part: '' })}
            >
              Practise it
            </button>
          </>
        ) : (
          <p role="status">
            {state.overlays.some(isNoteAdded)
              ? 'None of them lies within the position in front: bring another one forward.'
              : 'No note is added yet.'}
          </p>
        )}
      </div>
    </div>
  );
}

interface HereProps extends Props {
  readonly position: Position;
  readonly here: readonly AddedSpot[];
}

/** Where they lie in the position in front; one whose pitch lies under the hand on another string too is moved there, by its button or by a key. */
function Here({ model, params, settings: { letterKeys }, onParams, onChange, position, here }: HereProps) {
  const send = useSend();
  const move = (spot: AddedSpot): void => {
    const moved = addedMoved(model, position, spot);
    if (!moved) {
      send(told('Its pitch lies under the hand on no other string.'));
      return;
    }
    onChange(moved.change);
    // The choice goes with the note.
    const fret = spot.midi - model.neck.open[moved.to - 1]!;
    onParams({ ...params, spot: { string: moved.to, fret } });
  };
  const chosen = spotOn(model.neck, params);
  const spotNow = chosen && here.find((spot) => placeId(spot) === placeId(chosen));
  useLetterKeys(
    {
      [MOVE_KEY]: () => {
        if (spotNow) move(spotNow);
        else send(told('Choose an added note on the neck first.'));
      },
    },
    letterKeys,
  );
  return (
    <>
      <ul aria-label="Where they lie" className="flex flex-col gap-1">
        {here.map((spot) => {
          const { degree, note } = beside(model, aboveRoot(model, spot.midi));
          const to = addedMoved(model, position, spot)?.to;
          return (
            <li key={placeId(spot)} className="flex flex-wrap items-center gap-x-3">
              <span>
                {`${degree}, ${note}: ${spotSaid(spot)}${spot.from === undefined ? '' : `, instead of string ${spot.from}`}`}
              </span>
              {to !== undefined && (
                <button type="button" className="button" onClick={() => move(spot)}>
                  {`Play it on string ${to}`}
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {letterKeys && here.some((spot) => addedMoved(model, position, spot)) && (
        <p className="text-sm text-soft">
          {`Choose one on the neck: ${MOVE_KEY} plays it on another string.`}
        </p>
      )}
    </>
  );
}
