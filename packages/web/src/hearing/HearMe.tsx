import { FAULT_LIMITS, type Faults } from '@crow-ladder/core/listening';
import { Ear } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { Choice, Field, Whole } from '../ui/fields.tsx';
import { Delay } from './Delay.tsx';
import { Popup } from '../ui/Popup.tsx';
import { Opening } from './Opening.tsx';
import { DEAF, MICROPHONE, type Source, SOURCES, STAND_IN } from './source.ts';
import { type Ears } from './useEars.ts';

const KINDS = [{ id: 'nothing', name: 'nothing' }, ...SOURCES] as const;
type Kind = (typeof KINDS)[number]['id'];

const FINGERS = [
  { id: '0', name: 'no finger' },
  { id: '1', name: 'the index' },
  { id: '2', name: 'the middle finger' },
  { id: '3', name: 'the ring finger' },
  { id: '4', name: 'the little finger' },
] as const;

interface HearMeProps {
  readonly hearing: Pick<
    Ears,
    'source' | 'state' | 'label' | 'choose' | 'delay' | 'setDelay' | 'listenBy' | 'stop'
  >;
  /** What it is heard for, in a sentence. */
  readonly text: string;
  /** Whether it matters when a note comes: then what the input adds is asked for. */
  readonly timed?: boolean;
  /** What the stand-in plays here without fault, in a sentence; else it plays what is practised, with the faults that are given to it. */
  readonly standIn?: string;
  /** What is chosen beside it, once something is listened to. */
  readonly children?: ReactNode;
}

/** What the page listens to, in a word or two; null where it does not. */
export function hearingSaid({ source, state }: Pick<Ears, 'source' | 'state'>): string | null {
  if (source === null) return null;
  if (state in DEAF) return 'hears nothing';
  if (state === 'opening') return 'asking the browser';
  return source.kind === 'microphone' ? 'hears the microphone' : 'hears the stand-in';
}

/** A door to what the page listens to. */
export function HearMe(props: HearMeProps) {
  const is = hearingSaid(props.hearing) ?? 'hear me';
  const said = `${is[0]!.toUpperCase()}${is.slice(1)}`;
  return (
    <Popup
      name="Hear me"
      label={said}
      panelClass="flex max-h-[min(80vh,var(--radix-popover-content-available-height))] w-[min(24rem,calc(100vw-20px))] flex-col gap-3 overflow-auto p-3"
      body={<Hearing {...props} />}
    >
      <Ear size={16} aria-hidden /> {said}
    </Popup>
  );
}

/** Chooses whether the page listens, and to what. */
export function Hearing({ hearing, text, timed = true, standIn, children }: HearMeProps) {
  const { source, state, choose } = hearing;
  const kind: Kind = source?.kind ?? 'nothing';
  const to = (id: Kind): void =>
    void choose(id === 'nothing' ? null : id === 'microphone' ? MICROPHONE : STAND_IN);
  return (
    <>
      <Field label="What the page listens to">
        <Choice value={kind} options={KINDS} onChange={to} />
      </Field>
      <Opening state={state} />
      {source?.kind === 'microphone' && <Devices hearing={hearing} source={source} timed={timed} />}
      {source?.kind === 'standIn' && standIn === undefined && (
        <StandIn faults={source.faults} onFaults={(faults) => void choose({ kind: 'standIn', faults })} />
      )}
      {source && children}
      <p className="text-sm text-soft">
        {source?.kind === 'standIn'
          ? `The stand-in is a player made of numbers. ${standIn ?? 'It plays what is practised, with the faults that you give it, and the page says what it hears.'}`
          : `${text} Nothing that is heard is kept or sent.`}
      </p>
    </>
  );
}

interface DevicesProps {
  readonly hearing: HearMeProps['hearing'];
  readonly source: Extract<Source, { kind: 'microphone' }>;
  readonly timed: boolean;
}

