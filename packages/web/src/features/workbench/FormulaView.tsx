import { type Settings } from '@crow-ladder/contract';
import {
  degreeName, finger, type Formula, type Move, spotsOf, type LayoutSpec, layOut, offsetsFromSteps, ownScale, parseFormula, pretty, rotate, scaleFromToggles, scalesWithOffsets,
  stepText, type Position,
} from '@crow-ladder/core'; // prettier-ignore
import { memo, useMemo, useState } from 'react';
import { type Change, withScale } from '../../app/moves.ts';
import { Field } from '../../ui/fields.tsx';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { type NeckMark } from '../../ui/neck/Mark.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { type Model } from './model.ts';

interface FormulaViewProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly look: NeckLook;
  readonly onChange: (change: Change) => void;
}

const TOGGLES = ['1', '♭2', '2', '♭3', '3', '4', '♭5', '5', '♭6', '6', '♭7', '7'];

const STAGES = [
  { id: 'single', name: 'on one string' },
  { id: 'pair', name: 'on two strings' },
  { id: 'inPosition', name: 'in position' },
] as const;
type Stage = (typeof STAGES)[number]['id'];

/** The run of one stage: from the start degree at the place nearest to the root spot. */
function runOf(model: Model, stage: Stage, start: number): Position | string {
  const { neck, key, state } = model;
  const string = Math.max(state.string, 2);
  const spec: LayoutSpec =
    stage === 'single'
      ? { kind: 'single', string: state.string }
      : stage === 'pair'
        ? { kind: 'pair', lower: string }
        : { kind: 'inPosition', school: 'index', every: true };
  const result = layOut(neck, key, spec);
  if (!result.ok) return result.error.message;
  const begins = result.value.filter((p) => stage === 'inPosition' || p.start === start);
  const far = (p: Position): number =>
    Math.abs((stage === 'inPosition' ? p.indexFret! : p.spots[0]!.fret) - state.fret);
  return (
    [...begins].sort((a, b) => far(a) - far(b))[0] ??
    'There is no room for an octave from this note; choose a lower fret.'
  );
}

/** One octave of a run with its order kept: in position only the octave from the start note is followed. */
function octaveOf(position: Position, start: number, count: number): Position['spots'] {
  const from = position.spots.findIndex((s) => s.degree === start);
  return position.spots.slice(Math.max(0, from), Math.max(0, from) + count);
}

/** The run played downward; on one string it goes on below the lower root to the open string. */
function downward(model: Model, stage: Stage, octave: Position['spots']): Position['spots'] {
  const first = octave[0];
  const below =
    stage === 'single' && first
      ? spotsOf({ ...model.neck, rising: [first.string] }, model.key).filter((s) => s.fret < first.fret)
      : [];
  return [...below, ...octave].reverse();
}

const MOVES: Readonly<Partial<Record<Move, string>>> = { slide: 'slide', shift: 'shift', closeUp: 'shift' };

