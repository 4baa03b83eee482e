import { numberWord, plural } from '@crow-ladder/core';
import { PHRASE_LIMITS } from '@crow-ladder/core/phrases';
import {
  accentHome,
  betterStart,
  crossingsOf,
  PICKING_SCHOOLS,
  type Run,
  type Strike,
  STRIKES,
  type Stroke,
  STROKES,
  SWING,
  type Turns,
} from '@crow-ladder/core/run';
import { type ReactNode } from 'react';
import { type Model } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { Word } from '../../ui/Word.tsx';
import { NoteByNote, type RunRead } from '../../ui/Way.tsx';
import { type Drilling, type PlayedDrill, stretchesOf, strokesFor } from './drilled.ts';
import {
  AT_FIRST,
  MOST_LEFT,
  type IdOf,
  named,
  type PracticeParams,
  READINGS,
  SAYINGS,
  SIZES,
  usualSize,
} from './params.ts';
import { ANEW, type PartProps } from './parts.ts';
import { CHANGES } from '../../model/progression.ts';
import { chordsUnder } from './backing.ts';
import { Heard } from './Heard.tsx';
import { type DroneState } from './useDrone.ts';

/** Bars to play in, where nothing else is set. */
const USUALLY_LEFT = 4;

/** When the first note of a group comes home to the beat and to the bar. */
function accentSaid(group: number, perBeat: number, beats: number): string | null {
  const home = accentHome(group, perBeat, beats);
  return (
    home &&
    `Groups of ${numberWord(group)} against ${numberWord(perBeat)} notes a beat: the first note of a group falls on a beat again after ${home.onBeat} notes, and on the first beat of a bar after ${home.onBar}.`
  );
}

const strokeName = (stroke: Stroke): string => named(STROKES, stroke);

/** How the strokes cross the strings. */
function strokesSaid(
  { neck }: Model,
  { run }: PlayedDrill,
  { school, begins }: Pick<PracticeParams, 'school' | 'begins'>,
): string {
  const { outside, inside, equal } = crossingsOf(neck, run, strokesFor(run, school, begins));
  const better = betterStart(neck, run, school);
  return [
    `${plural(outside, 'outside crossing')}, ${inside} inside${equal ? `, ${equal} between two equal strokes` : ''}, beginning with ${strokeName(school === 'beat' ? 'down' : begins)}.`,
    ...(better && better !== begins
      ? [`Beginning with ${strokeName(better)} leaves fewer of them inside.`]
      : []),
  ].join(' ');
}

/** How many notes are played without the pick, where some are; where all are to be picked, the hand slides to them. */
function slursSaid({ run }: PlayedDrill, touch: Strike): string | null {
  const slurred = run.filter((s) => s.arrive !== 'pick').length;
  const why = touch === 'picked' ? ': a finger slides on its string to the next place of the hand' : '';
  return slurred ? `${slurred} of ${plural(run.length, 'note')} without the pick${why}.` : null;
}

/** What is set otherwise than usual, in a few words; “as usual” where nothing is. */
export function setSaid(params: PracticeParams, turns: Turns | null, usual: IdOf<typeof SIZES>): string {
  const { touch, school, begins, swing, perBeat, say, accents, reading, size, loop, countIn } = params;
  const said = [
    touch !== AT_FIRST.touch && named(STRIKES, touch),
    school !== AT_FIRST.school && named(PICKING_SCHOOLS, school),
    school === AT_FIRST.school && begins !== AT_FIRST.begins && `beginning with ${strokeName(begins)}`,
    perBeat === 2 && swing !== AT_FIRST.swing && `swing of ${swing} per cent`,
    say !== 'no' && `${named(SAYINGS, say)} said first`,
    !accents && 'no accents',
    turns !== null &&
      (turns.before > 0
        ? `a bar of chords, ${plural(turns.played, 'bar')} to play in`
        : 'two bars left free'),
    !loop && 'once',
    !countIn && 'no count-in',
    reading !== AT_FIRST.reading && named(READINGS, reading),
    size !== null && size !== usual && `read ${named(SIZES, size)}`,
  ].filter((it) => it !== false);
  return said.join(', ') || 'as usual';
}

interface OptionsProps extends PartProps {
  readonly drilling: Drilling;
  readonly drone: DroneState;
  readonly read: RunRead | null;
  /** What the page listens to, in a word or two, and what chooses it. */
  readonly hears: string | null;
  readonly hearing: ReactNode;
  /** Keeps what is played as a phrase of the chart. */
  readonly onKeep: () => void;
}

/** What is seldom chosen of a drill, as one word that says what is set. */
export function More(props: OptionsProps) {
  const narrow = useNarrow();
  return (
    <Word name="More" weight="seldom" body={<Options {...props} />}>
      {`${setSaid(props.params, props.drilling.turns, usualSize(narrow))}, ${props.hears ?? 'not heard'}`}
    </Word>
  );
}

