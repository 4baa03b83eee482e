import { capital, list, pretty } from '@crow-ladder/core';
import {
  degreeSaid,
  type Joined,
  lengthAs,
  lengthOf,
  lengthSaid,
  type PhraseNote,
  startsOf,
  toldSaid,
  VALUES,
} from '@crow-ladder/core/phrases';
import { BEND, bendSign, heldSaid, QUARTER } from '@crow-ladder/core/run';
import { type KeyboardEvent, type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import { modelOf } from '../../model/model.ts';
import { fingeringOf, type PhraseHere } from '../../model/phrases.ts';
import { readOf } from '../../model/way.ts';
import { type PanelProps } from '../../task/task.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { InWords } from '../../ui/Way.tsx';
import { Word } from '../../ui/Word.tsx';
import {
  cursorSaid,
  type Edit,
  edited,
  type EditName,
  EDITS,
  lasting,
  numbered,
  stretchOf,
  withPart,
} from './editing.ts';
import { phraseNow } from './moved.ts';
import { type PhraseParams } from './params.ts';
import { stepAt } from './scene.ts';
import { TapTimes } from './TapTimes.tsx';
import { WrittenPhrase } from './WrittenPhrase.tsx';

/** The keys of the editor, what they do, and how they are shown. */
const KEYS: readonly { readonly keys: readonly string[]; readonly edit: EditName; readonly does: string }[] =
  [
    { keys: ['Enter'], edit: 'again', does: 'the note once more after the cursor' },
    { keys: ['r'], edit: 'rest', does: 'a rest after the cursor' },
    { keys: ['ArrowUp'], edit: 'higher', does: 'a step of the scale up' },
    { keys: ['ArrowDown'], edit: 'lower', does: 'a step of the scale down' },
    { keys: ['Alt+ArrowUp'], edit: 'halfHigher', does: 'a half step up' },
    { keys: ['Alt+ArrowDown'], edit: 'halfLower', does: 'a half step down' },
    { keys: ['PageUp'], edit: 'octaveHigher', does: 'an octave up' },
    { keys: ['PageDown'], edit: 'octaveLower', does: 'an octave down' },
    { keys: ['w'], edit: 'otherString', does: 'the same pitch on another string' },
    { keys: ['+', '='], edit: 'longer', does: 'longer' },
    { keys: ['-'], edit: 'shorter', does: 'shorter' },
    { keys: ['.'], edit: 'dotted', does: 'dotted, or not' },
    { keys: ['t'], edit: 'triplet', does: 'one of a triplet, or not' },
    { keys: ['j'], edit: 'tied', does: 'tied to one more of the length that is set' },
    { keys: ['u'], edit: 'slur', does: 'slurred from the note before, or not' },
    { keys: ['s'], edit: 'slide', does: 'slid to, or not' },
    { keys: ['k'], edit: 'tap', does: 'tapped, or not' },
    { keys: ['b'], edit: 'bend', does: 'bent: a whole step, a half, three halves, none' },
    { keys: ['e'], edit: 'release', does: 'the bend released, or held' },
    { keys: ['l'], edit: 'slowly', does: 'the bend slowly, or at once' },
    { keys: ['v'], edit: 'vibrato', does: 'vibrato, or none' },
    { keys: ['a'], edit: 'accent', does: 'an accent, or none' },
    { keys: ['f'], edit: 'finger', does: 'a finger of your own: 1 to 4, or ours' },
    { keys: ['Delete', 'Backspace'], edit: 'remove', does: 'taken away' },
    { keys: ['c'], edit: 'copy', does: 'copied' },
    { keys: ['p'], edit: 'paste', does: 'what was copied, after the cursor' },
    { keys: ['y'], edit: 'repeat', does: 'once more, as it is' },
  ];
const WALKS = [
  { key: '← →', does: 'walks from note to note; with Shift it marks a stretch, which all keys then mean' },
  { key: 'Home End', does: 'goes before the first note, and to the last' },
  { key: '1 to 7', does: 'writes that number of the scale, nearest to the note at the cursor' },
];
const SHOWN: Readonly<Record<string, string>> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  'Alt+ArrowUp': 'Alt ↑',
  'Alt+ArrowDown': 'Alt ↓',
  PageUp: 'Page ↑',
  PageDown: 'Page ↓',
};
const shown = (key: string): string => SHOWN[key] ?? key;

