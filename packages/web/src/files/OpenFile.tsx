import { PHRASE_KEPT } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { ticksIn, VALUES, type ValueId } from '@crow-ladder/core/phrases';
import { type Choice as Taking, type Untimed } from '@crow-ladder/formats';
import { CHORD_WAYS, FORMAT_KINDS, NAMED } from '@crow-ladder/formats/named';
import { useMemo, useState } from 'react';
import { type Change } from '../model/moves.ts';
import { type Model } from '../model/model.ts';
import { freeName, groundOf, inChart, withPhrase } from '../model/phrases.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { Choice, Field, Whole } from '../ui/fields.tsx';
import { type Line, type Summary } from '../workers/opened.ts';
import { type Given } from '../workers/opened.ts';
import { givenBy, givenText } from './given.ts';
import { isChartFile, OpenedChart } from './OpenedChart.tsx';
import { type Stand, useOpened } from './useOpened.ts';

interface OpenFileProps {
  readonly model: Model;
  /** The file that was dropped or pasted; null where one is still to be chosen. */
  readonly first: Given | null;
  readonly onChange: (change: Change) => void;
  /** Told the name of the phrase that was made. */
  readonly onTaken: (phrase: string) => void;
  readonly onClose: () => void;
}

const ACCEPT = [
  ...FORMAT_KINDS.flatMap((kind) => NAMED[kind].extensions.map((it) => `.${it}`)),
  '.json',
].join();
const SPACED = [
  { id: 'even', name: 'all as long' },
  { id: 'spaced', name: 'as far apart as they stand' },
] as const;

/** What may be asked of a file before it is taken. */
interface Asked {
  readonly line: number;
  readonly bars: readonly [number, number] | null;
  readonly chords: Taking['chords'];
  readonly name: string | null;
  readonly value: ValueId;
  readonly spaced: (typeof SPACED)[number]['id'];
}
const AT_FIRST: Asked = { line: 0, bars: null, chords: 'top', name: null, value: 'eighth', spaced: 'even' };

/** A file is read, what is in it shown, and a line of it taken as a phrase of the chart. */
export function OpenFile({ model, first, onChange, onTaken, onClose }: OpenFileProps) {
  const [given, setGiven] = useState(first);
  const [text, setText] = useState('');
  const [asked, setAsked] = useState(AT_FIRST);
  const ask = (part: Partial<Asked>): void => setAsked((it) => ({ ...it, ...part }));
  const give = (it: Given): void => {
    setAsked((was) => ({ ...AT_FIRST, value: was.value, spaced: was.spaced }));
    setGiven(it);
  };
  const length = ticksIn({ value: asked.value, as: 'plain' });
  const untimed = useMemo<Untimed>(
    () => ({ length, spaced: asked.spaced === 'spaced' }),
    [length, asked.spaced],
  );
  const [found, setFound] = useState<Summary | null>(null);
  const line = found?.lines[asked.line] ?? null;
  const bars = asked.bars ?? (line ? ([1, line.fits] as const) : null);
  const choice: Taking | null = line &&
    bars && { part: line.part, voice: line.voice, bars, chords: asked.chords };
  const chart = given && isChartFile(given) ? given : null;
  const { summary, taken } = useOpened(
    chart ? null : given,
    untimed,
    choice,
    groundOf(model),
    model.accidentals,
  );
  const read = summary.is === 'done' && summary.answer.ok ? summary.answer.value : null;
  if (read && read !== found) setFound(read);
  if (!read && found && summary.is !== 'working') setFound(null);
  const here = taken.is === 'done' && taken.answer.ok ? taken.answer.value : null;
  const usual = freeName(model.state, line?.title || line?.name || 'Phrase');
  const name = asked.name ?? usual;
  const isTaken = name.trim() !== '' && freeName(model.state, name.trim()) !== name.trim();
  const take = (): void => {
    if (!here) return;
    const called = freeName(model.state, name.trim() || usual);
    onChange((s) =>
      withPhrase(s, null, inChart(model, { name: called, tags: [], beats: here.beats, notes: here.notes })),
    );
    onTaken(called);
  };
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Open a file"
      text="A line of music becomes a phrase of this chart. Tablature as text, MusicXML, MIDI and ABC notation can be read, and a chart that was saved as JSON."
    >
      <div className="flex flex-col gap-4">
        <Field label="File" hint="It can also be dropped anywhere on the page.">
          <input
            type="file"
            className="input"
            accept={ACCEPT}
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void givenBy(file).then(give);
            }}
          />
        </Field>
        {(!given || text !== '') && (
          <Field
            label="Or paste text"
            hint="Tablature: a line for each string, the highest on top. h p slurs, / \ slides, b bends, r releases, ~ vibrato."
          >
            <textarea
              className="input min-h-36 font-mono text-sm whitespace-pre"
              spellCheck={false}
              value={text}
              onChange={(e) => {
                setText(e.target.value);
                if (e.target.value.trim()) give(givenText(e.target.value));
                else setGiven(null);
              }}
            />
          </Field>
        )}
        {chart && <OpenedChart given={chart} onClose={onClose} />}
        {given && !chart && (
          <form
            className="flex flex-col gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              take();
            }}
          >
            <Told stand={summary} what="the file" onCancel={() => setGiven(null)} />
            {found && line && bars && (
              <>
                <Found summary={found} line={line} />
                <div className="grid grid-cols-2 gap-3 max-[500px]:grid-cols-1">
                  {found.lines.length > 1 && (
                    <Field label="Take">
                      <Choice
                        value={String(asked.line)}
                        options={found.lines.map((it, i) => ({
                          id: String(i),
                          name: `${it.name}: ${plural(it.notes, 'note')}, ${it.range}`,
                        }))}
                        onChange={(id) => ask({ line: Number(id), bars: null, name: null })}
                      />
                    </Field>
                  )}
                  {line.bars > 1 && (
                    <>
                      <Field label="From bar">
                        <Whole
                          value={bars[0]}
                          min={1}
                          max={bars[1]}
                          onChange={(n) => ask({ bars: [n, bars[1]] })}
                        />
                      </Field>
                      <Field label="To bar">
                        <Whole
                          value={bars[1]}
                          min={bars[0]}
                          max={line.bars}
                          onChange={(n) => ask({ bars: [bars[0], n] })}
                        />
                      </Field>
                    </>
                  )}
                  {line.chords > 0 && (
                    <Field label="Where notes sound together">
                      <Choice
                        value={asked.chords}
                        options={CHORD_WAYS}
                        onChange={(chords) => ask({ chords })}
                      />
                    </Field>
                  )}
                  {!found.timed && (
                    <>
                      <Field label="Length of a note">
                        <Choice
                          value={asked.value}
                          options={VALUES.map(({ id, name: called }) => ({ id, name: called }))}
                          onChange={(value) => ask({ value })}
                        />
                      </Field>
                      <Field label="Its notes are">
                        <Choice
                          value={asked.spaced}
                          options={SPACED}
                          onChange={(spaced) => ask({ spaced })}
                        />
                      </Field>
                    </>
                  )}
                  <Field
                    label="Name of the phrase"
                    error={
                      isTaken
                        ? 'A phrase of this chart has this name already: a number is put after it.'
                        : undefined
                    }
                  >
                    <input
                      className="input"
                      value={name}
                      maxLength={PHRASE_KEPT.name}
                      onChange={(e) => ask({ name: e.target.value })}
                    />
                  </Field>
                </div>
                <Told stand={taken} what="the fingers" onCancel={onClose} />
                {here && (
                  <div role="status" className="flex flex-col gap-1">
                    <p>{`${plural(here.notes.filter(({ at }) => at).length, 'note')} will be taken, in bars of ${here.beats}/4${here.degrees === null ? '' : `: ${here.degrees}`}.`}</p>
                    <Sentences all={here.said} />
                    <pre
                      tabIndex={0}
                      role="region"
                      aria-label="What will be taken, as tablature"
                      className="max-h-56 overflow-auto border-l-4 border-hair py-1 pl-3 font-mono text-sm leading-tight"
                    >
                      {here.tab}
                    </pre>
                  </div>
                )}
                <button type="submit" className="button button-strong self-start" disabled={!here}>
                  Take it
                </button>
              </>
            )}
          </form>
        )}
      </div>
    </Dialog>
  );
}

