import { type KeptPhrase } from '@crow-ladder/contract';
import {
  capital,
  noteName,
  pitchClass,
  plural,
  pretty,
  resolveScale,
  scaleSaid,
  shorterWay,
  spotSaid,
  note,
} from '@crow-ladder/core';
import {
  backwards,
  type Changed,
  inMode,
  notesOn,
  type PhraseWay,
  raised,
  sequenced,
  toldSaid,
  type Tune,
  turnedRound,
} from '@crow-ladder/core/phrases';
import { bendRemarks } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model, modelOf } from '../../model/model.ts';
import { type Settings } from '@crow-ladder/contract';
import { transpose, withScale } from '../../model/moves.ts';
import { groundOf, inChart, phraseHere, type PhraseHere, phrasesOf } from '../../model/phrases.ts';
import { handSaid } from '../../model/wording.ts';
import { type Lot, type PhraseWork } from '../../workers/placed.ts';
import { type Found, type PhraseParams, type View } from './params.ts';

/** The phrase that is looked at, with its place among the chart's parts; null where there is none. */
export function phraseNow(
  model: Model,
  { phrase }: Pick<PhraseParams, 'phrase'>,
): { readonly at: number; readonly here: PhraseHere } | null {
  const all = phrasesOf(model.state);
  const now = all.find((it) => it.phrase.name === phrase) ?? all[0];
  return now ? { at: now.at, here: phraseHere(model, now.phrase) } : null;
}

/** As many places as are listed. */
const PLACES = 6;
const BESIDE = 3;

/** A phrase moved: what it is moved to, the chart as it would be there, and the lots that are to be placed. */
export interface Moved {
  readonly model: Model;
  readonly changed: Changed;
  /** What the chart would be, where that is another one: "C♯ minor pentatonic". */
  readonly instead: string | null;
  readonly lots: readonly (Lot & { readonly name: string })[];
}

const turned = ({ turn }: PhraseParams, tune: Tune, { key }: Model): Changed => {
  switch (turn) {
    case 'backwards':
      return { tune: backwards(tune), told: [] };
    case 'round':
      return turnedRound(tune, key);
    case 'up':
      return sequenced(tune, key, 1);
    case 'down':
      return sequenced(tune, key, -1);
  }
};

const movedFor = weakMapMemoize((model: Model, settings: Settings, here: PhraseHere, word: string): Moved => {
  const params = JSON.parse(word) as PhraseParams;
  const { tune } = here;
  const plain = { changed: { tune, told: [] }, model, instead: null };
  const lot = (it: Tune, more: Partial<Lot> = {}): Moved['lots'][number] => ({
    name: '',
    tune: it,
    within: {},
    most: PLACES,
    same: false,
    ...more,
  });
  switch (params.view) {
    case 'made':
    case 'chords':
      return { ...plain, lots: [] };
    case 'place': {
      const { frets, strings, octave } = params;
      const high = raised(tune, 12 * Number(octave));
      const only = strings && model.neck.rising.filter((s) => s >= strings[0] && s <= strings[1]);
      return {
        ...plain,
        changed: { tune: high, told: [] },
        lots: [lot(high, { within: { ...(frets && { frets }), ...(only && { strings: only }) } })],
      };
    }
    case 'positions': {
      const all = model.positions.ok ? model.positions.value : [];
      return {
        ...plain,
        lots: all.map((p) => ({
          ...lot(tune, { inside: [p.lowFret, p.highFret], most: 1 }),
          name: model.names()[p.index]!,
        })),
      };
    }
    case 'key': {
      const root = params.root ?? model.state.key.root;
      const by = shorterWay(pitchClass(model.key.root), pitchClass(note(root)));
      const there = modelOf(transpose(model.state, by, settings.spelling), settings);
      const high = raised(tune, by);
      return {
        model: there,
        changed: { tune: high, told: [] },
        instead: by === 0 ? null : `${pretty(noteName(there.key.root))} ${scaleSaid(there.scale)}`,
        lots: [
          lot(high, { same: true, most: BESIDE }),
          lot(raised(high, by > 0 ? -12 : 12), { same: true, most: 1 }),
        ],
      };
    }
    case 'mode': {
      const scale = resolveScale(params.scale ?? model.state.key.scale);
      if (!scale.ok) return { ...plain, lots: [] };
      const changed = inMode(tune, model.key, scale.value, params.way);
      const there = modelOf(withScale(model.state, scale.value.id), settings);
      const isSame = scale.value.id === model.scale.id;
      return {
        model: there,
        changed,
        instead: isSame ? null : `${pretty(noteName(there.key.root))} ${scaleSaid(there.scale)}`,
        lots: [lot(changed.tune, { same: true, most: BESIDE })],
      };
    }
    case 'turned': {
      const changed = turned(params, tune, model);
      return { ...plain, changed, lots: [lot(changed.tune, { most: BESIDE })] };
    }
  }
});
/** What a phrase is moved to; by what is asked of it in words, so that a step along it computes nothing. */
export const movedTo = (model: Model, settings: Settings, here: PhraseHere, params: PhraseParams): Moved => {
  const { view, octave, frets, strings, root, scale, way, turn } = params;
  const asked = { view, octave, frets, strings, root, scale, way, turn };
  return movedFor(model, settings, here, JSON.stringify(asked));
};

