import { capital, pretty } from '@crow-ladder/core';
import { degreeSaid, startsOf, toldSaid } from '@crow-ladder/core/phrases';
import { QUARTER } from '@crow-ladder/core/run';
import { type KeyboardEvent, useLayoutEffect, useRef, useState } from 'react';
import { modelOf } from '../../model/model.ts';
import { fingeringOf, type PhraseHere } from '../../model/phrases.ts';
import { readOf } from '../../model/way.ts';
import { heardOf } from '../../hearing/heardNotes.ts';
import { type PanelProps } from '../../task/task.ts';
import { InWords } from '../../ui/Way.tsx';
import { Word } from '../../ui/Word.tsx';
import { cursorSaid, type Edit, edited, type EditName, EDITS, numbered, stretchOf } from './editing.ts';
import { phraseNow } from './moved.ts';
import { NoteWords } from './NoteWords.tsx';
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
            heard={heardOf(params.heard, way.run)}
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

const KeyRow = ({ sign, does }: { readonly sign: string; readonly does: string }) => (
  <>
    <dt>
      <kbd>{sign}</kbd>
    </dt>
    <dd>{does}</dd>
  </>
);
