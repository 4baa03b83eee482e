import { isNoteAdded } from '@crow-ladder/contract';
import { list, spotSaid } from '@crow-ladder/core';
import { type AddedSpot, placesUnder } from '@crow-ladder/core/overlays';
import { type PanelProps } from '../../task/task.ts';
import { aboveRoot, addedIn, beside, withAddedNote } from '../../model/added.ts';
import { type Model } from '../../model/model.ts';
import { Choice } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { type CompareParams } from './params.ts';

type Props = PanelProps<CompareParams>;

/** What a note beside the scale is to it. */
const ROLES = [
  { id: 'none', name: 'left out' },
  { id: 'rest', name: 'added' },
  { id: 'passing', name: 'passing' },
] as const;

/** Half steps above the root that are none of the scale's notes. */
const others = ({ scale }: Model): readonly number[] =>
  Array.from({ length: 12 }, (_, above) => above).filter((above) => !scale.offsets.includes(above));

/** Notes beside the scale, each left out, added, or only touched on the way; and where they lie in the position in front. */
export function Added({ model, onChange, onOpen }: Props) {
  const { state, front } = model;
  const role = (above: number): (typeof ROLES)[number]['id'] => {
    const note = state.overlays.filter(isNoteAdded).find((it) => it.above === above);
    return note ? (note.passing ? 'passing' : 'rest') : 'none';
  };
  const spotOf = (spot: AddedSpot): string => {
    const { degree, note } = beside(model, aboveRoot(model, spot.midi));
    return `${degree}, ${note}: ${spotSaid(spot)}`;
  };
  const notes = others(model);
  const here = front ? addedIn(model, front.position) : [];
  return (
    <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
      <ul aria-label="Notes beside the scale" className="flex flex-col gap-1">
        {notes.map((above) => {
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
          added note is hammered from the half step below it, going up and coming down; a passing one falls
          between the beats. Both are in the drills on this position.
        </p>
        {here.length > 0 && front ? (
          <>
            <ul aria-label="Where they lie" className="list-disc pl-6">
              {here.map((spot) => {
                const same = placesUnder(model.neck, front.position, spot);
                return (
                  <li key={`${spot.string}.${spot.fret}`}>
                    {spotOf(spot)}
                    {same.length > 0 && `, the same pitch at ${list(same.map(spotSaid))}`}
                  </li>
                );
              })}
            </ul>
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
