import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent } from 'react';
import { Tablature } from './Tablature.tsx';

/** A run in words. */
interface RunRead {
  /** How many notes it has. */
  readonly many: number;
  readonly said: (note: number) => string;
  /** What it asks of the hand. */
  readonly effort: string;
  readonly fingers: string;
  readonly tablature: string;
}

interface WayProps {
  readonly read: RunRead;
  /** Which note is looked at, from 0. */
  readonly step: number;
  readonly onStep: (step: number) => void;
  readonly name: string;
  /** Whether the note moves by itself: then it is not told note by note. */
  readonly moving?: boolean;
  /** The signatures both ways, where the way down is fingered otherwise than the way up. */
  readonly otherwise?: { readonly up: string; readonly down: string } | null;
}

/** A run with more notes than this has its fingers under the tablature alone. */
const READ_AT_ONCE = 40;

/** A run read: what it asks of the hand, note by note, its fingers both ways, its tablature. */
export function Way({ read, step: asked, onStep, name, moving = false, otherwise = null }: WayProps) {
  const { many, said } = read;
  const step = Math.min(asked, many - 1);
  const go = (by: number): void => onStep(Math.max(0, Math.min(many - 1, step + by)));
  const onKey = (e: KeyboardEvent): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1, Home: -many, End: many }[e.key];
    if (by === undefined || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    go(by);
  };
  return (
    <div className="flex flex-col gap-3">
      <div
        role="group"
        aria-label="Note by note"
        className="flex flex-wrap items-center gap-2"
        onKeyDown={onKey}
      >
        <button
          type="button"
          className="button"
          aria-label="Note before"
          aria-disabled={step === 0}
          onClick={() => go(-1)}
        >
          <ChevronLeft size={17} aria-hidden />
        </button>
        <button
          type="button"
          className="button"
          aria-label="Next note"
          aria-disabled={step === many - 1}
          onClick={() => go(1)}
        >
          <ChevronRight size={17} aria-hidden />
        </button>
        <p role={moving ? undefined : 'status'}>
          Note {step + 1} of {many}: {said(step)}.
        </p>
      </div>
      <p>{read.effort}</p>
      {many <= READ_AT_ONCE && (
        <p>
          <span className="text-sm font-semibold text-soft">Fingers</span> {read.fingers}
        </p>
      )}
      {otherwise && (
        <p className="text-sm">
          Coming down it is fingered otherwise: {otherwise.down}, where going up it is {otherwise.up}.
        </p>
      )}
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">Read it note by note</summary>
        <p>{`${Array.from({ length: many }, (_, i) => said(i)).join('; ')}.`}</p>
      </details>
      <Tablature name={`Tablature, ${name}`} text={read.tablature} />
    </div>
  );
}
