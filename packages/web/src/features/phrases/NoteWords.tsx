import { list } from '@crow-ladder/core';
import {
  type Joined,
  lengthAs,
  lengthOf,
  lengthSaid,
  type PhraseNote,
  VALUES,
} from '@crow-ladder/core/phrases';
import { BEND, bendSign, heldSaid } from '@crow-ladder/core/run';
import { type ReactNode } from 'react';
import { Choice, Field } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Word } from '../../ui/Word.tsx';
import { type Edit, type EditName, EDITS, lasting, stretchOf, withPart } from './editing.ts';
import { type PhraseParams } from './params.ts';

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
export function NoteWords({ notes, params, edit, children }: NoteWordsProps) {
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
