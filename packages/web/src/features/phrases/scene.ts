import { type Settings } from '@crow-ladder/contract';
import { placeId } from '@crow-ladder/core';
import { type Layers, type Mark } from '@crow-ladder/picture';
import { withHeard } from '../../hearing/heardNotes.ts';
import { spotHead } from '../../model/describe.ts';
import { marksOf, type Shown } from '../../model/marks.ts';
import { type Model, modelOf } from '../../model/model.ts';
import { type PhraseHere } from '../../model/phrases.ts';
import { wayLayers } from '../../model/way.ts';
import { type Picking } from '../../task/task.ts';
import { closedTo, edited, writtenAt } from './editing.ts';
import { overNow } from './over.ts';
import { movedTo, phraseNow, placeNow, placesNow } from './moved.ts';
import { type PhraseParams } from './params.ts';

/** Which step of the run the cursor stands on; on a rest, the one before it. */
export const stepAt = (notes: readonly number[], cursor: number): number =>
  Math.max(
    0,
    notes.findLastIndex((note) => note <= cursor),
  );

/** A phrase on the neck: as it was made with the cursor on it, or where it was moved to, with where it was. */
export function scene(model: Model, params: PhraseParams, shown: Shown, settings: Settings): Partial<Layers> {
  const now = phraseNow(model, params);
  if (!now) return { marks: marksOf(model, shown) };
  const { here } = now;
  if (params.view === 'made') {
    const { run, notes } = here.way;
    if (!run.length) return { marks: marksOf(model, shown) };
    const layers = wayLayers(model, stepAt(notes, params.cursor), shown, run, 'phrase');
    return withHeard(model, layers, run, params.heard);
  }
  if (params.view === 'chords') return overScene(model, params, shown, here);
  const moved = movedTo(model, settings, here, params);
  const place = placeNow(placesNow(here, moved, params), params);
  if (!place?.way.run.length) return { marks: marksOf(model, shown) };
  const layers = withHeard(
    moved.model,
    wayLayers(moved.model, params.step, shown, place.way.run, 'phrase'),
    place.way.run,
    params.heard,
  );
  const taken = new Set(place.way.run.map(({ spot }) => placeId(spot)));
  const was = new Map(
    here.way.run
      .filter(({ spot }) => !taken.has(placeId(spot)))
      .map(({ spot }): [number, Mark] => [
        placeId(spot),
        {
          string: spot.string,
          fret: spot.fret,
          kind: 'was',
          label: '',
          name: () => `${spotHead(model, spot, () => null)}, a note of the phrase as it was made`,
        },
      ]),
  );
  return { ...layers, marks: [...layers.marks!.filter((m) => !was.has(placeId(m))), ...was.values()] };
}

/** A phrase over chords: notes of theirs filled, what rubs with a broken outline. */
function overScene(model: Model, params: PhraseParams, shown: Shown, here: PhraseHere): Partial<Layers> {
  const { run, notes } = here.way;
  const over = overNow(model, here, params);
  if (!run.length) return { marks: marksOf(model, shown) };
  const layers = wayLayers(model, Math.min(params.step, run.length - 1), shown, run, 'phrase');
  const kinds = new Map<number, Mark['kind']>();
  run.forEach(({ spot }, i) => {
    const is = over?.notes.find(({ note }) => note === notes[i])?.is;
    const kind = is === 'tone' ? 'shared' : is === 'rub' ? 'altered' : 'note';
    if (is && !kinds.has(placeId(spot))) kinds.set(placeId(spot), kind);
  });
  return {
    ...layers,
    marks: layers.marks!.map((mark) => {
      const kind = kinds.get(placeId(mark));
      return kind && mark.kind !== 'root' ? { ...mark, kind } : mark;
    }),
  };
}

/** A spot that is chosen while a phrase is made becomes its next note. */
export function picking(
  model: Model,
  params: PhraseParams,
  settings: Settings,
): Picking<PhraseParams> | null {
  const now = phraseNow(model, params);
  if (params.view !== 'made' || !now) return null;
  const closed = closedTo(now.here);
  return {
    word: 'Write it',
    pick: (place) => {
      const done = edited(model, params, writtenAt(place));
      return done.ok ? done.value.params : params;
    },
    change: (place) => (state) => {
      const done = edited(modelOf(state, settings), params, writtenAt(place));
      return done.ok ? done.value.state : state;
    },
    say: (place) => ({
      head: `${spotHead(model, place, () => null)}. ${closed ?? `Choose it to write it after note ${params.cursor + 1}.`}`,
      more: () => '',
    }),
  };
}

/** Frets beside what is looked at that a narrow screen shows with it. */
const BESIDE = 2;
/** The frets of what is looked at, some more on either side. */
export function frets(model: Model, params: PhraseParams): readonly [number, number] | null {
  const now = phraseNow(model, params);
  const found = params.view === 'made' || params.view === 'chords' ? undefined : params.found?.ways.flat();
  const way = found ? (found[params.pick] ?? found[0]) : now?.here.way;
  const all = way?.run.map(({ spot }) => spot.fret) ?? [];
  if (!now || !all.length) return null;
  return [Math.max(0, Math.min(...all) - BESIDE), Math.min(model.neck.frets, Math.max(...all) + BESIDE)];
}
