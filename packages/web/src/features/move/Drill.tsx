import { list, plural, keySaid } from '@crow-ladder/core';
import { type WindowFault } from '@crow-ladder/core/moves';
import { useEffect, useState } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { useClock } from '../../ports/clock.ts';
import { Switch } from '../../ui/Switch.tsx';
import { type Drilled, drilledNext, judged } from './drilled.ts';
import { type MoveParams } from './params.ts';

const fretsWord = (frets: readonly number[]): string =>
  `${frets.length === 1 ? 'fret' : 'frets'} ${list(frets)}`;

/** A string's fault in words. */
function faultSaid({ string, forgotten, missing, extra }: WindowFault): string {
  if (forgotten.length)
    return `String ${string}: the jog from ${list(forgotten.map((c) => `string ${c.from} to ${c.to}`))} was forgotten.`;
  return `String ${string}: ${[
    ...(missing.length ? [`missing at ${fretsWord(missing)}`] : []),
    ...(extra.length ? [`not in the window: ${fretsWord(extra)}`] : []),
  ].join('; ')}.`;
}

/** A key, a scale and a root: the player lays the window by choosing its spots on the neck, and is told which jog was forgotten. */
export function Drill({
  model,
  settings,
  change,
  params,
  onParams,
  drill,
}: PanelProps<MoveParams> & { drill: Drilled }) {
  const { key, window, placed, faults, clock, began, took } = drill;
  const time = useClock();
  const put = (next: Drilled | null): void => onParams({ ...params, drill: next });
  const again = (part: Partial<Drilled> = {}): void =>
    put(drilledNext(model.neck, model.scale, settings.spelling, part.clock ?? clock, time.now()));
  const check = (): void => {
    const next = judged(drill, time.now());
    put(next);
    const record = settings.windowRecord;
    if (clock && took === null && next.took !== null && (record === null || next.took < record))
      change(() => ({ windowRecord: next.took }));
  };
  const [low, high] = window.frets;
  return (
    <div className="flex flex-col gap-3">
      <p className="font-reading text-lg">
        {keySaid(key)}, root on string {window.anchor.string} fret {window.anchor.fret}: lay the window over
        it. On this string it covers frets {low} to {high}.
      </p>
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="button button-strong" onClick={check}>
          Check
        </button>
        <button type="button" className="button" onClick={() => again()}>
          Another one
        </button>
        <button type="button" className="button" onClick={() => put({ ...drill, placed: [], faults: null })}>
          Take all spots away
        </button>
        <button type="button" className="button" onClick={() => put(null)}>
          End the drill
        </button>
        <Switch on={clock} onChange={(on) => put({ ...drill, clock: on, began: time.now(), took: null })}>
          With a clock
        </Switch>
        {clock && <Clock began={began} stopped={took} />}
        {settings.windowRecord !== null && (
          <span className="text-sm text-soft">Your record: {settings.windowRecord} seconds a shape</span>
        )}
      </div>
      <div role="status" aria-label="Judgement">
        {faults === null ? (
          <p className="text-soft">{plural(placed.length, 'spot')} placed.</p>
        ) : faults.length === 0 ? (
          <p>All of it is right{clock && took !== null ? `, in ${took} seconds` : ''}.</p>
        ) : (
          faults.map((f) => <p key={f.string}>{faultSaid(f)}</p>)
        )}
      </div>
    </div>
  );
}

/** How often the seconds are looked at, in ms. */
const TICK_MS = 500;
/** Seconds since a shape was asked for. */
function Clock({ began, stopped }: { began: number; stopped: number | null }) {
  const time = useClock();
  const [now, setNow] = useState(time.now);
  useEffect(() => time.after(TICK_MS, () => setNow(time.now())), [time, now]);
  return (
    <span role="timer" className="tabular-nums">
      {stopped ?? Math.max(0, Math.round((now - began) / 1000))} s
    </span>
  );
}
