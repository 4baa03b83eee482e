import { type Chart, type ChartDraft, type ChartState, FIRST_STATE } from '@crow-ladder/contract';
import { createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import { type Trouble } from './api.ts';

/** How the work at hand stands to what the server keeps. */
export type SaveState = 'unsaved' | 'saved' | 'pending' | 'saving' | 'failed' | 'conflict';

interface Workbench {
  /** Null for a chart that was never saved. */
  readonly chartId: string | null;
  readonly revision: number;
  readonly draft: ChartDraft;
  readonly past: readonly ChartDraft[];
  readonly future: readonly ChartDraft[];
  readonly save: SaveState;
  readonly trouble: Trouble | null;
  /** The other version, while a conflict waits for the player's decision. */
  readonly theirs: Chart | null;
  /** Position brought forward by hand, as the index along the neck; null follows the root spot. */
  readonly chosen: number | null;
  /** Which visit to a page of a new chart began this work. */
  readonly visit: string | null;
}

const emptyDraft = (state: ChartState): ChartDraft => ({ name: '', tags: [], notes: '', state });
const initial: Workbench = {
  chartId: null,
  revision: 0,
  draft: emptyDraft(FIRST_STATE),
  past: [],
  future: [],
  save: 'unsaved',
  trouble: null,
  theirs: null,
  chosen: null,
  visit: null,
};
const HISTORY = 200;

const draftOf = ({ name, tags, notes, state }: ChartDraft): ChartDraft => ({ name, tags, notes, state });
/** The state as it is, not wrapped for changing it in place: wrapping a long history would cost more than the change. */
const plain = (at: Draft<Workbench>): Workbench => original(at)!;
const touched = (at: Workbench): SaveState =>
  at.chartId === null ? 'unsaved' : at.save === 'conflict' ? 'conflict' : 'pending';

export const workbench = createSlice({
  name: 'workbench',
  initialState: initial,
  reducers: {
    /** A chart was read from the server. `state` is an unsaved state carried by the address. */
    opened: (_, { payload }: PayloadAction<{ chart: Chart; state: ChartState | null }>): Workbench => ({
      ...initial,
      chartId: payload.chart.id,
      revision: payload.chart.revision,
      draft: { ...draftOf(payload.chart), state: payload.state ?? payload.chart.state },
      save: payload.state ? 'pending' : 'saved',
    }),
    started: (_, { payload }: PayloadAction<{ state: ChartState; visit: string }>): Workbench => ({
      ...initial,
      draft: emptyDraft(payload.state),
      visit: payload.visit,
    }),
    changed: (at, { payload }: PayloadAction<Partial<ChartDraft>>): Workbench => {
      const now = plain(at);
      return {
        ...now,
        draft: { ...now.draft, ...payload },
        past: [...now.past.slice(-HISTORY), now.draft],
        future: [],
        save: touched(now),
        chosen: payload.state ? null : now.chosen,
      };
    },
    undone: (at): Workbench => {
      const now = plain(at);
      const { draft, past, future } = now;
      const before = past.at(-1);
      if (!before) return at;
      return {
        ...now,
        draft: before,
        past: past.slice(0, -1),
        future: [draft, ...future],
        save: touched(now),
        chosen: null,
      };
    },
    redone: (at): Workbench => {
      const now = plain(at);
      const [next, ...future] = now.future;
      if (!next) return at;
      const past = [...now.past, now.draft];
      return { ...now, draft: next, past, future, save: touched(now), chosen: null };
    },
    chose: (at, { payload }: PayloadAction<number | null>): Workbench => ({ ...at, chosen: payload }),
    saving: (at): Workbench => ({ ...at, save: 'saving', trouble: null }),
    /** A save was confirmed; changes made while it was on its way stay pending. */
    saved: (
      at,
      { payload }: PayloadAction<{ chart: Chart; sent: ChartDraft; chartId: string | null }>,
    ): Workbench => {
      if (at.chartId !== payload.chartId) return at;
      const untouched = plain(at).draft === payload.sent;
      return {
        ...at,
        chartId: payload.chart.id,
        revision: payload.chart.revision,
        draft: untouched
          ? draftOf(payload.chart)
          : { ...at.draft, name: at.draft.name || payload.chart.name },
        save: untouched ? 'saved' : 'pending',
        trouble: null,
        theirs: null,
      };
    },
    saveFailed: (at, { payload }: PayloadAction<Trouble>): Workbench => ({
      ...at,
      save: payload.code === 'conflict' ? 'conflict' : 'failed',
      trouble: payload,
      theirs: payload.current ?? null,
    }),
    /** After a conflict: my version goes on from their revision and is saved over it. */
    keptMine: (at): Workbench =>
      at.theirs ? { ...at, revision: at.theirs.revision, save: 'pending', theirs: null, trouble: null } : at,
    /** After a conflict: their version replaces mine, which stays within reach of undo. */
    tookTheirs: (at): Workbench =>
      at.theirs
        ? {
            ...at,
            revision: at.theirs.revision,
            past: [...at.past, at.draft],
            future: [],
            draft: draftOf(at.theirs),
            save: 'saved',
            theirs: null,
            trouble: null,
          }
        : at,
  },
});

export const {
  opened, started, changed, undone, redone, chose, saving, saved, saveFailed, keptMine, tookTheirs,
} = workbench.actions; // prettier-ignore
