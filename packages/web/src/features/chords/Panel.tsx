import {
  capital,
  degreeName,
  list,
  numberWord,
  pitchClass,
  plural,
  refOf,
  pretty,
  noteName,
  scaleSaid,
  spotSaid,
} from '@crow-ladder/core';
import {
  type ChordGrip,
  chordNotes,
  chordSaid,
  GRIP_STRINGS,
  isByThirds,
  RANGES,
  ROMAN_WAYS,
  romanOf,
} from '@crow-ladder/core/chords';
import { memo } from 'react';
import { chordAsked, chordsOf, chordWord, INVERSIONS, showingOf, stacksOf } from '../../model/chords.ts';
import { withFront } from '../../model/moves.ts';
import { OWN, ownChord } from '../../model/progression.ts';
import { readOf } from '../../model/way.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { FINGERS } from '../../model/wording.ts';
import { type PanelProps } from '../../task/task.ts';
import { Field } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { Picks } from '../../ui/Picks.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { Way } from '../../ui/Way.tsx';
import { Changes, ChangesActs, ChangesWords } from './Changes.tsx';
import { askedOf, type ChordParams, VIEWS } from './params.ts';
import {
  byRegion,
  type Held,
  heldNow,
  gripsOf,
  gripWord,
  ownHeld,
  playedChord,
  positionsAround,
} from './sounded.ts';

type Props = PanelProps<ChordParams>;

/** What Practice begins with over one chord. */
const VAMP = { on: 'position', leave: '4', answer: '', part: '' };

/** Any of a chord's notes may lie lowest. */
const ANY = 'any';

/** On how many strings a chord of so many notes can be held. */
const stringsFor = (notes: number, strings: number): readonly number[] =>
  Array.from({ length: Math.max(0, Math.min(GRIP_STRINGS, strings) - notes + 1) }, (_, i) => notes + i);

/** The chords of the scale: what is done with them, in a sentence, and each in a list. */
export const Panel = memo(function Panel(props: Props) {
  const { model, params, onParams, onOpen } = props;
  const { view, size } = params;
  const first = (
    <Picked
      name="What is done with them"
      weight="first"
      value={view}
      options={VIEWS}
      onPick={(to) => onParams({ ...params, step: 0, grip: null, view: to })}
    />
  );
  if (view === 'changes')
    return (
      <div className="flex flex-col gap-3">
        <TaskSentence acts={<ChangesActs {...props} />}>
          {first} <ChangesWords {...props} />
        </TaskSentence>
        <Changes {...props} />
      </div>
    );
  const put = (part: Partial<ChordParams>): void =>
    onParams({ ...params, step: 0, grip: null, own: '', ...part });
  /** A bar of a chord, and bars to play the position in. */
  const vamp = (chords: string): void => onOpen('practice', { ...VAMP, along: chords });
  const asked = askedOf({ ...params, view: view === 'turn' ? 'one' : view });
  const one = chordAsked(model, asked)!;
  const stacks = stacksOf(model);
  const ownTyped = view === 'hold' ? params.own.trim() : '';
  const basses = one.tones.map((_, i) => ({ id: String(i), name: INVERSIONS[i]! }));
  const playable = view !== 'hold' && playedChord(model, params).ok;
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence
        acts={
          playable && (
            <>
              <button
                type="button"
                className="button"
                onClick={() => onOpen('practice', { on: chordWord(askedOf(params)), part: '' })}
              >
                Practise it
              </button>
              {view === 'one' && one.chord.suffix !== null && (
                <button type="button" className="button" onClick={() => vamp(chordWord(askedOf(params)))}>
                  Vamp on it
                </button>
              )}
            </>
          )
        }
      >
        {first} the{' '}
        <Picked
          name="How many notes"
          then=","
          value={String(Math.min(size, stacks.at(-1)!.size))}
          options={stacks.map((s) => ({
            id: String(s.size),
            name: s.name,
            note: `${numberWord(s.size)} notes`,
          }))}
          onPick={(to) => put({ size: Number(to), bass: null, strings: null })}
        />{' '}
        {view === 'turn' ? 'one after the other,' : `now ${ownTyped || chordSaid(one.chord)},`}{' '}
        {view !== 'turn' && (
          <Picked
            name="Lowest note"
            then=","
            value={params.bass === null ? (view === 'hold' ? ANY : '0') : String(params.bass % basses.length)}
            options={view === 'hold' ? [{ id: ANY, name: 'any of its notes lowest' }, ...basses] : basses}
            onPick={(to) => put({ bass: to === ANY ? null : Number(to) })}
          />
        )}{' '}
        {view === 'hold' && (
          <Picked
            name="On how many strings"
            then="."
            value={params.strings === null ? ANY : String(params.strings)}
            options={[
              { id: ANY, name: 'on any strings' },
              ...stringsFor(one.tones.length, model.neck.open.length).map((n) => ({
                id: String(n),
                name: `on ${numberWord(n)} strings`,
              })),
            ]}
            onPick={(to) => put({ strings: to === ANY ? null : Number(to) })}
          />
        )}
        {view !== 'hold' && (
          <Picked
            name="How far"
            then="."
            value={params.range}
            options={RANGES}
            onPick={(range) => put({ range })}
          />
        )}
      </TaskSentence>
      <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
        <Degrees {...props} degree={one.degree} put={put} vamp={vamp} />
        {view === 'hold' ? <Grips {...props} /> : <Played {...props} />}
      </div>
    </div>
  );
});