/** From a formula to the neck in the order in which it is learned: one string, two strings, across all strings. */
export const FormulaView = memo(function FormulaView({ model, settings, look, onChange }: FormulaViewProps) {
  const { scale, state, notes, degrees } = model;
  const [typed, setTyped] = useState(stepText(scale));
  const [stage, setStage] = useState<Stage>('single');
  const [start, setStart] = useState(0);
  const [down, setDown] = useState(false);
  const read = useMemo(() => parseFormula(typed), [typed]);
  const from = Math.min(start, scale.degrees.length - 1);
  const run = useMemo(() => runOf(model, stage, from), [model, stage, from]);

  const layItOut = (formula: Formula): void => {
    const named = scalesWithOffsets(formula.offsets)[0];
    onChange((s) => withScale(s, named?.id ?? ownScale(formula.degrees).id));
  };
  const toggle = (offset: number): void => {
    const next = scaleFromToggles(
      scale.offsets.includes(offset) ? scale.offsets.filter((o) => o !== offset) : [...scale.offsets, offset],
    );
    if (!next.ok) return;
    setTyped(stepText(next.value));
    layItOut({ kind: 'degrees', degrees: next.value.degrees, offsets: next.value.offsets });
  };
  const mistake = !read.ok && read.error.code === 'formula.octave' ? typed : null;
  const octave = typeof run === 'string' ? [] : octaveOf(run, from, scale.degrees.length + 1);
  const order = down ? downward(model, stage, octave) : octave;
  const hand = useMemo(
    () => finger(model.neck, order, { school: settings.fingering, spanMm: settings.spanMm }),
    [model.neck, order, settings.fingering, settings.spanMm],
  );
  const marks = order.map((s, i): NeckMark => ({
    string: s.string,
    fret: s.fret,
    kind: s.degree === 0 ? 'root' : 'note',
    label: degrees[s.degree]!,
    name: () =>
      `${i + 1}: string ${s.string} fret ${s.fret}, ${notes[s.degree]}, degree ${degrees[s.degree]}`,
  }));
  // Where the notes lay on one string stays visible while they travel to others.
  const held = new Set(marks.map((m) => `${m.string}/${m.fret}`));
  for (const s of octave) {
    const fret = s.midi - model.neck.open[state.string - 1]!;
    if (fret >= 0 && fret <= model.neck.frets && !held.has(`${state.string}/${fret}`))
      marks.push({
        string: state.string,
        fret,
        kind: s.degree === 0 ? 'outsideRoot' : 'outside',
        label: degrees[s.degree]!,
        name: () => `String ${state.string} fret ${fret}, moved over`,
      });
  }
  const mode = rotate(scale.offsets, from);
  const modeName = scalesWithOffsets(mode)[0];
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-x-8 gap-y-3 lg:grid-cols-2">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (read.ok) layItOut(read.value);
          }}
        >
          <Field
            label="Formula: steps, degrees or notes"
            error={read.ok ? undefined : pretty(read.error.message)}
            hint={
              read.ok
                ? `Read as ${read.value.degrees.map((d) => pretty(degreeName(d))).join(' ')}${scalesWithOffsets(read.value.offsets)[0] ? `, ${scalesWithOffsets(read.value.offsets)[0]!.name}` : ''}.`
                : undefined
            }
          >
            <input
              className="input"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
              spellCheck={false}
            />
          </Field>
          <button type="submit" className="button mt-2" disabled={!read.ok}>
            Lay it out
          </button>
        </form>
        {mistake && <Miscount steps={mistake} model={model} />}
        <fieldset>
          <legend className="mb-1 text-sm font-semibold">Or toggle its degrees</legend>
          <div className="grid grid-cols-6 gap-1">
            {TOGGLES.map((name, offset) => (
              <button
                key={name}
                type="button"
                className="button justify-center !px-1"
                aria-pressed={scale.offsets.includes(offset)}
                disabled={offset === 0}
                onClick={() => toggle(offset)}
              >
                {scale.offsets.includes(offset) ? degrees[scale.offsets.indexOf(offset)] : name}
              </button>
            ))}
          </div>
        </fieldset>
        <p className="text-sm text-soft">
          {scale.degrees.length} notes. {stepText(scale)}.
        </p>
      </div>
      <div>
        <div className="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="Where it is laid out">
          {STAGES.map((s) => (
            <button
              key={s.id}
              type="button"
              className="button"
              aria-pressed={stage === s.id}
              onClick={() => setStage(s.id)}
            >
              {s.name}
            </button>
          ))}
          <button type="button" className="button" aria-pressed={down} onClick={() => setDown(!down)}>
            Descending
          </button>
          <label className="button">
            Start on
            <select
              className="bg-transparent"
              value={from}
              onChange={(e) => setStart(Number(e.target.value))}
            >
              {degrees.map((d, i) => (
                <option key={d} value={i}>
                  {d}
                </option>
              ))}
            </select>
          </label>
        </div>
        {typeof run === 'string' ? (
          <p className="error">{run}</p>
        ) : (
          <>
            <Neck
              instrument={state.instrument}
              look={look}
              marks={marks}
              name={`${pretty(state.root)} ${scale.name} ${STAGES.find((s) => s.id === stage)!.name}`}
            />
            <ol
              className="mt-2 flex flex-wrap items-baseline gap-x-1 gap-y-1"
              aria-label="The run, note by note"
            >
              {order.map((s, i) => {
                const next = order[i + 1];
                const step = next ? Math.abs(next.midi - s.midi) : 0;
                const moved = next ? (MOVES[hand.notes[i + 1]!.move] ?? '') : '';
                return (
                  <li key={i} className="flex items-baseline gap-1">
                    <span className="font-semibold">
                      {notes[s.degree]}{' '}
                      <span className="text-sm font-normal text-soft">{`string ${s.string} fret ${s.fret}, ${hand.notes[i]!.finger ? `finger ${hand.notes[i]!.finger}` : 'open'}`}</span>
                    </span>
                    {next && (
                      <span className="text-sm text-soft">{`→ ${step === 1 ? 'H' : step === 2 ? 'W' : `${step} frets`}${moved && `, ${moved}`} →`}</span>
                    )}
                  </li>
                );
              })}
            </ol>
            <p className="mt-1 text-sm text-soft">
              {from > 0 && modeName
                ? `Begun on ${degrees[from]} these notes are ${notes[from]} ${modeName.name}. `
                : ''}
              {stage !== 'single' && <Travels model={model} octave={octave} />}
            </p>
          </>
        )}
      </div>
    </div>
  );
});

/** Where the notes of the one-string run have gone: "fret 9 of string 6 is fret 4 of string 5". */
function Travels({ model, octave }: { model: Model; octave: Position['spots'] }) {
  const { state, neck } = model;
  const open = neck.open[state.string - 1]!;
  const gone = octave.filter(
    (s) => s.string !== state.string && s.midi - open >= 0 && s.midi - open <= neck.frets,
  );
  if (!gone.length) return null;
  const said = gone
    .slice(0, 4)
    .map((s) => `fret ${s.midi - open} of string ${state.string} is fret ${s.fret} of string ${s.string}`);
  return <>{`The same notes have moved over: ${said.join(', ')}.`}</>;
}

/** Steps that miss the octave, laid out from the root so that the wrong landing shows. */
function Miscount({ steps, model }: { steps: string; model: Model }) {
  const halfSteps = steps
    .toUpperCase()
    .split(/[\s,]+/)
    .map((t) => ({ W: 2, T: 2, H: 1, S: 1, 'W+H': 3, WH: 3 })[t] ?? Number(t));
  const { state } = model;
  const frets = halfSteps.reduce<number[]>((so, step) => [...so, so.at(-1)! + step], [state.fret]);
  const landed = offsetsFromSteps(halfSteps);
  if (landed.ok || frets.some(Number.isNaN)) return null;
  return (
    <p className="text-sm">
      From fret {state.fret} of string {state.string} these steps go {frets.join(' ')}; the octave is fret{' '}
      {state.fret + 12}, and they land on {frets.at(-1)}.
    </p>
  );
}
