import {
  degreeName,
  type Formula,
  nearestFret,
  ownScale,
  parseFormula,
  pitchClass,
  pretty,
  rotate,
  scaleFromToggles,
  scalesWithOffsets,
  stepName,
  spotSaid,
} from '@crow-ladder/core';
import { moveTo, tablature } from '@crow-ladder/core/run';
import { memo, useMemo, useState } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { type Model, played } from '../../model/model.ts';
import { withScale } from '../../model/moves.ts';
import { FINGERS, moveWord } from '../../model/wording.ts';
import { Explained } from '../../ui/Explained.tsx';
import { Field } from '../../ui/fields.tsx';
import { DIRECTIONS } from '../../ui/labels.ts';
import { Picked } from '../../ui/Picked.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { Word } from '../../ui/Word.tsx';
import { counted, formulaOf, type LaidOut, laidOut, miscounted } from './laidOut.ts';
import { type FormulaParams, STAGES } from './params.ts';

const TOGGLES = ['1', '♭2', '2', '♭3', '3', '4', '♭5', '5', '♭6', '6', '♭7', '7'];

/** A formula typed or toggled, and where it is laid out; the neck above shows it. */
export const Panel = memo(function Panel({ model, params, onParams, onChange }: PanelProps<FormulaParams>) {
  const { scale, notes, degrees } = model;
  const [open, setOpen] = useState(false);
  const text = formulaOf(model, params);
  const read = useMemo(() => parseFormula(text), [text]);
  const miscount = miscounted(model, params);
  const named = read.ok ? scalesWithOffsets(read.value.offsets)[0] : undefined;
  const laid = useMemo(() => laidOut(model, params), [model, params]);
  const start = Math.min(params.start, scale.degrees.length - 1);
  const mode = scalesWithOffsets(rotate(scale.offsets, start))[0];

  const type = (next: string): void =>
    onParams({ ...params, stage: 'single', typed: { text: next, scale: scale.id } });
  const layItOut = (formula: Pick<Formula, 'degrees' | 'offsets'>): void => {
    const { id } = scalesWithOffsets(formula.offsets)[0] ?? ownScale(formula.degrees);
    onChange((s) => withScale(s, id));
  };
  const toggle = (offset: number): void => {
    const { offsets } = scale;
    const next = scaleFromToggles(
      offsets.includes(offset) ? offsets.filter((o) => o !== offset) : [...offsets, offset],
    );
    if (next.ok) layItOut(next.value);
  };
  const formula = (
    <div className="flex flex-col gap-4">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!read.ok) return;
          layItOut(read.value);
          setOpen(false);
        }}
      >
        <Field
          label="Formula: steps, degrees or notes"
          error={read.ok ? undefined : pretty(read.error.message)}
          hint={
            read.ok
              ? `Read as ${read.value.degrees.map((d) => pretty(degreeName(d))).join(' ')}${named ? `, ${pretty(named.name)}` : ''}.`
              : undefined
          }
        >
          <input className="input" value={text} onChange={(e) => type(e.target.value)} spellCheck={false} />
        </Field>
        <div className="mt-2 flex items-center justify-between">
          <button type="submit" className="button" disabled={!read.ok}>
            Lay it out
          </button>
          <span className="text-sm">
            <Explained term="steps">W and H</Explained>
          </span>
        </div>
      </form>
      <div role="group" aria-label="Degrees">
        <p className="mb-1 text-sm font-semibold">Or turn its degrees on and off</p>
        <div className="grid grid-cols-4 gap-1">
          {TOGGLES.map((name, offset) =>
            offset === 0 ? null : (
              <Switch key={name} on={scale.offsets.includes(offset)} onChange={() => toggle(offset)}>
                {scale.offsets.includes(offset) ? degrees[scale.offsets.indexOf(offset)] : name}
              </Switch>
            ),
          )}
        </div>
      </div>
    </div>
  );
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence>
        Lay out{' '}
        <Word name="Formula" weight="first" open={open} onOpenChange={setOpen} body={formula}>
          {text}
        </Word>{' '}
        <Picked
          name="Where it is laid out"
          then=","
          value={params.stage}
          options={STAGES}
          onPick={(stage) => onParams({ ...params, stage })}
        />{' '}
        <Picked
          name="Direction"
          then=", from"
          value={params.down ? 'down' : 'up'}
          options={DIRECTIONS}
          onPick={(to) => onParams({ ...params, down: to === 'down' })}
        />{' '}
        <Picked
          name="Start on"
          then="."
          value={String(start)}
          options={degrees.map((name, i) => ({ id: String(i), name }))}
          onPick={(id) => onParams({ ...params, start: Number(id) })}
        />
      </TaskSentence>
      {!read.ok && <p className="error">{pretty(read.error.message)}</p>}
      {miscount && <Miscount model={model} steps={miscount} />}
      {laid.problem ? (
        <NoRoom model={model} laid={laid} onChange={onChange} />
      ) : (
        !miscount && (
          <>
            <Notes model={model} laid={laid} />
            {start > 0 && mode && (
              <p className="text-sm">
                Begun on {degrees[start]} these notes are {notes[start]} {pretty(mode.name)}.
              </p>
            )}
            <Moved laid={laid} />
            <Tablature
              name="Tablature of the run"
              text={tablature(played(laid.fingering), model.neck, { accidentals: model.accidentals })}
            />
          </>
        )
      )}
    </div>
  );
});