interface DegreesProps extends Props {
  /** Index of the degree that the chord stands on. */
  readonly degree: number;
  readonly put: (part: Partial<ChordParams>) => void;
  readonly vamp: (chords: string) => void;
}

/** The chord on every degree, with its place, its notes and the mode that belongs to it. */
function Degrees({ model, params, degree: chosen, put, vamp }: DegreesProps) {
  const { scale } = model;
  const isOne = params.view !== 'turn';
  const isOwn = params.view === 'hold' && params.own.trim() !== '';
  const options = chordsOf(model, params.size).map(({ chord, degree, over, mode }) => {
    const notes = chordNotes(chord).map((n) => pretty(noteName(n)));
    return {
      id: String(degree),
      name: chordSaid(chord),
      tag: [
        romanOf(scale.degrees[degree]!, chord, params.roman),
        ...(chord.suffix === null ? [] : [notes.join(' ')]),
        ...(over ? [`${chordSaid(over)} over ${notes[0]!}`] : []),
        scaleSaid(mode.scale),
      ].join(' · '),
    };
  });
  const shows = showingOf(model);
  const own = ownChord(model);
  const heardBy = scale.degrees.flatMap((d, i) =>
    scale.characteristic.includes(degreeName(d)) ? [`${pretty(degreeName(d))} (${model.notes[i]!})`] : [],
  );
  return (
    <div className="flex flex-col gap-2">
      {shows && heardBy.length > 0 && (
        <p>{`${capital(scaleSaid(scale))} is heard by its ${list(heardBy)}; ${chordSaid(shows)} shows it.`}</p>
      )}
      {own && (
        <button type="button" className="button self-start" onClick={() => vamp(OWN)}>
          {`Vamp on ${own.slots[0]!.name}`}
        </button>
      )}
      {!isByThirds(scale) && (
        <p className="text-sm text-soft">
          {`In a scale of ${numberWord(scale.degrees.length)} notes every other one is no third: what they make is named by its sound, where it has a name.`}
        </p>
      )}
      {isOne && (
        <p className="text-sm text-soft">
          On the neck <MarkKind kind="shared">its root</MarkKind>,{' '}
          <MarkKind kind="note">its other notes</MarkKind>, counted from it.
        </p>
      )}
      <Picks
        name="Chords of the scale"
        standing
        value={isOne && !isOwn ? String(chosen) : null}
        options={options}
        onPick={(id) => put({ degree: Number(id), ...(params.view === 'turn' && { view: 'one' }) })}
      />
      <p className="text-sm">
        Places are written{' '}
        <Picked
          name="How places are written"
          then="."
          value={params.roman}
          options={ROMAN_WAYS}
          onPick={(roman) => put({ roman, grip: params.grip, own: params.own })}
        />
      </p>
    </div>
  );
}

