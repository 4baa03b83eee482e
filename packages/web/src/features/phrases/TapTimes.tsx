import { TAP_GRIDS, type TapGrid } from '@crow-ladder/core/phrases';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { type Model } from '../../model/model.ts';
import { type PhraseHere } from '../../model/phrases.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { type Edit, tappedIn } from './editing.ts';
import { useMetronome } from './useMetronome.ts';

const MINUTE = 60_000;

interface TapProps {
  readonly model: Model;
  readonly here: PhraseHere;
  readonly tempo: number;
  readonly edit: (what: Edit) => void;
  readonly onDone: () => void;
}

/** The times of a phrase tapped in to the metronome: a tap a note, put on the nearest part of the beat. */
export function TapTimes({ model, here: { phrase, notes }, tempo, edit, onDone }: TapProps) {
  const [grid, setGrid] = useState<TapGrid>('sixteenths');
  const [taps, setTaps] = useState<readonly number[]>([]);
  const { beats } = phrase;
  const { playing, beat, on, start, stop } = useMetronome(model, beats, tempo);
  const beatMs = MINUTE / tempo;
  /** When the first beat of all sounded: a beat is seen a little late, so the earliest that any of them says is the nearest. */
  const origin = useRef<{ readonly at: number; readonly count: number; readonly beat: number | null } | null>(
    null,
  );
  useEffect(() => {
    if (!on) origin.current = null;
    if (beat === null || !on) return;
    const now = performance.now();
    const was = origin.current;
    const count = was ? was.count + 1 : 0;
    const at = now - count * beatMs;
    origin.current = { at: was ? Math.min(was.at, at) : at, count, beat };
  }, [beat, on, beatMs]);
  const many = notes.filter(({ at }) => at !== null).length;
  const tap = (): void => {
    if (!origin.current || taps.length >= many) return;
    setTaps([...taps, performance.now() - origin.current.at]);
  };
  const begin = (): void => {
    setTaps([]);
    start();
  };
  const take = (): void => {
    stop();
    const { ticks } = TAP_GRIDS.find(({ id }) => id === grid)!;
    // The bar in which the first one was tapped is the phrase's first.
    const first = Math.floor((taps[0]! + beatMs / 4) / (beatMs * beats)) * beatMs * beats;
    edit(
      tappedIn(
        taps.map((at) => at - first),
        beatMs,
        ticks,
      ),
    );
    onDone();
  };
  const onKey = (e: KeyboardEvent): void => {
    if (e.key !== 'Enter' || e.repeat) return;
    e.preventDefault();
    tap();
  };
  return (
    <div className="flex flex-col gap-3">
      <p>Start the metronome, then tap once for each note: with Enter, or by touching the field.</p>
      <Field label="Put on">
        <Choice value={grid} options={TAP_GRIDS} onChange={setGrid} />
      </Field>
      <div className="flex flex-wrap gap-1.5">
        <button type="button" className="button" onClick={on ? stop : begin}>
          {on ? 'Stop the metronome' : 'Start the metronome'}
        </button>
        <button type="button" className="button button-strong" disabled={!taps.length} onClick={take}>
          Take these times
        </button>
      </div>
      {on && (
        <button
          type="button"
          className="button h-24 justify-center text-lg"
          onPointerDown={tap}
          onKeyDown={onKey}
          autoFocus
        >
          {beat === null ? 'Wait for the beat…' : `Tap: ${taps.length} of ${many}`}
        </button>
      )}
      <p role="status" className="empty:hidden">
        {playing === 'soon' && 'Getting the sound…'}
        {playing === 'failed' && 'The sound could not be started: try again.'}
        {taps.length === many && 'Every note is tapped: take these times, or start anew.'}
      </p>
    </div>
  );
}