/** The run in words, a line for each stay of the hand, with the steps between the notes. */
function Notes({ model: { notes }, laid: { fingering } }: { model: Model; laid: LaidOut }) {
  const { steps } = fingering;
  return (
    <ol className="flex flex-wrap gap-y-2" aria-label="The run, note by note">
      {steps.map(({ spot: s, finger }, i) => {
        const next = steps[i + 1]?.spot;
        const moved = next ? moveWord(moveTo(steps, i + 1)) : '';
        return (
          <li key={i} className="flex items-start">
            <span className="flex flex-col leading-tight">
              <span className="h-4 w-0 text-xs whitespace-nowrap text-soft" aria-hidden>
                {s.string === steps[i - 1]?.spot.string ? '' : `string ${s.string}`}
              </span>
              <span className="font-semibold">{notes[s.degree]}</span>
              <span className="text-xs text-soft">
                <span className="sr-only">{spotSaid(s)}, </span>
                <span aria-hidden>{s.fret}</span>
                <span className="sr-only">{FINGERS[finger]}</span>
              </span>
            </span>
            {next && (
              <span className={`px-2 pt-4 text-sm ${moved ? 'font-semibold' : 'text-soft'}`}>
                {stepName(Math.abs(next.midi - s.midi))}
                {moved && ` ${moved}`}
              </span>
            )}
          </li>
        );
      })}
    </ol>
  );
}

/** Where the notes of the one-string run have gone: "fret 9 of string 6 is fret 4 of string 5". */
function Moved({ laid: { moved } }: { laid: LaidOut }) {
  if (!moved.length) return null;
  return (
    <div className="text-sm">
      <p className="font-semibold text-soft">The same notes, moved over</p>
      <ul className="columns-2 gap-x-6">
        {moved.map(({ from, to }) => (
          <li key={from.fret}>
            fret {from.fret} of string {from.string} is fret {to.fret} of string {to.string}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Why there is no run, and the nearest place of the root from which there is one. */
function NoRoom({
  model,
  laid,
  onChange,
}: Pick<PanelProps<FormulaParams>, 'model' | 'onChange'> & { laid: LaidOut }) {
  const { state, neck } = model;
  const roomy = neck.rising
    .filter((string) => string !== state.at.string)
    .map((string) => ({ string, fret: nearestFret(neck, string, pitchClass(model.key.root), 0) }))
    .filter(({ fret }) => fret + 12 <= neck.frets)
    .sort((a, b) => Math.abs(a.string - state.at.string) - Math.abs(b.string - state.at.string))[0];
  return (
    <div className="flex flex-wrap items-center gap-2">
      <p className="error">{laid.problem}</p>
      {roomy && (
        <button
          type="button"
          className="button"
          onClick={() => onChange((s) => ({ ...s, at: roomy, front: null }))}
        >
          Put the root on {spotSaid(roomy)}
        </button>
      )}
    </div>
  );
}

/** Where typed steps land that miss the octave. */
function Miscount({ model, steps }: { model: Model; steps: readonly number[] }) {
  const { state } = model;
  const frets = counted(model, steps);
  return (
    <p className="mt-1 text-sm">
      From fret {state.at.fret} of string {state.at.string} these steps go {frets.join(' ')}; the octave is
      fret {state.at.fret + 12}, and they land on {frets.at(-1)}.
    </p>
  );
}
