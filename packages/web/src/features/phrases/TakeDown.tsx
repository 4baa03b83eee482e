import { plural, pretty } from '@crow-ladder/core';
import { takenDown, takenFreely, withoutClicks } from '@crow-ladder/core/listening';
import { lineOf, TAP_GRIDS, type TapGrid, type Tune } from '@crow-ladder/core/phrases';
import { TEMPO } from '@crow-ladder/core/run';
import { useMemo, useRef, useState } from 'react';
import { Listens } from '../../hearing/Heard.tsx';
import { Hearing } from '../../hearing/HearMe.tsx';
import { useEars } from '../../hearing/useEars.ts';
import { rangeOfNeck, standInLine, useTaking } from '../../hearing/useTaking.ts';
import { type Model } from '../../model/model.ts';
import { USUAL_BEATS } from '../../model/progression.ts';
import { CLICK_PITCHES } from '../../sound/voices.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { useMetronome } from './useMetronome.ts';

const TIMES = [
  { id: 'own', name: 'in my own time' },
  { id: 'click', name: 'to the metronome' },
] as const;
type Time = (typeof TIMES)[number]['id'];

const BEATS = USUAL_BEATS;
const SECONDS = 60;
/** The stand-in leaves so many seconds before it begins in its own time. */
const SOON = 0.2;

interface TakeDownProps {
  readonly model: Model;
  readonly tempo: number;
  /** What was taken, and how fast it was played, in quarter notes a minute. */
  readonly onTake: (tune: Tune, tempo: number) => void;
}

/** A line that is played, written as it is heard, its times put on parts of a beat. */
export function TakeDown({ model, tempo: usual, onTake }: TakeDownProps) {
  const ears = useEars();
  const [time, setTime] = useState<Time>('own');
  const [grid, setGrid] = useState<TapGrid>('eighths');
  const [tempo, setTempo] = useState(usual);
  const range = useMemo(() => {
    const { low, high } = rangeOfNeck(model.neck);
    // The page's own clicks are told by their pitches.
    return { low, high: Math.max(high, CLICK_PITCHES.accent + 1) };
  }, [model.neck]);
  const taking = useTaking(ears, range);
  const { notes, on } = taking;
  const beat = SECONDS / tempo;
  const following = useRef<Awaited<ReturnType<typeof taking.start>>>(null);
  /** When the first beat of all sounds, in seconds of what is listened to. */
  const [first, setFirst] = useState<number | null>(null);
  const metronome = useMetronome(model, BEATS, tempo, ({ pass, origin }) => {
    const now = following.current;
    if (pass > 0 || !now) return;
    setFirst(origin - now.base);
    if (ears.source?.kind === 'standIn') now.play(standInLine(model, beat), origin + BEATS * beat);
  });
  const listen = async (): Promise<void> => {
    const now = await taking.start();
    following.current = now;
    if (!now) return;
    if (time === 'click') return metronome.start();
    setFirst(null);
    if (ears.source?.kind === 'standIn')
      now.play(standInLine(model, beat).map((it) => ({ ...it, at: it.at + SOON, until: it.until + SOON })));
  };
  const end = (): void => {
    metronome.stop();
    taking.stop();
  };
  const { ticks } = TAP_GRIDS.find(({ id }) => id === grid)!;
  const taken = useMemo(() => {
    if (time === 'own' || first === null) {
      const free = takenFreely(notes, ticks, BEATS);
      const played = Math.round(SECONDS / free.beat);
      return { tune: free.tune, tempo: Math.max(TEMPO.least, Math.min(TEMPO.most, played)) };
    }
    const last = notes.at(-1)?.at ?? 0;
    const many = Math.max(0, Math.ceil((last - first) / beat) + 1);
    const clicks = Array.from({ length: many }, (_, i) => ({
      at: first + i * beat,
      midi: i % BEATS ? CLICK_PITCHES.beat : CLICK_PITCHES.accent,
    }));
    const played = withoutClicks(notes, clicks);
    const begins = first + (ears.delay ?? 0) / 1000;
    return { tune: takenDown(played, { beat, first: begins }, ticks, BEATS), tempo };
  }, [notes, time, first, ticks, beat, tempo, ears.delay]);
  const sounding = taken.tune.filter(({ midi }) => midi !== null).length;
  const line = sounding > 0 ? lineOf(taken.tune, model.key) : null;
  return (
    <>
      <Hearing
        hearing={ears}
        text="Play single notes. Headphones keep the click out of the microphone."
        standIn="It plays the position in front, upward."
      />
      <div className="grid grid-cols-2 gap-2">
        <Field label="Time">
          <Choice value={time} options={TIMES} onChange={setTime} />
        </Field>
        <Field label="Put on">
          <Choice value={grid} options={TAP_GRIDS} onChange={setGrid} />
        </Field>
        {time === 'click' && (
          <Field label="Quarter notes a minute">
            <Whole value={tempo} min={TEMPO.least} max={TEMPO.most} onChange={setTempo} />
          </Field>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="button"
          disabled={!ears.hears}
          onClick={() => (on ? end() : void listen())}
        >
          {on ? 'That was it' : notes.length ? 'Listen again' : 'Listen'}
        </button>
        <button
          type="button"
          className="button button-strong"
          disabled={!sounding}
          onClick={() => {
            end();
            onTake(taken.tune, taken.tempo);
          }}
        >
          Take it down
        </button>
        {on && <Listens loud={ears.loud} before={notes.length === 0} />}
        {metronome.beat !== null && (
          <span aria-hidden className="font-reading text-3xl font-bold">
            {(metronome.beat % BEATS) + 1}
          </span>
        )}
      </div>
      <p role="status" className="empty:hidden">
        {metronome.playing === 'failed' && 'The sound could not be started: try again. '}
        {sounding > 0 && (
          <>
            {`${plural(sounding, 'note')}, ${time === 'own' ? 'about ' : ''}${taken.tempo} a minute: `}
            <span className="font-semibold">{line === null ? '' : pretty(line)}</span>
          </>
        )}
      </p>
    </>
  );
}
