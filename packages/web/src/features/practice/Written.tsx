import { SWING } from '@crow-ladder/core/run';
import { type Model } from '../../model/model.ts';
import { Notation } from '../../notation/Notation.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { type RunRead } from '../../ui/Way.tsx';
import { type PlayedDrill, scoreFor, strokesFor, voiceOf } from './drilled.ts';
import { type PracticeParams } from './params.ts';

interface WrittenProps extends Pick<
  PracticeParams,
  'reading' | 'answer' | 'swing' | 'school' | 'begins' | 'step'
> {
  readonly model: Model;
  readonly played: PlayedDrill;
  readonly read: Pick<RunRead, 'tablature'>;
  readonly name: string;
  readonly onStep: (step: number) => void;
}

/** A drill as it is written; eighths that swing are written even, as is usual, and said to. */
export function Written({
  model,
  played,
  read,
  reading,
  answer,
  swing,
  school,
  begins,
  step,
  name,
  onStep,
}: WrittenProps) {
  return (
    <div>
      {swing > SWING.least && (
        <p className="text-sm font-semibold">{`Swing: the second eighth of a beat falls at ${swing} per cent of it.`}</p>
      )}
      {reading === 'text' ? (
        <Tablature name={`Tablature, ${name}`} text={read.tablature} />
      ) : (
        <Notation
          run={played.run}
          score={scoreFor(played.run, model.key, answer)}
          clef={voiceOf(model) === 'bass' ? 'bass' : 'treble'}
          strings={model.neck.open.length}
          strokes={strokesFor(played.run, school, begins)}
          staff={reading === 'staff'}
          step={step}
          onStep={onStep}
          name={`${reading === 'staff' ? 'Staff and tablature' : 'Tablature'} of ${name}; its notes are listed under “Read it note by note”`}
        />
      )}
    </div>
  );
}
