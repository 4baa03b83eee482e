import { TEMPO } from '@crow-ladder/core/run';
import { Play, Square } from 'lucide-react';
import { type Over } from '../../model/progression.ts';
import { Popup } from '../../ui/Popup.tsx';
import { Heard } from './Heard.tsx';
import { NOTE_LENGTHS } from '../../ui/labels.ts';
import { type PartProps } from './parts.ts';
import { type DroneState } from './useDrone.ts';

interface PlayProps {
  readonly on: boolean;
  readonly ready: boolean;
  readonly onToggle: () => void;
}

/** Plays and stops. */
export const PlayButton = ({ on, ready, onToggle }: PlayProps) => (
  <button
    type="button"
    className={`button button-strong justify-center ${on ? 'h-14 text-lg' : 'min-w-28'}`}
    disabled={!ready}
    aria-keyshortcuts="Space"
    onClick={onToggle}
  >
    {on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />} {on ? 'Stop' : 'Play'}
  </button>
);

interface BeatsProps {
  /** The beat that sounds, counted from 0 with the count-in; null before the first. */
  readonly beat: number | null;
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly tempo: number;
}

/** The count and the tempo, to be read from afar. */
export const Beats = ({ beat, beats, tempo }: BeatsProps) => (
  <p aria-hidden className="flex items-baseline gap-4 font-reading">
    <span className="min-w-[1ch] text-5xl font-bold">{beat === null ? '' : (beat % beats) + 1}</span>
    <span className="text-3xl font-semibold">{tempo}</span>
  </p>
);

interface ChordNowProps {
  readonly now: Over;
  readonly next: Over;
}

/** The chord that sounds and the next one, to be read from afar. */
export const ChordNow = ({ now, next }: ChordNowProps) => (
  <p role="group" className="flex items-baseline gap-3 font-reading" aria-label="Chord">
    <span className="text-5xl font-bold">{now.name}</span>
    {next !== now && <span className="text-2xl text-soft">then {next.name}</span>}
  </p>
);

interface CountProps extends PartProps {
  readonly drone: DroneState;
}

/** While it plays: its notes, the tempo, and what is heard. */
export const Count = ({ model, params, put, tempo, onTempo, drone }: CountProps) => (
  <>
    <span className="max-[760px]:hidden">
      {NOTE_LENGTHS.find(({ id }) => id === String(params.perBeat))!.name}
    </span>
    <div role="group" aria-label="Tempo" className="flex gap-1.5">
      <button type="button" className="button" onClick={() => onTempo(tempo - TEMPO.step)}>
        {TEMPO.step} slower
      </button>
      <button type="button" className="button" onClick={() => onTempo(tempo + TEMPO.step)}>
        {TEMPO.step} faster
      </button>
    </div>
    <Popup name="What is heard" body={<Heard model={model} params={params} put={put} drone={drone} />}>
      Sound
    </Popup>
  </>
);
