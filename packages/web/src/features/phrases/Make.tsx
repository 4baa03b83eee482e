import { PHRASE_KEPT } from '@crow-ladder/contract';
import { pitchAt, plural, pretty, type Result } from '@crow-ladder/core';
import {
  degreeSaid,
  lengthSaid,
  notesOn,
  type PhraseNote,
  readLine,
  type Tune,
  tuneOf,
  VALUES,
  ticksIn,
  type ValueId,
} from '@crow-ladder/core/phrases';
import { useState } from 'react';
import { freeName, inChart, placeInFront, withPhrase } from '../../model/phrases.ts';
import { USUAL_BEATS } from '../../model/progression.ts';
import { type Model } from '../../model/model.ts';
import { useFiles } from '../../files/asked.ts';
import { type PanelProps } from '../../task/task.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { Popup } from '../../ui/Popup.tsx';
import { Collection } from './Collection.tsx';
import { AT_FIRST, type PhraseParams } from './params.ts';
import { TakeDown } from './TakeDown.tsx';

/** How a phrase is begun. */
const FROM = [
  { id: 'neck', name: 'on the neck, note by note' },
  { id: 'line', name: 'a line of degrees' },
  { id: 'played', name: 'what I play, as it is heard' },
  { id: 'kept', name: 'one that is kept, of any chart' },
] as const;
type From = (typeof FROM)[number]['id'];
interface Begun {
  readonly notes: readonly PhraseNote[];
  readonly remarks: readonly string[];
}

/** A line as notes of the chart: in the position in front where that holds it, else where it is easiest. */
function placed(model: Model, tune: Tune): Result<Begun> {
  const way = placeInFront(model, tune);
  if (!way)
    return {
      ok: false,
      error: {
        code: 'line.room',
        message: 'None of these notes lies on this neck: write them higher or lower.',
      },
    };
  const off = way.told.filter(({ kind }) => kind === 'off').length;
  return {
    ok: true,
    value: {
      notes: notesOn(tune, way),
      remarks: off ? [`${plural(off, 'note')} lie off this neck: rests stand for them.`] : [],
    },
  };
}

/** What was typed as notes of the chart. */
function begun(model: Model, from: From, text: string, length: number): Result<Begun> {
  if (from !== 'line') return { ok: true, value: { notes: [], remarks: [] } };
  const lowest = model.front?.position.spots.find(({ degree }) => degree === 0)?.midi;
  const near = lowest ?? pitchAt(model.neck, model.state.at.string, model.state.at.fret);
  const tune = readLine(text, model.key, near, length);
  return tune.ok ? placed(model, tune.value) : tune;
}

/** What was read, before it is taken: its degrees. */
const readSaid = (model: Model, notes: readonly PhraseNote[]): string =>
  tuneOf(notes, model.neck.open)
    .map(({ midi }) => (midi === null ? 'rest' : pretty(degreeSaid(model.key, midi))))
    .join(' ');

/** A new phrase: named, and begun on the neck, from what is typed, which is shown before it is taken, or from a file. */
export function Make({ strong = false, ...props }: PanelProps<PhraseParams> & { readonly strong?: boolean }) {
  const { model, params, onChange, onParams } = props;
  const files = useFiles();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [from, setFrom] = useState<From>('neck');
  const [text, setText] = useState('');
  const [value, setValue] = useState<ValueId>('eighth');
  const length = ticksIn({ value, as: 'plain' });
  const read = open ? begun(model, from, text, length) : null;
  const make = (of: Result<Begun> | null, tempo: number): void => {
    if (!of?.ok) return;
    const { notes } = of.value;
    const called = freeName(model.state, name.trim() || 'Phrase');
    const made = inChart(model, { name: called, tags: [], beats: USUAL_BEATS, notes });
    onChange((s) => withPhrase(s, null, made));
    onParams({ ...AT_FIRST, tempo, length, phrase: called, cursor: notes.length - 1 });
    setOpen(false);
    setName('');
    setText('');
  };
  const typed = from === 'line' && text.trim() !== '';
  return (
    <Popup
      name="New phrase"
      buttonClass={strong ? 'button button-strong' : 'button'}
      panelClass="flex w-[min(34rem,calc(100vw-20px))] flex-col gap-3 p-3 max-h-[min(75vh,var(--radix-popover-content-available-height))] overflow-auto"
      open={open}
      onOpenChange={setOpen}
      body={
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (from !== 'played') make(read, params.tempo);
          }}
        >
          {from !== 'kept' && from !== 'played' && (
            <Field label="Name of the phrase">
              <input
                className="input"
                value={name}
                maxLength={PHRASE_KEPT.name}
                placeholder={freeName(model.state, 'Phrase')}
                onChange={(e) => setName(e.target.value)}
              />
            </Field>
          )}
          <Field label="Begin with">
            <Choice value={from} options={FROM} onChange={setFrom} />
          </Field>
          {from === 'line' && (
            <>
              <Field
                label="Degrees"
                error={typed && read && !read.ok ? read.error.message : undefined}
                hint="Such as 1 ♭3 4 ♭5:8t 4 ♭3 1. r is a rest, :8 a length, ’ and , an octave up and down."
              >
                <textarea
                  className="input min-h-20"
                  value={text}
                  spellCheck={false}
                  onChange={(e) => setText(e.target.value)}
                />
              </Field>
              <Field label="Length of a note">
                <Choice
                  value={value}
                  options={VALUES.map(({ id, name: called }) => ({ id, name: called }))}
                  onChange={setValue}
                />
              </Field>
              {typed && read?.ok && (
                <div role="status" className="flex flex-col gap-1">
                  <p>
                    {`${plural(read.value.notes.length, 'note')} of ${lengthSaid(length)} length: `}
                    <span className="font-semibold">{readSaid(model, read.value.notes)}</span>
                  </p>
                  {read.value.remarks.map((it) => (
                    <p key={it} className="text-sm">
                      {it}
                    </p>
                  ))}
                </div>
              )}
            </>
          )}
          {from === 'played' ? (
            <TakeDown
              model={model}
              tempo={params.tempo}
              onTake={(tune, tempo) => make(placed(model, tune), tempo)}
            />
          ) : from === 'kept' ? (
            <Collection {...props} onDone={() => setOpen(false)} />
          ) : (
            <div className="flex flex-wrap gap-2">
              <button
                type="submit"
                className="button button-strong"
                disabled={from !== 'neck' && !(typed && read?.ok)}
              >
                {from === 'neck' ? 'Begin' : 'Take it'}
              </button>
              <button
                type="button"
                className="button"
                onClick={() => {
                  setOpen(false);
                  files.open();
                }}
              >
                Open a file, or paste tablature
              </button>
            </div>
          )}
        </form>
      }
    >
      New phrase
    </Popup>
  );
}