/** What the worker is asked for; null where nothing is to be placed. */
export const workOf = weakMapMemoize(({ model, lots }: Moved): PhraseWork | null =>
  lots.length ? { ground: groundOf(model), lots } : null,
);
export const workId = weakMapMemoize((work: PhraseWork): string => JSON.stringify(work));

/** A phrase as it lies somewhere else. */
export interface Place {
  /** What it is: the position, or where it begins. */
  readonly name: string;
  /** What it asks of the hand. */
  readonly effort: string;
  /** What differs to the ear, and what could not be kept. */
  readonly said: readonly string[];
  readonly way: PhraseWay;
  readonly tune: Tune;
}

/** The notes of a way as a small neck shows them. */
export const spotsOfWay = weakMapMemoize(({ run }: PhraseWay) => run.map(({ spot }) => ({ to: spot })));

/** The position that the hand gets to soonest from where the phrase was made, but for the one that it was made in. */
function nearest(ways: readonly PhraseWay[], was: PhraseWay): PhraseWay | undefined {
  const hand = ({ run }: PhraseWay): number => run[0]?.hand ?? 0;
  const far = (way: PhraseWay): number => Math.abs(hand(way) - hand(was));
  return ways.filter((way) => !sameWay(way, was)).sort((a, b) => far(a) - far(b))[0];
}

const openNotes = ({ run }: PhraseWay): number => run.filter(({ spot }) => spot.fret === 0).length;
/** How many notes lie on wound strings. */
const woundNotes = ({ run }: PhraseWay, plain: number): number =>
  run.filter(({ spot }) => spot.string > plain).length;

/** What sounds different from how it was made. */
function soundSaid({ model }: Moved, was: PhraseWay, now: PhraseWay): readonly string[] {
  const { plain } = groundOf(model);
  const [before, after] = [woundNotes(was, plain), woundNotes(now, plain)];
  const open = openNotes(now);
  return [
    ...(after === before
      ? []
      : [
          after > before
            ? `${plural(after, 'note')} on wound strings, ${before} as it was made: darker and rounder.`
            : `${after ? plural(after, 'note') : 'No note'} on wound strings, ${before} as it was made: brighter.`,
        ]),
    ...(open && open !== openNotes(was)
      ? [`${plural(open, 'open string')} ring${open === 1 ? 's' : ''}.`]
      : []),
  ];
}

/** What is hard to bend there. */
const hardSaid = ({ model }: Moved, { run }: PhraseWay): readonly string[] => [
  ...new Set(
    run.flatMap((step) =>
      step.bend ? bendRemarks(step, step.bend.by, groundOf(model).plain).map(({ message }) => message) : [],
    ),
  ),
];

const onStrings = (tune: Tune, { run, notes }: PhraseWay): boolean =>
  run.every(({ spot }, i) => spot.string === tune[notes[i]!]!.string);
const sameWay = (a: PhraseWay, b: PhraseWay): boolean =>
  a.run.length === b.run.length &&
  a.run.every(({ spot }, i) => spot.string === b.run[i]!.spot.string && spot.fret === b.run[i]!.spot.fret);

const placesFor = weakMapMemoize(
  (here: PhraseHere, moved: Moved, ways: Found['ways'], view: View): readonly Place[] => {
    const near = view === 'positions' ? nearest(ways.flat(), here.way) : undefined;
    const isCut = ({ told }: PhraseWay): boolean => told.some(({ kind }) => kind === 'off');
    // A place that notes fall off of is none beside one that holds them all; a position is one of the ladder all the same.
    const holdsAll = view !== 'positions' && ways.flat().some((way) => !isCut(way));
    return moved.lots.flatMap(({ name, tune }, lot) =>
      (ways[lot] ?? [])
        .filter((way) => !holdsAll || !isCut(way))
        .map((way): Place => {
          const first = way.run[0];
          const start = first ? spotSaid(first.spot) : 'nowhere';
          const told = [...moved.changed.told, ...way.told];
          return {
            name: capital(name || `from ${start}`),
            effort: [
              ...(name && first ? [`from ${start}`] : []),
              way.shifts ? plural(way.shifts, 'shift') : 'no shift',
              ...(way.widest ? [handSaid(way.widest)] : []),
              ...(sameWay(way, here.way)
                ? ['as it was made']
                : onStrings(tune, way)
                  ? ['on the strings that it was made on']
                  : []),
              ...(way === near ? ['the nearest from where it was made'] : []),
            ].join(', '),
            said: [...toldSaid(told), ...hardSaid(moved, way), ...soundSaid(moved, here.way, way)],
            way,
            tune,
          };
        }),
    );
  },
);
/** The places that were found for what is asked now; null while they are looked for. */
export function placesNow(
  here: PhraseHere,
  moved: Moved,
  { found, view }: PhraseParams,
): readonly Place[] | null {
  const work = workOf(moved);
  if (!work) return [];
  return found?.id === workId(work) ? placesFor(here, moved, found.ways, view) : null;
}
/** The one that is looked at. */
export const placeNow = (places: readonly Place[] | null, { pick }: PhraseParams): Place | null =>
  places?.[pick] ?? places?.[0] ?? null;

/** The phrase as it lies there, under a name. */
export const keptThere = (
  { model }: Moved,
  phrase: KeptPhrase,
  { tune, way }: Place,
  name = phrase.name,
): KeptPhrase => inChart(model, { ...phrase, name, notes: notesOn(tune, way) });
