import { PHRASE_KEPT } from '@crow-ladder/contract';
import { pitchAt, plural, pretty, type Result } from '@crow-ladder/core';
import {
  degreeSaid,
  lengthSaid,
  notesOn,
  type PhraseNote,
  placesOfPhrase,
  readLine,
  tuneOf,
  VALUES,
  ticksIn,
  type ValueId,
} from '@crow-ladder/core/phrases';
import { useState } from 'react';
import { groundOf, freeName, inChart, withPhrase } from '../../model/phrases.ts';
import { USUAL_BEATS } from '../../model/progression.ts';
import { type Model } from '../../model/model.ts';
import { useFiles } from '../../files/asked.ts';
import { type PanelProps } from '../../task/task.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { Popup } from '../../ui/Popup.tsx';
import { Collection } from './Collection.tsx';
import { AT_FIRST, type PhraseParams } from './params.ts';

/** How a phrase is begun. */
const FROM = [
  { id: 'neck', name: 'on the neck, note by note' },
  { id: 'line', name: 'a line of degrees' },
  { id: 'kept', name: 'one that is kept, of any chart' },
] as const;
type From = (typeof FROM)[number]['id'];
interface Begun {
  readonly notes: readonly PhraseNote[];
  readonly remarks: readonly string[];
}

/** What was typed as notes of the chart; a line is put into the position in front where that holds it, else where it is easiest. */
function begun(model: Model, from: From, text: string, length: number): Result<Begun> {
  if (from !== 'line') return { ok: true, value: { notes: [], remarks: [] } };
  const { position } = model.front ?? {};
  const lowest = position?.spots.find(({ degree }) => degree === 0)?.midi;
  const near = lowest ?? pitchAt(model.neck, model.state.at.string, model.state.at.fret);
  const tune = readLine(text, model.key, near, length);
  if (!tune.ok) return tune;
  const ground = groundOf(model);
  const [inFront] = position
    ? placesOfPhrase(ground, tune.value, { frets: [position.lowFret, position.highFret] }, 1)
    : [];
  const way = inFront ?? placesOfPhrase(ground, tune.value, {}, 1)[0];
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
      notes: notesOn(tune.value, way),
      remarks: off ? [`${plural(off, 'note')} lie off this neck: rests stand for them.`] : [],
    },
  };
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
  const make = (): void => {
    if (!read?.ok) return;
    const called = freeName(model.state, name.trim() || 'Phrase');
    const made = inChart(model, { name: called, tags: [], beats: USUAL_BEATS, notes: read.value.notes });
    onChange((s) => withPhrase(s, null, made));
    onParams({
      ...AT_FIRST,
      tempo: params.tempo,
      length,
      phrase: called,
      cursor: read.value.notes.length - 1,
    });
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
            make();
          }}
        >
          {from !== 'kept' && (
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
          {from === 'kept' ? (
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
