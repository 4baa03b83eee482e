import { type Model } from '../../model/model.ts';
import { Notation } from '../../notation/Notation.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { type RunRead } from '../../ui/Way.tsx';
import { type PlayedDrill, scoreFor, strokesFor, voiceOf } from './drilled.ts';
import { type PracticeParams } from './params.ts';

interface WrittenProps extends Pick<PracticeParams, 'reading' | 'answer' | 'school' | 'step'> {
  readonly model: Model;
  readonly played: PlayedDrill;
  readonly read: Pick<RunRead, 'tablature'>;
  readonly name: string;
  readonly onStep: (step: number) => void;
}

/** A drill as it is written. */
export function Written({ model, played, read, reading, answer, school, step, name, onStep }: WrittenProps) {
  if (reading === 'text') return <Tablature name={`Tablature, ${name}`} text={read.tablature} />;
  return (
    <Notation
      run={played.run}
      score={scoreFor(played.run, model.key, answer)}
      clef={voiceOf(model) === 'bass' ? 'bass' : 'treble'}
      strings={model.neck.open.length}
      strokes={strokesFor(played.run, school)}
      staff={reading === 'staff'}
      step={step}
      onStep={onStep}
      name={`${reading === 'staff' ? 'Staff and tablature' : 'Tablature'} of ${name}; its notes are listed under “Read it note by note”`}
    />
  );
}