/** Everything that can be chosen of a drill beside its sentence, and what follows from it. */
function Options({
  hearing,
  model,
  params,
  put,
  tempo,
  drone,
  read,
  onKeep,
  drilling: { played, beats },
}: OptionsProps) {
  const {
    perBeat,
    swing,
    school,
    begins,
    touch,
    accents,
    answer,
    leave,
    say,
    choosing,
    reading,
    loop,
    countIn,
  } = params;
  const narrow = useNarrow();
  const accent = played.ok ? accentSaid(played.value.group, perBeat, beats) : null;
  const chords = chordsUnder(model, params).find((it) => it.now)?.id ?? null;
  /** Chords are heard as soon as a bar is theirs. */
  const leaveBars = (to: number): void =>
    put({
      leave: to,
      answer: false,
      part: null,
      step: 0,
      ...(to > 0 && { chords, along: params.along || null }),
    });
  const slurs = played.ok ? slursSaid(played.value, touch) : null;
  return (
    <div className="flex flex-col gap-3">
      <section aria-label="Hear me" className="flex flex-col gap-2 border-b border-hair pb-3">
        <h3 className="font-semibold">Hear me</h3>
        {hearing}
      </section>
      <Field label="How the notes are struck" hint={slurs ?? undefined}>
        <Choice value={touch} options={STRIKES} onChange={(to) => put({ touch: to, step: 0 })} />
      </Field>
      <Field label="Strokes" hint={played.ok ? strokesSaid(model, played.value, params) : undefined}>
        <Choice value={school} options={PICKING_SCHOOLS} onChange={(to) => put({ school: to })} />
      </Field>
      {school === 'strict' && (
        <Field label="The first stroke">
          <Choice value={begins} options={STROKES} onChange={(to) => put({ begins: to })} />
        </Field>
      )}
      {perBeat === 2 && (
        <Field label="Swing in per cent" hint="50 is straight, 67 is triplets.">
          <Whole value={swing} min={SWING.least} max={SWING.most} onChange={(to) => put({ swing: to })} />
        </Field>
      )}
      {played.ok && played.value.group > 1 && (
        <Switch on={accents} onChange={(to) => put({ accents: to })}>
          an accent on the first note of a group
        </Switch>
      )}
      {accent && <p className="text-sm text-soft">{accent}</p>}
      <Switch on={loop} onChange={(to) => put({ loop: to })}>
        again and again
      </Switch>
      <Switch on={countIn} onChange={(to) => put({ countIn: to })}>
        count in
      </Switch>
      {params.on !== CHANGES && (
        <>
          <Switch on={answer} onChange={(to) => put({ answer: to, leave: 0, part: null, step: 0 })}>
            two bars sound, two are free for an answer
          </Switch>
          {chords !== null && (
            <Switch on={leave > 0} onChange={(to) => leaveBars(to ? USUALLY_LEFT : 0)}>
              a bar of chords alone, then bars to play in
            </Switch>
          )}
          {chords !== null && leave > 0 && (
            <Field label="Bars to play in">
              <Whole value={leave} min={1} max={MOST_LEFT} onChange={leaveBars} />
            </Field>
          )}
        </>
      )}
      <Field label="Say of each note">
        <Choice
          value={say}
          options={SAYINGS}
          onChange={(to) => put(to === 'no' ? { say: to } : { ...ANEW, say: to, perBeat: 1, tempo })}
        />
      </Field>
      {say !== 'no' && (
        <Switch on={choosing} onChange={(to) => put({ choosing: to, step: 0 })}>
          choose it, without the clock
        </Switch>
      )}
      <Field label="Read it as">
        <Choice value={reading} options={READINGS} onChange={(to) => put({ reading: to })} />
      </Field>
      <Field label="Read it from">
        <Choice
          value={params.size ?? usualSize(narrow)}
          options={SIZES}
          onChange={(to) => put({ size: to })}
        />
      </Field>
      {played.ok && say === 'no' && (
        <PlayedPart params={params} run={played.value.run} beats={beats} put={put} />
      )}
      {read && say === 'no' && <NoteByNote read={read} step={params.step} onStep={(step) => put({ step })} />}
      {played.ok && (
        <button type="button" className="button self-start" onClick={onKeep}>
          {played.value.run.length > PHRASE_LIMITS.notes
            ? `Keep its first ${PHRASE_LIMITS.notes} notes as a phrase`
            : 'Keep what is played as a phrase'}
        </button>
      )}
      <Heard model={model} params={params} put={put} drone={drone} />
    </div>
  );
}

interface PlayedPartProps extends Pick<PartProps, 'params' | 'put'> {
  readonly run: Run;
  readonly beats: number;
}

/** Some notes alone: those of a line of bars or of one bar, or by their numbers. */
function PlayedPart({ params: { part, step }, run, beats, put }: PlayedPartProps) {
  const many = run.length;
  const stretches = stretchesOf(run, beats, step);
  const isAt = (it: PracticeParams['part']): boolean => String(it) === String(part);
  const [first, last] = part && part[1] < many ? part : [0, many - 1];
  const set = (a: number, b: number): void => {
    const next = [Math.min(a, b), Math.max(a, b)] as const;
    put({ part: next[0] === 0 && next[1] === many - 1 ? null : next, step: next[0] });
  };
  return (
    <div role="group" aria-label="Notes that are played" className="flex flex-col gap-3">
      {stretches.length > 1 && (
        <Field label="Play">
          <Choice
            value={stretches.find((it) => isAt(it.part))?.id ?? 'notes'}
            options={[
              ...stretches,
              ...(stretches.some((it) => isAt(it.part))
                ? []
                : [{ id: 'notes', name: 'these notes' } as const]),
            ]}
            onChange={(id) => {
              const it = stretches.find((s) => s.id === id);
              if (it) put({ part: it.part, step: it.part?.[0] ?? 0 });
            }}
          />
        </Field>
      )}
      <div className="grid grid-cols-2 gap-3">
        <Field label="From note">
          <Whole value={first + 1} min={1} max={many} onChange={(n) => set(n - 1, last)} />
        </Field>
        <Field label="To note">
          <Whole value={last + 1} min={1} max={many} onChange={(n) => set(first, n - 1)} />
        </Field>
      </div>
    </div>
  );
}