/** The arpeggio, or all of them in turn: note by note, its fingers and its tablature. */
function Played({ model, params, onParams }: Props) {
  const now = playedChord(model, params);
  if (!now.ok) return <p className="error">{now.error.message}</p>;
  const { fingering, run } = now.value;
  return (
    <Way
      read={readOf(model, fingering, run)}
      step={params.step}
      onStep={(step) => onParams({ ...params, step })}
      name="chord"
    />
  );
}

/** Grips of the chord by where they lie, each chosen to be seen on the neck. */
function Grips({ model, params, onParams, onChange }: Props) {
  const all = gripsOf(model, params);
  const own = ownHeld(model, params);
  const now = heldNow(model, params);
  const strings = model.neck.open.length;
  const options = byRegion(model, all).flatMap(({ from, to, many, grips }) =>
    grips.map((grip) => ({
      id: gripWord(grip, strings),
      name: gripWord(grip, strings).replaceAll('.', ' '),
      group: `Frets ${from} to ${to}${many > grips.length ? `, the easiest ${grips.length} of ${many}` : ''}`,
      tag: [
        grip.fingers ? `${Math.round(grip.mm)} mm` : 'all open',
        grip.barre
          ? 'index finger over several strings'
          : `${numberWord(grip.fingers)} ${grip.fingers === 1 ? 'finger' : 'fingers'}`,
      ].join(', '),
    })),
  );
  return (
    <div className="flex flex-col gap-2">
      {now && (
        <>
          <p role="status">{heldSaid(model, now, own !== null)}</p>
          <Around model={model} grip={now.grip} onChange={onChange} />
        </>
      )}
      {!now && !own && (
        <p className="error">
          No hand holds this chord on this neck within the span that is set: choose fewer notes, any note
          lowest, any strings, or a wider span in the settings.
        </p>
      )}
      <Field
        label="A grip of your own"
        error={own?.ok === false ? own.error.message : undefined}
        hint="Frets from the lowest string up, such as x 7 7 5 5 5; x is a string that is not struck."
      >
        <input
          className="input"
          maxLength={60}
          value={params.own}
          spellCheck={false}
          onChange={(e) => onParams({ ...params, own: e.target.value })}
        />
      </Field>
      <Picks
        name="Grips"
        standing
        value={now && !own ? gripWord(now.grip, strings) : null}
        options={options}
        onPick={(grip) => onParams({ ...params, grip, own: '' })}
      />
    </div>
  );
}

/** What is held, string by string, with the fingers; of the player's own, which chord it is. */
function heldSaid(model: Model, { grip, chords }: Held, isOwn: boolean): string {
  const held = grip.places.map((p) => `${spotSaid(p)}${p.finger ? `, ${FINGERS[p.finger]}` : ''}`);
  const said = `Held: ${list(held)}.`;
  if (!isOwn) return said;
  const bass = pitchName(model, grip.bass);
  const names = chords.map((chord) =>
    pitchClass(chord.root) === grip.bass ? chordSaid(chord) : `${chordSaid(chord)} over ${bass}`,
  );
  return names.length
    ? `It is ${list(names, 'or')}. ${said}`
    : `No chord of the list has these notes alone. ${said}`;
}

/** As many positions as are told. */
const AROUND = 3;
/** The positions of the scale around a grip, each brought forward at a press. */
function Around({ model, grip, onChange }: Pick<Props, 'model' | 'onChange'> & { readonly grip: ChordGrip }) {
  const found = positionsAround(model, grip).slice(0, AROUND);
  const { positions } = model;
  if (!positions.ok || !found.length) return <p>No position of this layout holds a note of it.</p>;
  const names = model.names();
  return (
    <>
      <p>
        Around it lie these positions; in the one in front{' '}
        <MarkKind kind="upper">the chord’s other notes</MarkKind>.
      </p>
      <Picks
        name="Positions around it"
        standing
        value={model.front ? String(model.front.position.index) : null}
        options={found.map(({ position, shared }) => ({
          id: String(position.index),
          name: names[position.index]!,
          tag: `${plural(shared.length, 'note')} of it`,
        }))}
        onPick={(id) => onChange((s) => withFront(s, refOf(positions.value, positions.value[Number(id)]!)))}
      />
    </>
  );
}
