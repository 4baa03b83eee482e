import { TEMPO } from '@crow-ladder/core/run';
import { Play, Square } from 'lucide-react';
import { Popup } from '../../ui/Popup.tsx';
import { BEATS } from './drilled.ts';
import { Heard } from './Heard.tsx';
import { NOTE_LENGTHS } from './params.ts';
import { type PartProps } from './Sentence.tsx';
import { type DroneState } from './useDrone.ts';

/** On an upright screen it stands over the dock, large enough to be hit while playing. */
export const IN_REACH =
  'max-[760px]:fixed max-[760px]:bottom-[5rem] max-[760px]:z-20 max-[760px]:h-16 max-[760px]:text-lg';

interface PlayProps {
  readonly on: boolean;
  readonly ready: boolean;
  readonly onToggle: () => void;
}

/** Plays and stops. */
export const PlayButton = ({ on, ready, onToggle }: PlayProps) => (
  <button
    type="button"
    className={`button button-strong min-w-28 justify-center ${on ? 'h-14 text-lg' : ''} ${IN_REACH} max-[760px]:right-3`}
    disabled={!ready}
    aria-keyshortcuts="Space"
    onClick={onToggle}
  >
    {on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />} {on ? 'Stop' : 'Play'}
  </button>
);

interface CountProps extends PartProps {
  /** The beat that sounds, counted from 0 with the count-in; null before the first. */
  readonly beat: number | null;
  readonly drone: DroneState;
}

/** While it plays: the count, the tempo, and what is heard. */
export const Count = ({ params, put, tempo, onTempo, beat, drone }: CountProps) => (
  <>
    <p
      aria-hidden
      className="flex items-baseline gap-4 bg-ground font-reading max-[760px]:fixed max-[760px]:bottom-[5rem] max-[760px]:left-1/2 max-[760px]:z-20 max-[760px]:-translate-x-1/2 max-[760px]:px-1"
    >
      <span className="min-w-[1ch] text-5xl font-bold">{beat === null ? '' : (beat % BEATS) + 1}</span>
      <span className="text-3xl font-semibold">{tempo}</span>
      <span className="max-[760px]:hidden">
        {NOTE_LENGTHS.find(({ id }) => id === String(params.perBeat))!.name}
      </span>
    </p>
    <div role="group" aria-label="Tempo" className="flex gap-1.5">
      <button type="button" className="button" onClick={() => onTempo(tempo - TEMPO.step)}>
        {TEMPO.step} slower
      </button>
      <button type="button" className="button" onClick={() => onTempo(tempo + TEMPO.step)}>
        {TEMPO.step} faster
      </button>
    </div>
    <Popup name="What is heard" body={<Heard params={params} put={put} drone={drone} />}>
      Sound
    </Popup>
  </>
);