/** Which input, and which of its channels. */
function Devices({ hearing, source, timed }: DevicesProps) {
  const { choose, label, state } = hearing;
  const [inputs, setInputs] = useState<readonly { readonly id: string; readonly name: string }[]>([]);
  useEffect(() => {
    const devices = navigator.mediaDevices as MediaDevices | undefined;
    if (!devices || !label) return undefined;
    const look = (): void =>
      void devices
        .enumerateDevices()
        .then((all) =>
          setInputs(
            all.flatMap(({ kind, deviceId, label: name }) =>
              kind === 'audioinput' && deviceId
                ? [{ id: deviceId, name: name || 'an input without a name' }]
                : [],
            ),
          ),
        );
    look();
    devices.addEventListener('devicechange', look);
    return () => devices.removeEventListener('devicechange', look);
  }, [label]);
  const now = source.device || inputs.find((it) => it.name === label)?.id || '';
  return (
    <>
      {inputs.length > 0 && (
        <Field label="Input">
          <Choice value={now} options={inputs} onChange={(device) => void choose({ ...source, device })} />
        </Field>
      )}
      {(state === 'ready' || state === 'listening') && (
        <Field label="Channel" hint="An interface with two inputs has the guitar on one of them.">
          <Choice
            value={String(source.channel)}
            options={[
              { id: '0', name: 'the first' },
              { id: '1', name: 'the second' },
            ]}
            onChange={(id) => void choose({ ...source, channel: Number(id) })}
          />
        </Field>
      )}
      {timed && label && <Delay key={label} ears={hearing} />}
    </>
  );
}

interface StandInProps {
  readonly faults: Faults;
  readonly onFaults: (faults: Faults) => void;
}

const FAULTS = [
  { id: 'wrong', label: 'Wrong notes a round' },
  { id: 'missed', label: 'Notes left out a round' },
  { id: 'doubled', label: 'Notes struck twice a round' },
  { id: 'jitter', label: 'Unsteady by, ms' },
] as const;
const MORE_FAULTS = [
  { id: 'uneven', label: 'Weak notes softer by, dB' },
  { id: 'short', label: 'Bends short by, cents' },
  { id: 'detuned', label: 'Out of tune by, cents' },
  { id: 'ringing', label: 'Notes ring on for, ms' },
] as const;

/** What the stand-in does otherwise than asked. */
function StandIn({ faults, onFaults }: StandInProps) {
  const field = ({ id, label }: (typeof FAULTS | typeof MORE_FAULTS)[number]): ReactNode => (
    <Field key={id} label={label}>
      <Whole
        value={faults[id]}
        min={FAULT_LIMITS[id][0]}
        max={FAULT_LIMITS[id][1]}
        onChange={(to) => onFaults({ ...faults, [id]: to })}
      />
    </Field>
  );
  return (
    <div role="group" aria-label="The stand-in" className="flex flex-col gap-2">
      <div className="grid grid-cols-2 gap-2">
        {FAULTS.map(field)}
        <Field label="Late is">
          <Choice
            value={String(faults.lateFinger) as (typeof FINGERS)[number]['id']}
            options={FINGERS}
            onChange={(id) =>
              onFaults({ ...faults, lateFinger: Number(id), late: Number(id) ? faults.late || LATE_MS : 0 })
            }
          />
        </Field>
        {faults.lateFinger > 0 && (
          <Field label="Late by, ms">
            <Whole
              value={faults.late}
              min={FAULT_LIMITS.late[0]}
              max={FAULT_LIMITS.late[1]}
              onChange={(late) => onFaults({ ...faults, late })}
            />
          </Field>
        )}
      </div>
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">More of its faults</summary>
        <div className="mt-2 grid grid-cols-2 gap-2">{MORE_FAULTS.map(field)}</div>
      </details>
    </div>
  );
}
/** How late a finger usually is that is late, in ms. */
const LATE_MS = 60;