interface EditorProps extends PanelProps<PhraseParams> {
  readonly here: PhraseHere;
  /** Whether it sounds. */
  readonly on: boolean;
}

/** A phrase as it is written, with a cursor that keys walk; what stands there is said, and each part of it opens in place. */
export function Editor({ model, params, settings, onParams, onChange, here, on }: EditorProps) {
  const { phrase, way, notes } = here;
  const [trouble, setTrouble] = useState<string | null>(null);
  const [tapping, setTapping] = useState(false);
  // Keys may come faster than the page is drawn: what the last one left is what the next one begins with.
  const live = useRef(params);
  useLayoutEffect(() => {
    live.current = params;
  });
  const put = (next: PhraseParams): void => {
    live.current = next;
    onParams(next);
  };
  const edit = (what: Edit): void => {
    let why: string | null = null;
    onChange((state) => {
      const done = edited(modelOf(state, settings), live.current, what);
      if (!done.ok) {
        why = done.error.message;
        return state;
      }
      put(done.value.params);
      return done.value.state;
    });
    setTrouble(why);
  };
  const walk = (to: (cursor: number, many: number) => number, marks: boolean): void => {
    const now = live.current;
    const many = phraseNow(model, now)?.here.notes.length ?? 0;
    const at = Math.min(now.cursor, many - 1);
    const cursor = Math.max(-1, Math.min(many - 1, to(at, many)));
    put({ ...now, cursor, marked: marks ? (now.marked ?? Math.max(0, at)) : null });
    setTrouble(null);
  };
  const onKey = (e: KeyboardEvent): void => {
    if (e.ctrlKey || e.metaKey) return;
    const walks: Readonly<Record<string, (at: number, many: number) => number>> = {
      ArrowRight: (at) => at + 1,
      ArrowLeft: (at) => at - 1,
      Home: () => -1,
      End: (_, many) => many - 1,
    };
    const walked = walks[e.key];
    const word = `${e.altKey ? 'Alt+' : ''}${e.key}`;
    const it = KEYS.find(({ keys }) => keys.includes(word));
    const number = /^[1-7]$/.test(word) ? Number(word) : null;
    if (!walked && !it && number === null) return;
    e.preventDefault();
    if (walked) walk(walked, e.shiftKey);
    else edit(it ? EDITS[it.edit] : numbered(number!));
  };
  const read = readOf(model, fingeringOf(way), way.run);
  const at = Math.min(params.cursor, notes.length - 1);
  const step = way.notes.indexOf(at);
  const starts = startsOf(notes);
  const beat = at < 0 ? 0 : starts[at]! / QUARTER;
  const [from, to] = stretchOf({ ...params, cursor: at }, notes.length);
  const said = [
    cursorSaid(notes, params),
    ...(at >= 0
      ? [`Bar ${Math.floor(beat / phrase.beats) + 1}, beat ${Math.floor(beat % phrase.beats) + 1}.`]
      : []),
    ...(step >= 0
      ? [`${capital(pretty(degreeSaid(model.key, way.run[step]!.spot.midi)))}: ${read.said(step)}.`]
      : []),
    ...(params.marked !== null && to - from > 1 ? [`Marked: notes ${from + 1} to ${to}.`] : []),
  ].join(' ');
  return (
    <div className="flex flex-col gap-3">
      <NoteWords notes={notes} params={{ ...params, cursor: at }} edit={edit}>
        {at >= 0 && way.run.length > 0 && (
          <Word
            name="Times"
            weight="seldom"
            open={tapping}
            onOpenChange={setTapping}
            body={
              <TapTimes
                model={model}
                here={here}
                tempo={params.tempo}
                edit={edit}
                onDone={() => setTapping(false)}
              />
            }
          >
            tap its times
          </Word>
        )}
      </NoteWords>
      <p id="phrase-cursor" role={on ? undefined : 'status'}>
        {said}
      </p>
      <div
        tabIndex={0}
        role="application"
        aria-label={`Write ${phrase.name}`}
        aria-describedby="phrase-cursor"
        className="rounded border-l-4 border-hair pl-2"
        onKeyDown={onKey}
      >
        {way.run.length > 0 ? (
          <WrittenPhrase
            model={model}
            way={way}
            beats={phrase.beats}
            read={read}
            step={stepAt(way.notes, at)}
            onStep={(n) => put({ ...live.current, cursor: way.notes[n] ?? -1, marked: null })}
            name={phrase.name}
            bare
          />
        ) : (
          <p className="py-3 text-soft">
            Choose a spot on the neck, and it is the first note. Or press Enter here for the root, and go on
            with the keys.
          </p>
        )}
      </div>
      {trouble && (
        <p role="alert" className="error">
          {trouble}
        </p>
      )}
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">Keys of the editor</summary>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
          {WALKS.map(({ key, does }) => (
            <KeyRow key={key} sign={key} does={does} />
          ))}
          {KEYS.map(({ keys, does }) => (
            <KeyRow key={keys[0]} sign={shown(keys[0]!)} does={does} />
          ))}
          <KeyRow sign="Space" does="plays and stops" />
        </dl>
      </details>
      {way.run.length > 0 && <InWords read={read} />}
      {toldSaid(way.told).map((it) => (
        <p key={it} className="text-sm font-semibold">
          {it}
        </p>
      ))}
    </div>
  );
}

