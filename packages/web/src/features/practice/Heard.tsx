import { useRef } from 'react';
import { Choice, Field } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { CHANGES } from '../../model/progression.ts';
import { alongOf, chordsUnder } from './backing.ts';
import { DRONES } from './params.ts';
import { type PartProps } from './parts.ts';
import { type DroneState } from './useDrone.ts';

interface HeardProps extends Pick<PartProps, 'model' | 'params' | 'put'> {
  readonly drone: DroneState;
}

/** What is heard, and how loud. */
export const Heard = ({ model, params, put, drone }: HeardProps) => {
  const { notes, click, drone: on, under } = params;
  const offered = chordsUnder(model, params);
  return (
    <div role="group" aria-label="What is heard" className="flex flex-col gap-2">
      <Level label="Notes" value={notes} onValue={(to) => put({ notes: to })} />
      <Level label="Click" value={click} onValue={(to) => put({ click: to })} />
      {offered.length > 0 && (
        <Level label="Chords" value={alongOf(model, params)} onValue={(to) => put({ along: to })} />
      )}
      {offered.length > 0 && params.on !== CHANGES && (
        <Field label="Which chords">
          <Choice
            value={offered.find((it) => it.now)!.id}
            options={offered}
            onChange={(to) => put({ chords: to })}
          />
        </Field>
      )}
      <div className="flex items-end gap-4">
        <Switch on={drone.on} onChange={drone.setOn}>
          Drone
        </Switch>
        <Field label="Drone on">
          <Choice value={on} options={DRONES} onChange={(to) => put({ drone: to })} />
        </Field>
      </div>
      {drone.on && <Level label="Drone" value={under} onValue={(to) => put({ under: to })} />}
    </div>
  );
};

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
  const heard = value > 0;
  const turn = (): void => {
    if (heard) before.current = value;
    onValue(heard ? 0 : before.current);
  };
  return (
    <div className="flex flex-wrap items-center justify-between gap-2">
      <Switch on={heard} onChange={turn}>
        {label}
      </Switch>
      <input
        type="range"
        aria-label={`How loud: ${label.toLowerCase()}`}
        min={0}
        max={100}
        step={5}
        className="level"
        aria-valuetext={heard ? `${value} per cent` : 'not heard'}
        value={value}
        onChange={(e) => onValue(Number(e.target.value))}
      />
    </div>
  );
}
