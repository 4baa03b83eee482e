import { type Run } from '@crow-ladder/core/run';
import { type Waited } from './useWaiting.ts';

interface WaitsForProps {
  readonly run: Run;
  readonly now: Waited;
  readonly nameOf: (midi: number) => string;
}

/** The note that is waited for, to be read from afar, and what came instead. */
export function WaitsFor({ run, now: { step, last }, nameOf }: WaitsForProps) {
  const { string, fret, midi } = run[step]!.spot;
  return (
    <p role="status" className="flex flex-wrap items-baseline gap-x-4 font-reading">
      <span className="text-4xl font-bold">{nameOf(midi)}</span>
      <span className="text-xl">{`string ${string}, ${fret ? `fret ${fret}` : 'open'}`}</span>
      {last !== null && <span className="text-xl">{`That was ${nameOf(last)}.`}</span>}
    </p>
  );
}
