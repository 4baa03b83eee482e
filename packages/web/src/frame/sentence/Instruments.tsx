import { tuningSaid } from '@crow-ladder/core';
import { X } from 'lucide-react';
import { memo } from 'react';
import { type Model } from '../../model/model.ts';
import { type Change, switched, withoutOther } from '../../model/moves.ts';

/** The instruments of a chart that has several: the one shown, and those that it can be switched to. */
export const Instruments = memo(function Instruments({
  model,
  onChange,
}: {
  model: Model;
  onChange: (change: Change) => void;
}) {
  const { state, accidentals } = model;
  if (!state.others.length) return null;
  return (
    <div role="group" aria-label="Instruments of this chart" className="flex flex-wrap items-center gap-1.5">
      <span className="button" aria-current="true">
        {state.instrument.name}
      </span>
      {state.others.map(({ instrument }, i) => (
        <span key={i} className="flex">
          <button
            type="button"
            className="button"
            title={tuningSaid(instrument.tuning, accidentals)}
            onClick={() => onChange((s) => switched(s, i))}
          >
            {instrument.name}
          </button>
          <button
            type="button"
            className="button button-quiet"
            aria-label={`Take ${instrument.name} out of this chart`}
            onClick={() => onChange((s) => withoutOther(s, i))}
          >
            <X size={15} aria-hidden />
          </button>
        </span>
      ))}
    </div>
  );
});
