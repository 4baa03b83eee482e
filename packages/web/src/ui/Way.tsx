import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent, useState } from 'react';
import { Tablature } from './Tablature.tsx';

/** A run in words. */
export interface RunRead {
  /** How many notes it has. */
  readonly many: number;
  readonly said: (note: number) => string;
  /** What it asks of the hand. */
  readonly effort: string;
  readonly fingers: string;
  readonly tablature: string;
}

interface StepProps {
  readonly read: Pick<RunRead, 'many' | 'said'>;
  /** Which note is looked at, from 0. */
  readonly step: number;
  readonly onStep: (step: number) => void;
}

interface NoteProps extends Omit<StepProps, 'onStep'> {
  /** Whether the note moves by itself: then it is not told note by note. */
  readonly moving?: boolean;
}

/** The note that is looked at, in words. */
export function NoteSaid({ read: { many, said }, step: asked, moving = false }: NoteProps) {
  const step = Math.min(asked, many - 1);
  return (
    <p role={moving ? undefined : 'status'}>
      Note {step + 1} of {many}: {said(step)}.
    </p>
  );
}

/** The note that is looked at, and the ones beside it by button and arrow key. */
export function NoteByNote({ read, step: asked, onStep }: StepProps) {
  const { many } = read;
  const step = Math.min(asked, many - 1);
  const go = (by: number): void => onStep(Math.max(0, Math.min(many - 1, step + by)));
  const onKey = (e: KeyboardEvent): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1, Home: -many, End: many }[e.key];
    if (by === undefined || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    go(by);
  };
  return (
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
      <NoteSaid read={read} step={step} />
    </div>
  );
}

/** A run with more notes than this has its fingers under the tablature alone. */
const READ_AT_ONCE = 40;

interface InWordsProps {
  readonly read: RunRead;
  /** The signatures both ways, where the way down is fingered otherwise than the way up. */
  readonly otherwise?: { readonly up: string; readonly down: string } | null;
}

/** What a run asks of the hand, its fingers both ways, and its notes as a list. */
export function InWords({ read: { many, said, effort, fingers }, otherwise = null }: InWordsProps) {
  // A long run has a long list: it is made when it is asked for.
  const [open, setOpen] = useState(false);
  return (
    <>
      <p>{effort}</p>
      {many <= READ_AT_ONCE && (
        <p>
          <span className="text-sm font-semibold text-soft">Fingers</span> {fingers}
        </p>
      )}
      {otherwise && (
        <p className="text-sm">
          Coming down it is fingered otherwise: {otherwise.down}, where going up it is {otherwise.up}.
        </p>
      )}
      <details onToggle={(e) => setOpen(e.currentTarget.open)}>
        <summary className="cursor-pointer text-sm font-semibold text-soft">Read it note by note</summary>
        {open && (
          <ol className="list-decimal pl-8">
            {Array.from({ length: many }, (_, i) => (
              <li key={i}>{said(i)}</li>
            ))}
          </ol>
        )}
      </details>
    </>
  );
}

interface WayProps extends InWordsProps, Omit<StepProps, 'read'> {
  readonly name: string;
}

/** A run read: note by note, in words, and its tablature. */
export const Way = ({ read, step, onStep, name, otherwise }: WayProps) => (
  <div className="flex flex-col gap-3">
    <NoteByNote read={read} step={step} onStep={onStep} />
    <InWords read={read} otherwise={otherwise ?? null} />
    <Tablature name={`Tablature, ${name}`} text={read.tablature} />
  </div>
);
