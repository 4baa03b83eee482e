import { type Fields, isFields } from './fields.ts';
import { runPart } from './parts/run.ts';

/** Version 2 kept climbs as whatever stood there, and a plan in the word of an address. */
export function upgrade2({ runs, ...rest }: Fields): Fields {
  const kept = Array.isArray(runs)
    ? runs.map((run: unknown) => (isFields(run) ? runPart.upgrade(run, rest) : run))
    : runs;
  return { ...rest, v: 3, ...(kept === undefined ? {} : { runs: kept }) };
}
