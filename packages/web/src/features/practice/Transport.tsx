import { TEMPO } from '@crow-ladder/core/run';
import { droneOf } from '@crow-ladder/core/sound';
import { Play, Square, Volume2, VolumeX } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { startDrone } from '../../sound/audio.ts';
import { Choice } from '../../ui/fields.tsx';
import { BEATS } from './drilled.ts';
import { DRONES } from './params.ts';
import { type PartProps } from './Sentence.tsx';
import { type Playing } from './usePlayback.ts';

/** A pause between two taps that begins a new tempo, in ms, and how many taps are looked at. */
const TAP = { pauseMs: 2500, kept: 5 };

/** A tempo from taps: the mean of the last of them. */
function useTaps(onTempo: (tempo: number) => void): () => void {
  const taps = useRef<readonly number[]>([]);
  return () => {
    const at = performance.now();
    const before = taps.current.at(-1);
    const on = before !== undefined && at - before < TAP.pauseMs;
    taps.current = on ? [...taps.current, at].slice(-TAP.kept) : [at];
    const many = taps.current.length - 1;
    if (many > 0) onTempo(Math.round((60_000 * many) / (at - taps.current[0]!)));
  };
}

/** On an upright screen it stands over the dock, large enough to be hit while playing. */
export const IN_REACH =
  'max-[760px]:fixed max-[760px]:bottom-[5rem] max-[760px]:z-20 max-[760px]:h-16 max-[760px]:text-lg';

interface TransportProps extends PartProps {
  readonly playing: Playing;
  /** The beat that sounds, counted from 0 with the count-in; null before the first. */
  readonly beat: number | null;
  readonly ready: boolean;
  readonly onToggle: () => void;
  /** What stands beside Play while it plays. */
  readonly children: ReactNode;
}

/** Play and stop, the tempo, what is heard and how loud. While it plays, only what is needed then. */
export function Transport({
  model,
  params,
  put,
  tempo,
  onTempo,
  playing,
  beat,
  ready,
  onToggle,
  children,
}: TransportProps) {
  const on = playing === 'soon' || playing === 'yes';
  const tap = useTaps(onTempo);
  const { loop, countIn, notes, click } = params;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <button
        type="button"
        className={`button button-strong min-w-28 ${on ? 'h-14 text-lg' : ''} ${IN_REACH} max-[760px]:right-3`}
        disabled={!ready}
        aria-keyshortcuts="Space"
        onClick={onToggle}
      >
        {on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />} {on ? 'Stop' : 'Play'}
      </button>
      {on && children}
      {on && (
        <p
          aria-hidden
          className="flex items-baseline gap-4 bg-ground font-reading max-[760px]:fixed max-[760px]:bottom-[5rem] max-[760px]:left-1/2 max-[760px]:z-20 max-[760px]:-translate-x-1/2 max-[760px]:px-1"
        >
          <span className="min-w-[1ch] text-5xl font-bold">{beat === null ? '' : (beat % BEATS) + 1}</span>
          <span className="text-3xl font-semibold">{tempo}</span>
        </p>
      )}
      <div role="group" aria-label="Tempo" className="flex gap-1.5">
        <button type="button" className="button" onClick={() => onTempo(tempo - TEMPO.step)}>
          {TEMPO.step} slower
        </button>
        <button type="button" className="button" onClick={() => onTempo(tempo + TEMPO.step)}>
          {TEMPO.step} faster
        </button>
        {!on && (
          <button type="button" className="button" onClick={tap}>
            Tap it
          </button>
        )}
      </div>
      {!on && (
        <>
          <label className="flex gap-2">
            <input type="checkbox" checked={loop} onChange={(e) => put({ loop: e.target.checked })} /> again
            and again
          </label>
          <label className="flex gap-2">
            <input type="checkbox" checked={countIn} onChange={(e) => put({ countIn: e.target.checked })} />{' '}
            count in
          </label>
        </>
      )}
      <Level label="Notes" value={notes} onValue={(to) => put({ notes: to })} />
      <Level label="Click" value={click} onValue={(to) => put({ click: to })} />
      <DroneUnder model={model} params={params} put={put} quiet={on} />
      <p role="status" className="font-semibold">
        {playing === 'soon' && 'Getting the sound…'}
        {playing === 'failed' && 'The sound could not be started: try again.'}
      </p>
    </div>
  );
}

interface DroneProps extends Pick<PartProps, 'model' | 'params' | 'put'> {
  /** Whether it steps back where it does not sound. */
  readonly quiet: boolean;
}

/** A drone on the root or its chord, begun and ended by itself; leaving the task ends it. */
function DroneUnder({ model, params: { drone, under }, put, quiet }: DroneProps) {
  const [on, setOn] = useState(false);
  const pitches = droneOf(model.key, drone).join(' ');
  const sounding = useRef<Awaited<ReturnType<typeof startDrone>> | null>(null);
  const level = useRef(under);
  useEffect(() => {
    level.current = under;
    sounding.current?.setLevel(under / 100);
  }, [under]);
  useEffect(() => {
    if (!on) return;
    let wanted = true;
    void startDrone(pitches.split(' ').map(Number), level.current / 100).then((it) => {
      if (wanted) sounding.current = it;
      else it.stop();
    });
    return () => {
      wanted = false;
      sounding.current?.stop();
      sounding.current = null;
    };
  }, [on, pitches]);
  if (quiet && !on) return null;
  return (
    <div role="group" aria-label="Drone" className="flex flex-wrap items-center gap-2">
      <button type="button" className="button" aria-pressed={on} onClick={() => setOn(!on)}>
        Drone
      </button>
      <span>on</span>
      <Choice
        aria-label="Drone on"
        className="!w-auto"
        value={drone}
        options={DRONES}
        onChange={(to) => put({ drone: to })}
      />
      {on && <Level label="Drone" value={under} onValue={(to) => put({ under: to })} />}
    </div>
  );
}

/** How loud what is heard again is, where nothing else is known. */
const USUAL_LEVEL = 70;

interface LevelProps {
  readonly label: string;
  readonly value: number;
  readonly onValue: (value: number) => void;
}

/** How loud something is, and whether it is heard at all: what was muted comes back as loud as it was. */
function Level({ label, value, onValue }: LevelProps) {
  const before = useRef(value || USUAL_LEVEL);
  const muted = value === 0;
  const mute = (): void => {
    if (!muted) before.current = value;
    onValue(muted ? before.current : 0);
  };
  const Icon = muted ? VolumeX : Volume2;
  return (
    <span className="flex items-center gap-1">
      <button
        type="button"
        className="button button-quiet"
        aria-pressed={muted}
        aria-label={`Mute ${label.toLowerCase()}`}
        onClick={mute}
      >
        <Icon size={17} aria-hidden />
      </button>
      <label className="flex items-center gap-2">
        {label}
        <input
          type="range"
          min={0}
          max={100}
          step={5}
          className="w-24"
          aria-valuetext={muted ? 'not heard' : `${value} per cent`}
          value={value}
          onChange={(e) => onValue(Number(e.target.value))}
        />
      </label>
    </span>
  );
}
