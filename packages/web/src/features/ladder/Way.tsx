import { degreeIndex, type Fingering, moveTo, plural, type Run, signatureOf, stretchMm, tablature, spotSaid } from '@crow-ladder/core'; // prettier-ignore
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type KeyboardEvent } from 'react';
import { type PanelProps } from '../../frame/task.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { FINGERS, moveWord } from '../../model/wording.ts';
import { Tablature } from '../../ui/Tablature.tsx';
import { type LadderParams } from './params.ts';

/** A run with its fingers. */
export interface Played {
  readonly fingering: Fingering;
  readonly run: Run;
}

/** A note of a climb as it is read: "string 6 fret 5, index finger, A", and what the hand does to get there. */
function stepSaid(model: Model, { fingering: { steps } }: Played, i: number): string {
  const { spot, finger, hand } = steps[i]!;
  const move = moveWord(moveTo(steps, i));
  const degree = degreeIndex(model.key, spot.midi);
  const note = degree < 0 ? pitchName(model, spot.midi) : model.notes[degree]!;
  return [
    ...(move ? [`${move} to fret ${hand}`] : []),
    spotSaid(spot),
    ...(finger ? [FINGERS[finger]] : []),
    note,
  ].join(', ');
}

/** What a climb asks of the hand. */
function effortSaid({ neck, hand }: Model, { fingering: { steps, shifts } }: Played): string {
  const wide = steps
    .map((s) => ({ mm: stretchMm(neck, hand.school, s), at: s.spot }))
    .filter(({ mm }) => mm > 0)
    .sort((a, b) => b.mm - a.mm)[0];
  return `${plural(steps.length, 'note')}, ${plural(shifts, 'shift')}, ${
    wide ? `widest stretch ${Math.round(wide.mm)} mm at ${spotSaid(wide.at)}` : 'no stretch'
  }.`;
}

/** A climb read: what it asks of the hand, note by note, its fingers both ways, its tablature. */
export function Way({
  model,
  params,
  onParams,
  played,
  name,
  otherwise = null,
}: PanelProps<LadderParams> & {
  played: Played;
  name: string;
  /** The signatures both ways, where the way down is fingered otherwise than the way up. */
  otherwise?: { readonly up: string; readonly down: string } | null;
}) {
  const { steps } = played.fingering;
  const step = Math.min(params.step, steps.length - 1);
  const go = (by: number): void =>
    onParams({ ...params, step: Math.max(0, Math.min(steps.length - 1, step + by)) });
  const onKey = (e: KeyboardEvent): void => {
    const by = { ArrowRight: 1, ArrowLeft: -1, Home: -steps.length, End: steps.length }[e.key];
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
          aria-disabled={step === steps.length - 1}
          onClick={() => go(1)}
        >
          <ChevronRight size={17} aria-hidden />
        </button>
        <p role="status">
          Note {step + 1} of {steps.length}: {stepSaid(model, played, step)}.
        </p>
      </div>
      <p>{effortSaid(model, played)}</p>
      <p>
        <span className="text-sm font-semibold text-soft">Fingers</span> {signatureOf(steps)}
      </p>
      {otherwise && (
        <p className="text-sm">
          Coming down it is fingered otherwise: {otherwise.down}, where going up it is {otherwise.up}.
        </p>
      )}
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">Read it note by note</summary>
        <p>{`${steps.map((_, i) => stepSaid(model, played, i)).join('; ')}.`}</p>
      </details>
      <Tablature
        name={`Tablature, ${name}`}
        text={tablature(played.run, model.neck, { accidentals: model.accidentals })}
      />
    </div>
  );
}