/** How far work is, with what calls it off; and why it came to nothing. */
function Told({
  stand,
  what,
  onCancel,
}: {
  readonly stand: Stand<unknown>;
  readonly what: string;
  readonly onCancel: () => void;
}) {
  if (stand.is === 'working')
    return (
      <div role="status" className="flex flex-wrap items-center gap-3">
        <span>{`Working on ${what}…`}</span>
        <progress value={stand.done > 1 ? undefined : stand.done} max={1} aria-label={`Work on ${what}`} />
        <button type="button" className="button" onClick={onCancel}>
          Call it off
        </button>
      </div>
    );
  if (stand.is === 'failed')
    return (
      <p role="alert" className="error">
        This could not be done. Choose the file again; if it happens again, save a part of it.
      </p>
    );
  if (stand.is === 'done' && !stand.answer.ok)
    return (
      <p role="alert" className="error">
        {stand.answer.error.message}
      </p>
    );
  return null;
}

/** What was found, in sentences. */
function Found({ summary, line }: { readonly summary: Summary; readonly line: Line }) {
  const { format, lines, remarks, timed } = summary;
  const facts = [
    line.key,
    line.metre,
    line.tempo ? `${line.tempo} quarter notes a minute` : null,
    line.tuning ? `strings ${line.tuning}` : null,
    plural(line.bars, 'bar'),
    plural(line.notes, 'note'),
    line.range,
  ].filter(Boolean);
  return (
    <div role="status" className="flex flex-col gap-1">
      <p>
        <span className="font-semibold">{line.title ?? 'No title'}</span>
        {`, ${format}${lines.length > 1 ? `, ${plural(lines.length, 'line')} of music` : ''}: ${facts.join(', ')}.`}
        {!timed && ' It tells the order of its notes, not their times.'}
      </p>
      <Sentences all={remarks} />
    </div>
  );
}
const MOST = 4;
/** Sentences; many of them open on demand. */
function Sentences({ all }: { readonly all: readonly string[] }) {
  const list = (some: readonly string[]) => (
    <ul className="text-sm">
      {some.map((it) => (
        <li key={it}>{it}</li>
      ))}
    </ul>
  );
  return (
    <>
      {list(all.slice(0, MOST))}
      {all.length > MOST && (
        <details>
          <summary className="text-sm font-semibold">{`${all.length - MOST} more`}</summary>
          {list(all.slice(MOST))}
        </details>
      )}
    </>
  );
}
