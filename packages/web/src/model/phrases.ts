import { type ChartState, cutText, isPhrase, type KeptPhrase, PHRASE_KEPT } from '@crow-ladder/contract';
import { note, pitchClass, shorterWay } from '@crow-ladder/core';
import {
  asWritten,
  notesOn,
  type PhraseGround,
  type PhraseNote,
  type PhraseWay,
  placesOfPhrase,
  raised,
  type Tune,
  tuneOf,
} from '@crow-ladder/core/phrases';
import { type Fingering, stretchOf } from '@crow-ladder/core/run';
import { sourceFrom, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** What stands for a phrase among what can be drilled or written down. */
export const phraseId = (name: string): string => `phrase.${name}`;
/** The phrases of a chart with their places among its parts; what is of a later application is passed over. */
export const phrasesOf = ({
  phrases,
}: ChartState): readonly { readonly at: number; readonly phrase: KeptPhrase }[] =>
  phrases.flatMap((phrase, at) => (isPhrase(phrase) ? [{ at, phrase }] : []));

/** Quarter notes a minute for which places are ranked and fingers chosen. */
const TEMPO = 100;
/** Where phrases are placed in a chart. */
export const groundOf = weakMapMemoize(({ neck, key, hand, state }: Model): PhraseGround => ({
  neck,
  key,
  hand,
  plain: neck.open.length - state.instrument.wound,
  tempo: TEMPO,
}));

/** Where a line lies in a chart: in the position in front where that holds it, else where it is easiest; nowhere where no note of it does. */
export function placeInFront(model: Model, tune: Tune): PhraseWay | undefined {
  const ground = groundOf(model);
  const { position } = model.front ?? {};
  const [inFront] = position
    ? placesOfPhrase(ground, tune, { frets: [position.lowFret, position.highFret] }, 1)
    : [];
  return inFront ?? placesOfPhrase(ground, tune, {}, 1)[0];
}

/** A phrase as it lies in a chart. */
export interface PhraseHere {
  readonly phrase: KeptPhrase;
  /** Its pitches in the chart's key. */
  readonly tune: Tune;
  readonly way: PhraseWay;
  /** Its notes on the chart's strings; what falls off the neck is a rest. */
  readonly notes: readonly PhraseNote[];
}

/** Longer phrases stay on their strings where they can. */
const LONG = 64;
const sameStrings = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((open, i) => open === b[i]);

/** A tune on the strings that it was written on, an octave away where it does not lie there otherwise, or where it is taken most easily. */
function placed(model: Model, phrase: KeptPhrase, tune: Tune): readonly [Tune, PhraseWay] {
  const ground = groundOf(model);
  const { open } = model.neck;
  if (phrase.open.length === open.length) {
    for (const by of [0, -12, 12]) {
      const moved = raised(tune, by);
      const way = asWritten(ground, moved);
      if (!way) continue;
      // Other strings may lie otherwise under the hand; of a long phrase all places would take too long to try here.
      if (sameStrings(phrase.open, open) || tune.length > LONG) return [moved, way];
      const [best] = placesOfPhrase(ground, moved, {}, 1);
      return [moved, best && best.cost < way.cost ? best : way];
    }
  }
  const [best] = placesOfPhrase(ground, tune, {}, 1);
  return [
    tune,
    best ??
      asWritten(
        ground,
        tune.map((it) => ({ ...it, midi: null })),
      )!,
  ];
}

/** A phrase as it lies in a chart: in its key, the shorter way from the one that it was made in, on its strings. */
export const phraseHere = weakMapMemoize((model: Model, phrase: KeptPhrase): PhraseHere => {
  const by = shorterWay(pitchClass(note(phrase.root)), pitchClass(model.key.root));
  const made = tuneOf(phrase.notes, phrase.open);
  const [tune, way] = placed(model, phrase, raised(made, by));
  return { phrase, tune, way, notes: notesOn(tune, way) };
});

/** A phrase of the chart as it is now: in its key, on its strings. */
export const inChart = (
  { state, neck }: Model,
  phrase: Pick<KeptPhrase, 'name' | 'tags' | 'beats' | 'notes'>,
): KeptPhrase => ({
  type: 'phrase',
  name: phrase.name,
  tags: phrase.tags,
  root: state.key.root,
  scale: state.key.scale,
  open: neck.open,
  beats: phrase.beats,
  notes: phrase.notes,
});

/** A phrase in place of the one at `at`; a new one where that is null. */
export const withPhrase = (state: ChartState, at: number | null, phrase: KeptPhrase): ChartState => ({
  ...state,
  phrases: at === null ? [...state.phrases, phrase] : state.phrases.map((it, i) => (i === at ? phrase : it)),
});
export const withoutPhrase = (state: ChartState, at: number): ChartState => ({
  ...state,
  phrases: state.phrases.filter((_, i) => i !== at),
});

/** Room for a number after a name. */
const NUMBER = 4;
/** A name that no phrase of the chart has yet: the one asked for, else with a number. */
export function freeName(state: ChartState, asked: string): string {
  const taken = new Set(phrasesOf(state).map(({ phrase }) => phrase.name));
  const short = cutText(asked, PHRASE_KEPT.name - NUMBER);
  let name = short;
  for (let n = 2; taken.has(name); n++) name = `${short} ${n}`;
  return name;
}

/** The fingers of a way. */
export const fingeringOf = weakMapMemoize(({ run, cost, shifts }: PhraseWay): Fingering => ({
  steps: run,
  cost,
  shifts,
  stretches: run.filter((s) => stretchOf(s) !== 0).length,
}));
/** A phrase as what can be drilled. */
export const sourceOfPhrase = ({ neck, hand }: Model, { way }: PhraseHere): Source =>
  sourceFrom(neck, fingeringOf(way), hand);
