import { memo } from 'react';
import { SWING } from '@crow-ladder/core/run';
import { type HeardNotes } from '../../hearing/heardNotes.ts';
import { clefOf, type Model } from '../../model/model.ts';
import { Notation } from '../../notation/Notation.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { type RunRead } from '../../ui/Way.tsx';
import { type Drilling, type PlayedDrill, writtenAs, strokesFor } from './drilled.ts';
import { type PracticeParams, SIZES, usualSize } from './params.ts';
import { useNarrow } from '../../ui/useNarrow.ts';

interface WrittenProps extends Pick<
  PracticeParams,
  'reading' | 'size' | 'swing' | 'school' | 'begins' | 'step'
> {
  readonly model: Model;
  /** Quarter notes a bar, and which bars are left free. */
  readonly time: Pick<Drilling, 'beats' | 'turns'>;
  readonly played: PlayedDrill;
  readonly read: Pick<RunRead, 'tablature'>;
  readonly name: string;
  readonly onStep: (step: number) => void;
  readonly heard: HeardNotes | null;
}

/** How high fret numbers are in the notation's own size, in px. */
const OWN_PX = 14;

/** A drill as it is written; eighths that swing are written even, as is usual, and said to. */
export const Written = memo(function Written({
  model,
  played,
  read,
  reading,
  time: { beats, turns },
  swing,
  school,
  begins,
  step,
  size,
  name,
  onStep,
  heard,
}: WrittenProps) {
  const narrow = useNarrow();
  const { px } = SIZES.find(({ id }) => id === (size ?? usualSize(narrow)))!;
  return (
    // What comes below it does not jump when the music is there.
    <div className="min-[761px]:min-h-72">
      {swing > SWING.least && (
        <p className="text-sm font-semibold">{`Swing: the second eighth of a beat falls at ${swing} per cent of it.`}</p>
      )}
      {reading === 'text' ? (
        <Tablature name={`Tablature, ${name}`} text={read.tablature} px={px} />
      ) : (
        <Notation
          run={played.run}
          inKey={model.key}
          as={writtenAs(played.run, beats, turns, clefOf(model))}
          strings={model.neck.open.length}
          strokes={strokesFor(played.run, school, begins)}
          staff={reading === 'staff'}
          scale={px / OWN_PX}
          step={step}
          onStep={onStep}
          heard={heard}
          name={`${reading === 'staff' ? 'Staff and tablature' : 'Tablature'} of ${name}; its notes are listed under “Read it note by note”`}
        />
      )}
    </div>
  );
});
