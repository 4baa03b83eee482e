import { LAYOUTS, type LayoutKind, type LayoutSpec, rankLayouts, usualSpec } from '@crow-ladder/core';
import { useMemo, useState } from 'react';
import { type Change } from '../../../app/moves.ts';
import { Choice, Field, Whole } from '../../../ui/fields.tsx';
import { type Model } from '../model.ts';

interface LayoutPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
}

/** "3" or "3 3 2 3 3" as counts; null while it cannot be read. */
const countsOf = (text: string): readonly number[] | null => {
  const counts = text
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return counts.length <= 12 && counts.every((c) => Number.isInteger(c) && c >= 1 && c <= 6) ? counts : null;
};

function Options({ model, set }: { model: Model; set: (spec: LayoutSpec) => void }) {
  const { layout: spec } = model.state;
  const { degrees } = model;
  const strings = model.neck.open.length;
  const [typed, setTyped] = useState(spec.kind === 'count' ? spec.counts.join(' ') : '');
  switch (spec.kind) {
    case 'count':
      return (
        <Field
          label="Notes on each string"
          hint="One number for all strings, or one for each from the lowest."
          error={countsOf(typed) ? undefined : 'Write numbers from 1 to 6, such as 3 or 3 3 2 3 3.'}
        >
          <input
            className="input"
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value);
              const counts = countsOf(e.target.value);
              if (counts) set({ kind: 'count', counts });
            }}
          />
        </Field>
      );
    case 'reach':
      return (
        <Field label="Reach in frets" hint="3 is one finger per fret, 4 a stretch.">
          <Whole value={spec.reach} min={2} max={6} onChange={(reach) => set({ ...spec, reach })} />
        </Field>
      );
    case 'inPosition':
      return (
        <div className="flex flex-col gap-2">
          <Field label="A note out of reach goes to">
            <Choice
              value={spec.school}
              options={[
                { id: 'index', name: 'the index finger, one fret back' },
                { id: 'little', name: 'the little finger, one fret forward' },
              ]}
              onChange={(school) => set({ ...spec, school })}
            />
          </Field>
          <label className="flex gap-2 text-sm">
            <input
              type="checkbox"
              checked={spec.every}
              onChange={(e) => set({ ...spec, every: e.target.checked })}
            />{' '}
            Every fret, not only the positions worth learning
          </label>
        </div>
      );
    case 'single':
      return (
        <Field label="String">
          <Whole value={spec.string} min={1} max={strings} onChange={(string) => set({ ...spec, string })} />
        </Field>
      );
    case 'pair':
      return (
        <Field label="Lower string of the pair">
          <Whole value={spec.lower} min={1} max={strings} onChange={(lower) => set({ ...spec, lower })} />
        </Field>
      );
    case 'relay':
      return (
        <div className="flex gap-3">
          <Field label="Notes of a leg">
            <Whole value={spec.notes} min={1} max={72} onChange={(notes) => set({ ...spec, notes })} />
          </Field>
          <Field label="Notes per string">
            <Whole
              value={spec.perString}
              min={1}
              max={6}
              onChange={(perString) => set({ ...spec, perString })}
            />
          </Field>
        </div>
      );
    case 'skip':
      return (
        <div className="flex flex-col gap-2">
          <Field label="Notes on a string">
            <Whole
              value={spec.perString}
              min={2}
              max={5}
              onChange={(perString) => set({ ...spec, perString })}
            />
          </Field>
          <Field label="Begin on">
            <Choice
              value={String(spec.from)}
              options={[
                { id: '1', name: 'the second string from below' },
                { id: '0', name: 'the lowest string' },
              ]}
              onChange={(from) => set({ ...spec, from: from === '1' ? 1 : 0 })}
            />
          </Field>
          <fieldset>
            <legend className="text-sm font-semibold">Alter single notes by a half step</legend>
            <div className="flex flex-wrap gap-1">
              {degrees.map((name, degree) => {
                const by = spec.altered.find((a) => a.degree === degree)?.by ?? 0;
                const next = by === 0 ? -1 : by === -1 ? 1 : 0;
                const rest = spec.altered.filter((a) => a.degree !== degree);
                return (
                  <button
                    key={name}
                    type="button"
                    className="button"
                    aria-pressed={by !== 0}
                    onClick={() => set({ ...spec, altered: next ? [...rest, { degree, by: next }] : rest })}
                  >
                    {name} {by < 0 ? 'lowered' : by > 0 ? 'raised' : ''}
                  </button>
                );
              })}
            </div>
          </fieldset>
        </div>
      );
    case 'regions':
      return (
        <Field label="First fret of the high region">
          <Whole value={spec.boundary} min={3} max={15} onChange={(boundary) => set({ ...spec, boundary })} />
        </Field>
      );
    case 'diagonal':
    case 'fourths':
      return null;
  }
}

/** The layouts with their rules and options; the ones that suit the scale best are marked. */
export function LayoutPart({ model, onChange }: LayoutPartProps) {
  const { state, key, neck, scale } = model;
  const set = (layout: LayoutSpec): void => onChange((s) => ({ ...s, layout }));
  const pick = (kind: LayoutKind): void => set(usualSpec(kind, scale, state.string, neck.open.length));
  const ranked = useMemo(
    () => new Map(rankLayouts(neck, key).map((r, i) => [r.kind, { ...r, rank: i }])),
    [neck, key],
  );
  return (
    <div role="group" aria-label="Layouts" className="flex flex-col">
      {LAYOUTS.map(({ kind, name, rule }) => {
        const fit = ranked.get(kind)!;
        const chosen = state.layout.kind === kind;
        return (
          <div key={kind} className={`border-l-4 ${chosen ? 'border-accent' : 'border-transparent'}`}>
            <button
              type="button"
              aria-pressed={chosen}
              onClick={() => pick(kind)}
              className="w-full px-2 py-1.5 text-left hover:bg-seam aria-pressed:bg-seam"
            >
              <span className="font-semibold">{name}</span>
              {fit.rank < 3 && <span className="ml-2 text-sm text-soft">suits this scale</span>}
              <span className="block text-sm text-soft">{fit.strain === Infinity ? fit.why : rule}</span>
            </button>
            {chosen && (
              <div className="flex flex-col gap-2 px-2 py-2 empty:hidden">
                <Options model={model} set={set} />
                {!model.positions.ok && <p className="error">{model.positions.error.message}</p>}
              </div>
            )}
          </div>
        );
      })}
    </div>
  );
}
