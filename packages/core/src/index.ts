/**
 * The public face of the computation. Frets count from the nut or the capo, pitches are MIDI numbers, intervals are
 * half steps, lengths are mm. String 1 is the highest as a tuning is written; tunings are written lowest string first.
 */
export * from './result.ts';
export * from './note.ts';
export * from './degree.ts';
export * from './scale.ts';
export * from './scaleCatalogue.ts';
export * from './naming.ts';
export * from './ownScale.ts';
export * from './triad.ts';
export * from './alter.ts';
export * from './root.ts';
export * from './instrument.ts';
export * from './tuning.ts';
export * from './tuningTable.ts';
export * from './alias.ts';
export * from './said.ts';
export * from './place.ts';
export * from './placement.ts';
export * from './neck.ts';
export * from './kinds/option.ts';
export * from './kinds/spec.ts';
export * from './kinds/registry.ts';
export * from './layouts/layout.ts';
export * from './layouts/registry.ts';
export { inPosition } from './layouts/inPosition.ts';
export { octaveIn } from './layouts/regions.ts';
export { pair } from './layouts/pair.ts';
export { single } from './layouts/single.ts';
export { fourthsColumn } from './layouts/fourths.ts';
export * from './position.ts';
export * from './numbering.ts';
export * from './ladder/seam.ts';
export * from './ladder/anchors.ts';
export * from './ladder/atHand.ts';
export * from './ladder/places.ts';
export * from './compare.ts';
export * from './laws.ts';
export * from './run/run.ts';
export * from './run/route.ts';
export * from './run/costs.ts';
export * from './run/grips.ts';
export * from './run/groups.ts';
export * from './run/hands.ts';
export { isAlike, kindsOf } from './run/alike.ts';
export * from './run/fingers.ts';
export * from './run/articulate.ts';
export * from './run/strike.ts';
export * from './run/time.ts';
export * from './run/signature.ts';
export * from './run/tablature.ts';
export * from './run/strokes.ts';
export * from './run/schedule.ts';
export * from './notation/keySignature.ts';
export * from './notation/score.ts';
export * from './climbs/climb.ts';
export * from './climbs/registry.ts';
export {
  defineDrill,
  drillTitle,
  type Drill,
  type Drilled,
  type Drilling,
  type DrillOf,
  type DrillResult,
  type DrillSpec,
} from './drills/drill.ts';
export { seeded } from './drills/seeded.ts';
export * from './drills/registry.ts';
export * from './plan/task.ts';
export * from './plan/notes.ts';
export { costOfWay, waysOf } from './plan/search.ts';
export * from './plan/plan.ts';
export * from './sources/source.ts';
export * from './sources/position.ts';
export * from './sources/climb.ts';
export * from './sources/plan.ts';
export * from './moves/move.ts';
export * from './moves/registry.ts';
export * from './moves/says.ts';
export * from './moves/key.ts';
export * from './moves/mode.ts';
export * from './moves/stringSet.ts';
export * from './moves/fourthsWindow.ts';
export * from './moves/tuning.ts';
export * from './moves/capo.ts';
export * from './moves/tension.ts';
export * from './moves/fitTuning.ts';
export * from './practice/tempoLadder.ts';
export * from './practice/rounds.ts';
export * from './sound/pluck.ts';
export * from './sound/drone.ts';
