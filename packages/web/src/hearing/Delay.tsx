import { delayAmong } from '@crow-ladder/core/listening';
import { useEffect, useRef, useState } from 'react';
import { clicksFor, soundClick } from '../sound/voices.ts';
import { Field, Whole } from '../ui/fields.tsx';
import { DELAY_LIMITS } from './delays.ts';
import { follow } from './listening.ts';
import { type Ears } from './useEars.ts';

/** When clicks sound, in seconds from the first: unevenly, so that one is never taken for another. */
const CLICKS = [0, 0.5, 1.13, 1.55, 2.21, 2.68, 3.27, 3.79] as const;
/** How long before the first one, and how long one is waited for, in seconds. */
const BEFORE = 0.4;
const AFTER = 0.8;
/** Between these pitches, MIDI numbers, a click is looked for. */
const PITCHES = { low: 72, high: 96 };
/** An input that was never measured: what an empty field means. */
const UNKNOWN = -1;

/** What an input adds between what the page sounds and what it hears: measured, shown and set. */
export function Delay({
  ears: { delay, setDelay, listenBy, stop },
}: {
  readonly ears: Pick<Ears, 'delay' | 'setDelay' | 'listenBy' | 'stop'>;
}) {
  const [said, say] = useState('');
  const [measuring, setMeasuring] = useState(false);
  const over = useRef<() => void>(() => undefined);
  useEffect(() => () => over.current(), []);
  const measure = async (): Promise<void> => {
    setMeasuring(true);
    say('Clicks sound…');
    const heard: number[] = [];
    const following = await listenBy(async (ctx, to) => {
      const it = await follow(
        ctx,
        to,
        PITCHES,
        (notes) => heard.push(...notes.map(({ at }) => at)),
        () => undefined,
      );
      const { beat } = clicksFor(ctx);
      const from = ctx.currentTime + BEFORE;
      const sounding = CLICKS.map((at) => soundClick(ctx, ctx.destination, beat, from + at));
      return {
        played: CLICKS.map((at) => from + at - it.base),
        stop: () => {
          it.stop();
          for (const click of sounding) click.stop();
        },
      };
    });
    if (!following) {
      setMeasuring(false);
      return say('The microphone is not open: choose it again.');
    }
    const end = (): void => {
      stop();
      setMeasuring(false);
      const found = delayAmong(heard, following.played);
      if (!found)
        return say(
          'The clicks were not heard: turn the loudspeaker up, or hold a headphone to the microphone, and measure again.',
        );
      const ms = Math.round(found.delay * 1000);
      setDelay(ms);
      say(`The clicks came back after ${ms} ms, within ${Math.ceil(found.within * 1000)} ms.`);
    };
    const timer = setTimeout(end, (BEFORE + CLICKS.at(-1)! + AFTER) * 1000);
    over.current = () => {
      clearTimeout(timer);
      stop();
    };
  };
  return (
    <>
      <Field
        label="Delay of this input, ms"
        hint="What comes between a click and its being heard. Empty is not known: then what you are late by on the whole is taken for it."
      >
        <Whole
          value={delay ?? UNKNOWN}
          none={UNKNOWN}
          placeholder="not measured"
          min={DELAY_LIMITS[0]}
          max={DELAY_LIMITS[1]}
          onChange={(ms) => setDelay(ms === UNKNOWN ? null : ms)}
        />
      </Field>
      <button type="button" className="button self-start" disabled={measuring} onClick={() => void measure()}>
        Measure the delay
      </button>
      <p role="status" className="text-sm empty:hidden">
        {said}
      </p>
    </>
  );
}
