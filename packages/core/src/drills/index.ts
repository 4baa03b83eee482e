/** Ways to practise. */
export {
  defineDrill,
  drillTitle,
  type Drill,
  type Drilled,
  type Drilling,
  type DrillOf,
  type DrillResult,
  type DrillSpec,
} from './drill.ts';
export * from './registry.ts';
