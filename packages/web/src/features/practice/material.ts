import { usualOf } from '@crow-ladder/core/kinds';
import { type KeptRun, layoutWord, overlayWord } from '@crow-ladder/contract';
import { ok, type Position, refuse, type Result, shapeOf } from '@crow-ladder/core';
import { CLIMBS, type Climbing } from '@crow-ladder/core/climbs';
import { type Drilling } from '@crow-ladder/core/drills';
import { plan } from '@crow-ladder/core/plan';
import { climbSource, drillable, planSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import {
  chordAskedSaid,
  type ChordAsked,
  chordFrom,
  chordWord,
  sourceOfChord,
  stacksOf,
} from '../../model/chords.ts';
import { addedTo, sourceWithAdded } from '../../model/added.ts';
import { climbingOf } from '../../model/climbing.ts';
import { keptRuns, movedWithKey } from '../../model/keptRuns.ts';
import { knownId } from '../../model/known.ts';
import { type Model } from '../../model/model.ts';
import { taskOf } from '../../model/planTask.ts';
import { phraseHere, type PhraseHere, phraseId, phrasesOf, sourceOfPhrase } from '../../model/phrases.ts';
import { CHANGES, changesOf, playedOver } from '../../model/progression.ts';
import { sourceOfClimb } from '../../model/sources.ts';

/** What is drilled: a source, or several of them one after the other, with the fingers that they have wherever they are shown. */
export interface Material {
  readonly lots: readonly Drilling[];
  /** The same in every key. */
  readonly shape: string;
}

const POSITION = 'position';
const LADDER = 'ladder';
/** What begins the name of a climb, and of a run that was kept. */
const PREFIX = { climb: 'climb.', kept: 'kept.' } as const;

/** The chords that are offered: all in turn, as triads and as sevenths, and beside them the one that is chosen. */
function chordsOffered(model: Model, on: string): readonly ChordAsked[] {
  const inTurn = stacksOf(model)
    .slice(0, 2)
    .map(({ size }): ChordAsked => ({ degree: null, size, inversion: 0, range: 'octave' }));
  const chosen = chordFrom(on);
  return chosen && !inTurn.some((it) => chordWord(it) === on) ? [...inTurn, chosen] : inTurn;
}

/** What can be drilled: the position in front, all of them, chords, every climb, the runs and the phrases that are kept with the chart. */
export function materialsOf(
  model: Model,
  on: string,
): readonly { readonly id: string; readonly name: string }[] {
  const position = model.front && model.names()[model.front.position.index];
  return [
    { id: POSITION, name: position ?? 'the position in front' },
    { id: LADDER, name: 'every position in turn' },
    ...chordsOffered(model, on).map((it) => ({
      id: chordWord(it),
      // A name costs its chords: it is asked for where it is said.
      get name(): string {
        return chordAskedSaid(model, it);
      },
    })),
    ...(playedOver(model) ? [{ id: CHANGES, name: 'a line through its chords' }] : []),
    ...CLIMBS.all().map(({ kind, name }) => ({ id: PREFIX.climb + kind, name: `the climb ${name}` })),
    ...keptRuns(model.state).map(({ kept: { name } }) => ({ id: PREFIX.kept + name, name: `“${name}”` })),
    ...phrasesOf(model.state).map(({ phrase: { name } }) => ({
      id: phraseId(name),
      name: `the phrase “${name}”`,
    })),
  ];
}

/** The phrase that stands for something practised; null where it is none. */
export function phraseOf(model: Model, id: string): PhraseHere | null {
  const it = phrasesOf(model.state).find(({ phrase: { name } }) => id === phraseId(name));
  return it ? phraseHere(model, it.phrase) : null;
}

/** A run that was kept. */
function keptSource(model: Model, climbing: Climbing, kept: KeptRun): Result<Source> {
  const { place, nearest, planned } = movedWithKey(model, kept);
  if (kept.type === 'plan') {
    const task = taskOf(model, planned(kept));
    if (!task.ok) return task;
    const ways = plan(task.value, kept.pick + 1);
    const way = ways[kept.pick] ?? ways[0];
    return way
      ? ok(planSource(task.value, way))
      : refuse(
          'climb.room',
          'This run has no way on this neck within its limits: open it in Ladder and loosen them.',
        );
  }
  const front = nearest(kept.start, kept.low);
  if (!front) return refuse('climb.room', 'The position that this run begins in is not in this layout.');
  return climbSource({ ...climbing, front, root: place(kept.at) }, kept.climb, addedTo(model));
}

/** What is drilled by its id; null where no position is in front. What there is no longer is the position in front. */
export const materialOf = weakMapMemoize(
  (model: Model, id: string, perBeat: number): Result<Material> | null => {
    const { neck, key, positions, front, state } = model;
    const climbing = climbingOf(model);
    if (!front || !positions.ok || !climbing) return null;
    const all = positions.value;
    const drilling = (source: Source, position: Position): Drilling => ({
      neck,
      key,
      ...drillable(source),
      layout: state.layout,
      positions: all,
      front: position,
    });
    const inOne = (source: Source, shape: string): Result<Material> =>
      ok({ lots: [drilling(source, front.position)], shape });
    const { scale } = key;
    /** With other notes it is another shape to the log of practice. */
    const withNotes = (shape: string): string => [shape, ...addedTo(model).map(overlayWord)].join(' ');
    const kept = keptRuns(state).find(({ kept: { name } }) => id === PREFIX.kept + name)?.kept;
    if (kept) {
      const source = keptSource(model, climbing, kept);
      return source.ok ? inOne(source.value, `${scale.id} kept ${kept.name}`) : source;
    }
    const phrase = phraseOf(model, id);
    if (phrase?.way.run.length)
      return inOne(sourceOfPhrase(model, phrase), `${scale.id} phrase ${phrase.phrase.name}`);
    const chord = chordFrom(id);
    if (chord) {
      const source = sourceOfChord(model, chord);
      return source.ok ? inOne(source.value, `${scale.id} ${id} ${shapeOf(front.position)}`) : source;
    }
    if (id === CHANGES) {
      const source = changesOf(model, perBeat);
      return source.ok
        ? inOne(source.value, `${scale.id} ${id} ${perBeat} ${shapeOf(front.position)}`)
        : source;
    }
    const asked = id.startsWith(PREFIX.climb) ? CLIMBS.of(id.slice(PREFIX.climb.length)) : undefined;
    if (asked) {
      const source = sourceOfClimb(model, usualOf(asked, climbing));
      return source.ok ? inOne(source.value, `${scale.id} ${id} ${shapeOf(front.position)}`) : source;
    }
    if (id !== LADDER)
      return inOne(sourceWithAdded(model, front.position), withNotes(knownId(model, front.position)));
    return ok({
      lots: all.map((p) => drilling(sourceWithAdded(model, p), p)),
      shape: withNotes(`${scale.id} ladder ${layoutWord(state.layout)}`),
    });
  },
);
