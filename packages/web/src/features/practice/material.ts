import { type KeptRun, layoutWord } from '@crow-ladder/contract';
import {
  climb,
  climbOf,
  CLIMBS,
  type Climbing,
  type Drilling,
  type Fingering,
  ok,
  placeId,
  plan,
  type Position,
  refuse,
  type Result,
  type Route,
  shapeOf,
  usualClimb,
} from '@crow-ladder/core';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { climbingOf } from '../../model/climbing.ts';
import { keptRuns, movedWithKey } from '../../model/keptRuns.ts';
import { knownId } from '../../model/known.ts';
import { type Model } from '../../model/model.ts';
import { taskOf } from '../../model/planTask.ts';

/** What is drilled: some notes, or several lots of them one after the other, with the fingers that take them. */
export interface Material {
  readonly lots: readonly { readonly drilling: Drilling; readonly fingering: Fingering }[];
  /** The same in every key. */
  readonly shape: string;
}

const POSITION = 'position';
const LADDER = 'ladder';
/** What begins the name of a climb, and of a run that was kept. */
const PREFIX = { climb: 'climb.', kept: 'kept.' } as const;

/** What can be drilled: the position in front, all of them, every climb, and the runs that are kept with the chart. */
export function materialsOf(model: Model): readonly { readonly id: string; readonly name: string }[] {
  const position = model.front && model.names()[model.front.position.index];
  return [
    { id: POSITION, name: position ?? 'the position in front' },
    { id: LADDER, name: 'every position in turn' },
    ...CLIMBS.map(({ kind, name }) => ({ id: PREFIX.climb + kind, name: `the climb ${name}` })),
    ...keptRuns(model.state).map(({ kept: { name } }) => ({ id: PREFIX.kept + name, name: `“${name}”` })),
  ];
}

/** The notes of a run that was kept, going up. */
function keptNotes(model: Model, climbing: Climbing, kept: KeptRun): Result<Route> {
  const { place, nearest, planned } = movedWithKey(model, kept);
  if (kept.type === 'plan') {
    const task = taskOf(model, planned(kept));
    if (!task.ok) return task;
    const ways = plan(task.value, kept.pick + 1);
    const way = ways[kept.pick] ?? ways[0];
    return way
      ? ok(way.steps.map(({ spot, finger }) => (finger ? { ...spot, by: finger } : spot)))
      : refuse(
          'climb.room',
          'This run has no way on this neck within its limits: open it in Ladder and loosen them.',
        );
  }
  const front = nearest(kept.start, kept.low);
  if (!front) return refuse('climb.room', 'The position that this run begins in is not in this layout.');
  return climb({ ...climbing, front, root: place(kept.at) }, kept.climb, {
    direction: 'up',
    topTwice: false,
  });
}

/** What is drilled by its id; null where no position is in front. What there is no longer is the position in front. */
export const materialOf = weakMapMemoize((model: Model, id: string): Result<Material> | null => {
  const { neck, key, positions, front, state } = model;
  const climbing = climbingOf(model);
  if (!front || !positions.ok || !climbing) return null;
  const all = positions.value;
  const drilling = (notes: Route, position: Position): Drilling => ({
    neck,
    key,
    notes,
    layout: state.layout,
    positions: all,
    front: position,
  });
  const inOne = (notes: Route, shape: string): Result<Material> =>
    ok({
      lots: [{ drilling: drilling(notes, front.position), fingering: model.fingers(notes) }],
      shape,
    });
  const { scale } = key;
  const kept = keptRuns(state).find(({ kept: { name } }) => id === PREFIX.kept + name)?.kept;
  if (kept) {
    const notes = keptNotes(model, climbing, kept);
    return notes.ok ? inOne(notes.value, `${scale.id} kept ${kept.name}`) : notes;
  }
  const asked = id.startsWith(PREFIX.climb) ? climbOf(id.slice(PREFIX.climb.length)) : undefined;
  if (asked) {
    const up = climb(climbing, usualClimb(asked, climbing), { direction: 'up', topTwice: false });
    return up.ok ? inOne(up.value, `${scale.id} ${id} ${shapeOf(front.position)}`) : up;
  }
  if (id !== LADDER) return inOne(front.position.spots, knownId(model, front.position));
  const lots = all.map((p) => ({
    drilling: drilling(p.spots, p),
    fingering: model.fingers(p.spots),
  }));
  return ok({ lots, shape: `${scale.id} ladder ${layoutWord(state.layout)}` });
});

/** Notes with the fingers that take them in the shape: a drill is played with those that were learned for it. */
export function inHand(notes: Route, { steps }: Fingering): Route {
  const by = new Map(steps.map(({ spot, finger }) => [placeId(spot), finger]));
  return notes.map((note) => {
    const finger = by.get(placeId(note));
    return finger ? { ...note, by: finger } : note;
  });
}
