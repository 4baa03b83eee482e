import { frequency, midiName, plural, pretty, usualTuning } from '@crow-ladder/core';
import { type Tuned } from '@crow-ladder/core/listening';
import { soundOf } from '@crow-ladder/core/sound';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Model } from '../model/model.ts';
import { strungOf } from '../sound/voiceOf.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { Switch } from '../ui/Switch.tsx';
import { Hearing } from './HearMe.tsx';
import { tune, type Tuning } from './listening.ts';
import { useEars } from './useEars.ts';

/** A string is in tune within so many cents: hardly anybody hears less (this project's own judgement). */
const IN_TUNE = 3;
/** The scale beside a string reaches so many cents either way. */
const WIDE = 50;
/** The stand-in begins so many cents away, and comes nearer by each stroke. */
const ASTRAY = [-24, 17, -9, 31, -14, 6] as const;
const NEARER = 0.3;

const name = (midi: number): string => pretty(midiName(midi));
/** "12 cents flat". */
const away = (cents: number): string =>
  Math.abs(cents) <= IN_TUNE
    ? 'in tune'
    : `${plural(Math.round(Math.abs(cents)), 'cent')} ${cents < 0 ? 'flat: tighten it' : 'sharp: loosen it'}`;

/** What of the usual tuning changes, string by string. */
function stepsFrom(tuning: readonly number[]): readonly string[] {
  const usual = usualTuning(tuning);
  return tuning
    .map((midi, i) => ({ string: tuning.length - i, by: midi - usual[i]!, midi, was: usual[i]! }))
    .filter(({ by }) => by !== 0)
    .map(
      ({ string, by, midi, was }) =>
        `string ${string} ${by < 0 ? 'down' : 'up'} ${plural(Math.abs(by), 'half step')}, ${name(was)} to ${name(midi)}`,
    );
}

/** Tunes the strings of the chart's instrument, one at a time. */
export function TunerDialog({ model, onClose }: { readonly model: Model; readonly onClose: () => void }) {
  const { tuning, capo } = model.state.instrument;
  const ears = useEars();
  const { source, state, hears, listenBy, stop } = ears;
  const [onCapo, setOnCapo] = useState(capo > 0);
  /** By string number − 1, as they sound. */
  const pitches = useMemo(
    () => [...tuning].reverse().map((midi) => midi + (onCapo ? capo : 0)),
    [tuning, capo, onCapo],
  );
  const [now, setNow] = useState<Tuned | null>(null);
  /** What each string was like when it was heard last, in cents. */
  const [last, setLast] = useState<ReadonlyMap<number, number>>(new Map());
  const [strokes, setStrokes] = useState<ReadonlyMap<number, number>>(new Map());
  const tuner = useRef<Tuning | null>(null);
  const strung = strungOf(model);

  // What was heard before was another input, or other strings.
  const [heardBy, setHeardBy] = useState({ source, pitches });
  if (heardBy.source !== source || heardBy.pitches !== pitches) {
    setHeardBy({ source, pitches });
    setNow(null);
    setLast(new Map());
  }
  useEffect(() => {
    if (!hears) return undefined;
    let wanted = true;
    const onTuned = (it: Tuned | null): void => {
      if (!wanted) return;
      setNow(it);
      if (it) setLast((before) => new Map(before).set(it.string, it.cents));
    };
    void listenBy((ctx, to) => tune(ctx, to, pitches, onTuned)).then((it) => {
      if (wanted) tuner.current = it;
    });
    return () => {
      wanted = false;
      tuner.current = null;
      stop();
    };
  }, [hears, listenBy, stop, pitches]);

  const pluck = (string: number): void => {
    const many = strokes.get(string) ?? 0;
    setStrokes(new Map(strokes).set(string, many + 1));
    const sounds = soundOf(strung, { string: string + 1, fret: 0, midi: pitches[string]! }, 'pick', 0);
    tuner.current?.pluck(sounds, Math.round(ASTRAY[string % ASTRAY.length]! * NEARER ** many));
  };
  const steps = stepsFrom(tuning);
  // Said again only where it is heard otherwise by five cents, or on another string.
  const said =
    now &&
    `String ${now.string + 1}, ${name(pitches[now.string]!)}: ${away(Math.abs(now.cents) <= IN_TUNE ? 0 : Math.round(now.cents / 5) * 5 || now.cents)}.`;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Tune the guitar"
      text="Each string as it should sound, and how far it is from that."
    >
      <div className="flex flex-col gap-4">
        <Hearing
          hearing={ears}
          timed={false}
          text="Pluck one string after the other and let it ring."
          standIn="It plucks the string that you have it pluck, nearer to its pitch each time."
        />
        {capo > 0 && (
          <Switch on={onCapo} onChange={setOnCapo}>
            {`The capo is on, at fret ${capo}`}
          </Switch>
        )}
        {steps.length > 0 && <p className="text-sm">{`From the usual tuning: ${steps.join('; ')}.`}</p>}
        <p role="status" className="min-h-8 font-reading text-xl">
          {said ?? (state === 'listening' ? 'Listening: pluck a string.' : '')}
        </p>
        <ol className="flex flex-col gap-1" aria-label="Strings">
          {pitches.map((midi, string) => {
            const cents = now?.string === string ? now.cents : last.get(string);
            const sounds = now?.string === string;
            return (
              <li key={string} className="flex items-center gap-3" aria-current={sounds}>
                <span className={`w-16 shrink-0 min-[761px]:w-32 ${sounds ? 'font-bold' : ''}`}>
                  {`${string + 1}  ${name(midi)}`}
                  <span className="ml-2 text-sm text-soft max-[760px]:hidden">{`${frequency(midi).toFixed(1)} Hz`}</span>
                </span>
                <Scale cents={cents} sounds={sounds} />
                <span className="grow text-sm">{cents === undefined ? 'not heard yet' : away(cents)}</span>
                {source?.kind === 'standIn' && state === 'listening' && (
                  <button
                    type="button"
                    className="button"
                    aria-label={`Have the stand-in pluck string ${string + 1}`}
                    onClick={() => pluck(string)}
                  >
                    Pluck
                  </button>
                )}
              </li>
            );
          })}
        </ol>
      </div>
    </Dialog>
  );
}

/** Where a string is between flat and sharp: the middle is in tune. */
const Scale = ({ cents, sounds }: { readonly cents: number | undefined; readonly sounds: boolean }) => {
  const at = cents === undefined ? null : Math.max(-WIDE, Math.min(WIDE, cents));
  return (
    <svg aria-hidden className="shrink-0" width="130" height="24" viewBox="-65 -12 130 24">
      <path d="M-60 0H60" className="tuner-line" />
      <path d={`M${-IN_TUNE * 1.2} -7V7M${IN_TUNE * 1.2} -7V7`} className="tuner-line" />
      {at !== null && (
        <path
          d="M0 -9L6 0L0 9L-6 0Z"
          transform={`translate(${at * 1.2} 0)`}
          className={sounds ? 'tuner-now' : 'tuner-last'}
        />
      )}
    </svg>
  );
};