const JOINS: readonly { readonly id: Joined | 'pick'; readonly name: string }[] = [
  { id: 'pick', name: 'picked' },
  { id: 'slur', name: 'slurred' },
  { id: 'slide', name: 'slid to' },
  { id: 'tap', name: 'tapped' },
];
const FINGERS = [
  { id: '0', name: 'ours' },
  { id: '1', name: '1, the index' },
  { id: '2', name: '2, the middle' },
  { id: '3', name: '3, the ring' },
  { id: '4', name: '4, the little' },
] as const;
const NO_BEND = '0';
const BENDS = [
  { id: NO_BEND, name: 'not bent' },
  ...Array.from({ length: BEND.most / BEND.step }, (_, i) => {
    const by = (i + 1) * BEND.step;
    return { id: String(by), name: `${bendSign({ by, how: 'once', released: false })} of a whole step` };
  }),
];

interface NoteWordsProps {
  readonly notes: readonly PhraseNote[];
  readonly params: PhraseParams;
  readonly edit: (what: Edit) => void;
  /** What else can be done to all of it. */
  readonly children: ReactNode;
}

/** The note under the cursor, or the stretch that is marked, as words that open in place: for those who would rather not learn keys. */
function NoteWords({ notes, params, edit, children }: NoteWordsProps) {
  const [from, to] = stretchOf(params, notes.length);
  const note = notes[to - 1];
  const many = to - from;
  const length = note?.length ?? params.length;
  const now = lengthOf(length);
  const act = (name: EditName, said: string) => (
    <button key={name} type="button" className="button" onClick={() => edit(EDITS[name])}>
      {said}
    </button>
  );
  const held =
    note &&
    heldSaid({ ...(note.bend && { bend: note.bend }), ...(note.vibrato && { vibrato: note.vibrato }) });
  const joined = JOINS.find(({ id }) => id === (note?.joined ?? 'pick'))!;
  const how = note
    ? list([
        ...(note.at ? [joined.name] : ['silent']),
        ...(held ? [held] : []),
        ...(note.accent ? ['accented'] : []),
        ...(note.finger ? [`finger ${note.finger}`] : []),
      ])
    : '';
  return (
    <p className="task-sentence">
      {many > 1 ? `Notes ${from + 1} to ${to}: ` : note ? `Note ${to}: ` : 'The next note: '}
      <Word
        name="Length"
        then={note ? ',' : '.'}
        body={
          <div className="flex flex-col gap-3">
            <div role="group" aria-label="Length" className="flex flex-wrap gap-1.5">
              {VALUES.map(({ id, name, ticks }) => (
                <button
                  key={id}
                  type="button"
                  className="button"
                  aria-pressed={now?.value === id}
                  onClick={() => edit(lasting(ticks))}
                >
                  {name}
                </button>
              ))}
            </div>
            <div className="flex flex-wrap gap-1.5">
              {(['dotted', 'triplet'] as const).map((as) => (
                <button
                  key={as}
                  type="button"
                  className="button"
                  aria-pressed={now?.as === as}
                  disabled={lengthAs(length, as) === null}
                  onClick={() => edit(EDITS[as])}
                >
                  {as === 'dotted' ? 'dotted' : 'of a triplet'}
                </button>
              ))}
              {note && act('tied', 'tied to one more')}
            </div>
          </div>
        }
      >
        {lengthSaid(length)}
      </Word>
      {note && (
        <>
          {' '}
          <Word
            name="How it is played"
            then=","
            body={
              <div className="flex flex-col gap-3">
                <Field label="Reached">
                  <Choice
                    value={joined.id}
                    options={JOINS}
                    onChange={(id) => edit(withPart({ joined: id === 'pick' ? undefined : id }))}
                  />
                </Field>
                <Field label="Bent by">
                  <Choice
                    value={String(note.bend?.by ?? NO_BEND)}
                    options={BENDS}
                    onChange={(id) =>
                      edit(
                        withPart({
                          bend:
                            id === NO_BEND
                              ? undefined
                              : { how: 'once', released: false, ...note.bend, by: Number(id) },
                        }),
                      )
                    }
                  />
                </Field>
                {note.bend && (
                  <div className="flex flex-wrap gap-1.5">
                    <Switch on={note.bend.released} onChange={() => edit(EDITS.release)}>
                      released
                    </Switch>
                    <Switch on={note.bend.how === 'slowly'} onChange={() => edit(EDITS.slowly)}>
                      slowly
                    </Switch>
                  </div>
                )}
                <div className="flex flex-wrap gap-1.5">
                  <Switch on={note.vibrato !== undefined} onChange={() => edit(EDITS.vibrato)}>
                    vibrato
                  </Switch>
                  <Switch on={note.accent === true} onChange={() => edit(EDITS.accent)}>
                    accent
                  </Switch>
                </div>
                <Field label="Finger">
                  <Choice
                    value={String(note.finger ?? 0) as (typeof FINGERS)[number]['id']}
                    options={FINGERS}
                    onChange={(id) => edit(withPart({ finger: Number(id) || undefined }))}
                  />
                </Field>
              </div>
            }
          >
            {how}
          </Word>{' '}
          <Word
            name="Move it"
            then="."
            body={
              <div className="flex flex-wrap gap-1.5">
                {act('higher', 'A step up')}
                {act('lower', 'A step down')}
                {act('halfHigher', 'A half step up')}
                {act('halfLower', 'A half step down')}
                {act('octaveHigher', 'An octave up')}
                {act('octaveLower', 'An octave down')}
                {act('otherString', 'On another string')}
                {act('again', 'Once more')}
                {act('rest', 'A rest after it')}
                {act('repeat', 'Repeat all that is marked')}
                {act('copy', 'Copy')}
                {act('paste', 'Paste')}
                {act('remove', 'Take away')}
              </div>
            }
          >
            change it
          </Word>
        </>
      )}{' '}
      {children}
    </p>
  );
}

const KeyRow = ({ sign, does }: { readonly sign: string; readonly does: string }) => (
  <>
    <dt>
      <kbd>{sign}</kbd>
    </dt>
    <dd>{does}</dd>
  </>
);
