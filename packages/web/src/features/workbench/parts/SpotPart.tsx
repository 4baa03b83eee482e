import { type ChartState } from '@crow-ladder/contract';
import { midiName, pitchAt, pretty } from '@crow-ladder/core';
import { stepRoot, withSpot } from '../../../app/moves.ts';
import { useSettings } from '../../../app/settings.ts';
import { Field, Whole } from '../../../ui/fields.tsx';
import { type Model } from '../model.ts';

interface SpotPartProps {
  readonly model: Model;
  readonly onState: (state: ChartState) => void;
  readonly onPickOnNeck: () => void;
}

/** String and fret of the root: typed, stepped through, or picked on the neck. */
export function SpotPart({ model, onState, onPickOnNeck }: SpotPartProps) {
  const { state, neck } = model;
  const [{ spelling }] = useSettings();
  return (
    <div className="flex flex-col gap-3">
      <div className="flex gap-3">
        <Field label="String">
          <Whole
            value={state.string}
            min={1}
            max={neck.open.length}
            onChange={(string) => onState(withSpot(state, string, state.fret, spelling))}
          />
        </Field>
        <Field label="Fret">
          <Whole
            value={state.fret}
            min={0}
            max={neck.frets}
            onChange={(fret) => onState(withSpot(state, state.string, fret, spelling))}
          />
        </Field>
      </div>
      <p className="text-sm text-soft">
        The root sounds {pretty(midiName(pitchAt(neck, state.string, state.fret), spelling))}. Another spot
        makes its note the root.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => onState(stepRoot(state, -1))}>
          Root before
        </button>
        <button type="button" className="button" onClick={() => onState(stepRoot(state, 1))}>
          Next root
        </button>
        <button type="button" className="button" onClick={onPickOnNeck}>
          Pick on the neck
        </button>
      </div>
    </div>
  );
}
