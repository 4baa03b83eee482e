import { list, plural, type PlacedSpot, spotSaid } from '@crow-ladder/core';
import { onePlaceOnly, placesOf } from '@crow-ladder/core/ladder';
import { geometryOf } from '@crow-ladder/picture';
import { Plus, X } from 'lucide-react';
import { type PanelProps } from '../../task/task.ts';
import { figureOf } from '../../model/figure.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { Word } from '../../ui/Word.tsx';
import { Boundaries } from './Boundaries.tsx';
import { type LadderParams, MOST_CUTS, withCuts } from './params.ts';
import { regionsSeen } from './seen.ts';

/** Frets string by string in the order of play: "string 6 frets 5 and 7; string 5 …". */
function octaveSaid(spots: readonly PlacedSpot[]): string {
  const strings = [...new Set(spots.map((s) => s.string))];
  return strings
    .map((string) => {
      const frets = spots.filter((s) => s.string === string).map((s) => s.fret);
      return `string ${string} ${frets.length === 1 ? 'fret' : 'frets'} ${list(frets)}`;
    })
    .join('; ');
}

/** Where the neck is cut. */
export function RegionWords({ model, params, onParams }: PanelProps<LadderParams>) {
  const { neck } = model;
  const { cuts } = params;
  const put = (next: readonly number[]): void => onParams(withCuts(params, next));
  return (
    <>
      {' '}
      at{' '}
      <Word
        name="Boundaries"
        then="."
        body={
          <div className="flex flex-wrap items-end gap-3">
            {cuts.map((cut, i) => (
              <div key={i} className="flex items-end gap-1">
                <Field
                  label={
                    cuts.length === 1 ? 'The high region begins at fret' : `Region ${i + 2} begins at fret`
                  }
                >
                  <Whole
                    value={cut}
                    min={(cuts[i - 1] ?? 0) + 1}
                    max={(cuts[i + 1] ?? neck.frets + 1) - 1}
                    onChange={(fret) => put(cuts.map((c, k) => (k === i ? fret : c)))}
                  />
                </Field>
                {cuts.length > 1 && (
                  <button
                    type="button"
                    className="button button-quiet"
                    aria-label={`Take the boundary at fret ${cut} away`}
                    onClick={() => put(cuts.filter((_, k) => k !== i))}
                  >
                    <X size={16} aria-hidden />
                  </button>
                )}
              </div>
            ))}
            {cuts.length < MOST_CUTS && cuts.at(-1)! + 5 <= neck.frets && (
              <button type="button" className="button" onClick={() => put([...cuts, cuts.at(-1)! + 5])}>
                <Plus size={16} aria-hidden /> Another boundary
              </button>
            )}
          </div>
        }
      >
        {cuts.length === 1 ? 'fret' : 'frets'} {list(cuts)}
      </Word>
    </>
  );
}

/** The neck cut into regions: the same octave in each, and what a note sounds like in its several places. */
export function Regions({ model, params, onParams, look }: PanelProps<LadderParams>) {
  const { neck, key, state, accidentals, notes } = model;
  const { cuts } = params;
  const geometry = geometryOf(figureOf(state.instrument, accidentals, look));
  const seen = regionsSeen(model, params);
  const places = placesOf(neck, state.at, state.instrument.wound, cuts);
  const single = onePlaceOnly(neck, key);
  const put = (next: readonly number[]): void => onParams(withCuts(params, next));
  const longest = Math.max(...places.map((p) => p.soundingMm));
  return (
    <div className="flex flex-col gap-4">
      {!geometry.vertical && <Boundaries geometry={geometry} cuts={cuts} onCuts={put} />}
      <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-2">
        <section>
          <h3 className="mb-1 font-semibold">The same octave in each region</h3>
          <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
            {seen.map(({ from, to, octave }) => (
              <div key={from} className="contents">
                <dt className="font-semibold">
                  Frets {from} to {to}:
                </dt>
                <dd>{octave ? `${octaveSaid(octave)}.` : 'no hand has it here.'}</dd>
              </div>
            ))}
          </dl>
        </section>
        <section>
          <h3 className="mb-1 font-semibold">
            The {notes[0]} of {spotSaid(state.at)}, in {plural(places.length, 'place')}
          </h3>
          <ul aria-label="Places of the note" className="flex flex-col gap-1">
            {places.map((p) => (
              <li key={p.string}>
                {spotSaid(p)}: {Math.round(p.soundingMm)} mm sound, {p.wound ? 'wound' : 'plain'}
                {p.soundingMm === longest && places.length > 1 ? ', the brightest and longest ringing' : ''}.
              </li>
            ))}
          </ul>
          {places.length > 1 && (
            <p className="mt-2 text-sm text-soft">
              A longer string is brighter and rings on; a shorter one is rounder and fades sooner. A wound
              string is darker than a plain one of the same pitch.
            </p>
          )}
        </section>
        <section>
          <h3 className="mb-1 font-semibold">Notes of the scale with one place only</h3>
          <p>
            {single.length
              ? `${list(single.map((s) => spotSaid(s)))}.`
              : 'None: every note lies on two strings or more.'}
          </p>
        </section>
      </div>
    </div>
  );
}
