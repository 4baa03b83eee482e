import { midiOf, pitchAt, pretty } from '@crow-ladder/core';
import { useSettings } from '../../app/settings.ts';
import { type Model } from '../../model/model.ts';
import { type Change, stepRoot, withSpot } from '../../model/moves.ts';
import { Field, Whole } from '../../ui/fields.tsx';

interface SpotPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
  readonly onPickOnNeck: () => void;
}

/** The root's pitch, by the root's own name. */
function rootPitch({ state, neck, key }: Model): string {
  const midi = pitchAt(neck, state.at.string, state.at.fret);
  const octave = Math.round((midi - midiOf(key.root, 0)) / 12);
  return `${pretty(state.key.root)}${octave}`;
}

/** String and fret of the root: typed, stepped through, or picked on the neck. */
export function SpotPart({ model, onChange, onPickOnNeck }: SpotPartProps) {
  const { state, neck } = model;
  const [{ spelling }] = useSettings();
  return (
    <div className="flex flex-col gap-3">
      <div className="flex gap-3">
        <Field label="String">
          <Whole
            value={state.at.string}
            min={1}
            max={neck.open.length}
            onChange={(string) => onChange((s) => withSpot(s, { ...s.at, string }, spelling))}
          />
        </Field>
        <Field label="Fret">
          <Whole
            value={state.at.fret}
            min={0}
            max={neck.frets}
            onChange={(fret) => onChange((s) => withSpot(s, { ...s.at, fret }, spelling))}
          />
        </Field>
      </div>
      <p className="text-sm text-soft">
        The root sounds {rootPitch(model)}. Another spot makes its note the root.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button" onClick={() => onChange((s) => stepRoot(s, -1))}>
          Root before
        </button>
        <button type="button" className="button" onClick={() => onChange((s) => stepRoot(s, 1))}>
          Next root
        </button>
        <button type="button" className="button" onClick={onPickOnNeck}>
          Pick on the neck
        </button>
      </div>
    </div>
  );
}
