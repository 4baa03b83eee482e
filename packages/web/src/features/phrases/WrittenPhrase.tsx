import { type PhraseWay } from '@crow-ladder/core/phrases';
import { useMemo } from 'react';
import { type HeardNotes } from '../../hearing/heardNotes.ts';
import { type Model } from '../../model/model.ts';
import { Notation } from '../../notation/Notation.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { InWords, NoteByNote, type RunRead } from '../../ui/Way.tsx';
import { canWrite, writtenAs } from './written.ts';

interface WrittenProps {
  readonly model: Model;
  readonly way: PhraseWay;
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly read: RunRead;
  readonly step: number;
  readonly onStep: (step: number) => void;
  readonly name: string;
  /** What was heard of its notes the last time. */
  readonly heard?: HeardNotes | null;
  /** Whether its notes are walked and read elsewhere. */
  readonly bare?: boolean;
}

const NO_STROKES: readonly never[] = [];

/** A phrase on staff and tablature; as text where its lengths cannot be written. */
export function WrittenPhrase({
  model,
  way,
  beats,
  read,
  step,
  onStep,
  name,
  heard = null,
  bare = false,
}: WrittenProps) {
  const as = useMemo(() => writtenAs(model, way, beats), [model, way, beats]);
  const can = useMemo(() => canWrite(way, beats), [way, beats]);
  return (
    <div className="flex flex-col gap-3">
      {can.ok ? (
        // What comes below it does not jump when the music is there.
        <div className="min-[761px]:min-h-72">
          <Notation
            run={way.run}
            inKey={model.key}
            as={as}
            strings={model.neck.open.length}
            strokes={NO_STROKES}
            staff
            scale={1}
            step={step}
            onStep={onStep}
            heard={heard}
            name={`Staff and tablature of ${name}`}
          />
        </div>
      ) : (
        <>
          <p className="font-semibold">{can.error.message}</p>
          <Tablature name={`Tablature of ${name}`} text={read.tablature} />
        </>
      )}
      {!bare && (
        <>
          <NoteByNote read={read} step={step} onStep={onStep} />
          <InWords read={read} />
        </>
      )}
    </div>
  );
}
