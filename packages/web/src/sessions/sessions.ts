import { type Chart, type ChartDraft, type ChartState } from '@crow-ladder/contract';
import { createEntityAdapter, createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import { type Trouble } from '../app/api.ts';

/** How the work at hand stands to what the server keeps. */
export type SaveState = 'unsaved' | 'saved' | 'pending' | 'saving' | 'failed' | 'conflict';

/** An open chart: what is made of it here, with the way back, and how it stands to the server. */
export interface Session {
  /** The chart's id, which it has from its birth. */
  readonly id: string;
  /** 0 while the server has none. */
  readonly revision: number;
  readonly draft: ChartDraft;
  readonly past: readonly ChartDraft[];
  readonly future: readonly ChartDraft[];
  readonly save: SaveState;
  readonly trouble: Trouble | null;
  /** The other version, while a conflict waits for the player's decision. */
  readonly theirs: Chart | null;
}

const adapter = createEntityAdapter<Session>();
interface Sessions extends ReturnType<typeof adapter.getInitialState> {
  /** The session on the page, if any. */
  readonly front: string | null;
  /** The new chart that was begun last. */
  readonly begun: string | null;
}

/** A state that holds the sessions. */
export interface WithSessions {
  readonly sessions: Sessions;
}

const HISTORY = 200;
const draftOf = ({ name, tags, notes, state }: ChartDraft): ChartDraft => ({ name, tags, notes, state });
const fresh = (id: string, revision: number, draft: ChartDraft, save: SaveState): Session => ({
  id,
  revision,
  draft,
  past: [],
  future: [],
  save,
  trouble: null,
  theirs: null,
});

/** Whether a draft waits for the name under which it is saved. */
export const isUnnamed = ({ draft }: Session): boolean => draft.name === '';
/** A session with a change of its draft, which then waits to be saved. */
const edited = (session: Session, part: Pick<Session, 'draft' | 'past' | 'future'>): Session => ({
  ...session,
  ...part,
  save: isUnnamed(session) ? 'unsaved' : session.save === 'conflict' ? 'conflict' : 'pending',
});
/** A session that goes on from what the server has; what stood here stays within reach of undo. */
const taken = (session: Session, chart: Chart): Session => ({
  ...session,
  revision: chart.revision,
  past: [...session.past.slice(-HISTORY), session.draft],
  future: [],
  draft: draftOf(chart),
  save: 'saved',
  trouble: null,
  theirs: null,
});

/** Changes one session as a plain value: wrapping a long history for changing it in place would cost more than the change. */
function put(at: Draft<Sessions>, id: string, change: (session: Session) => Session): Sessions {
  const before = original(at) as Sessions;
  const session = before.entities[id];
  return session ? { ...before, entities: { ...before.entities, [id]: change(session) } } : before;
}

export const sessions = createSlice({
  name: 'sessions',
  initialState: adapter.getInitialState({ front: null, begun: null }) as Sessions,
  reducers: {
    /** A chart was read from the server for the first time. `state` is an unsaved state carried by the address. */
    opened: (
      at,
      { payload: { chart, state } }: PayloadAction<{ chart: Chart; state: ChartState | null }>,
    ) => {
      const draft = { ...draftOf(chart), state: state ?? chart.state };
      adapter.addOne(at as Sessions, fresh(chart.id, chart.revision, draft, state ? 'pending' : 'saved'));
    },
    /** A new chart is begun; the last one goes on only where it was to be saved. */
    started: (at, { payload: { id, state } }: PayloadAction<{ id: string; state: ChartState }>) => {
      const all = at as Sessions;
      const last = all.begun === null ? undefined : all.entities[all.begun];
      if (last?.save === 'unsaved') adapter.removeOne(all, last.id);
      adapter.setOne(all, fresh(id, 0, { name: '', tags: [], notes: '', state }, 'unsaved'));
      at.begun = id;
    },
    /** A new chart gets its name, in whatever state it is looked at. */
    named: (at, { payload: { id, name } }: PayloadAction<{ id: string; name: string }>) =>
      put(at, id, (s) => {
        const called = (draft: ChartDraft): ChartDraft => ({ ...draft, name });
        return {
          ...s,
          draft: called(s.draft),
          past: s.past.map(called),
          future: s.future.map(called),
          save: 'pending',
        };
      }),
    /** Work goes on as a chart of its own. */
    branched: (at, { payload: { id, draft } }: PayloadAction<{ id: string; draft: ChartDraft }>) => {
      adapter.setOne(at as Sessions, fresh(id, 0, draft, 'pending'));
    },
    /** A chart was read again: taken over only where nothing was changed here since. */
    arrived: (at, { payload: chart }: PayloadAction<Chart>) =>
      put(at, chart.id, (s) => (s.save === 'saved' && s.revision < chart.revision ? taken(s, chart) : s)),
    changed: (at, { payload: { id, part } }: PayloadAction<{ id: string; part: Partial<ChartDraft> }>) =>
      put(at, id, (s) =>
        edited(s, {
          draft: { ...s.draft, ...part },
          past: [...s.past.slice(-HISTORY), s.draft],
          future: [],
        }),
      ),
    undone: (at, { payload: id }: PayloadAction<string>) =>
      put(at, id, (s) => {
        const before = s.past.at(-1);
        return before
          ? edited(s, { draft: before, past: s.past.slice(0, -1), future: [s.draft, ...s.future] })
          : s;
      }),
    redone: (at, { payload: id }: PayloadAction<string>) =>
      put(at, id, (s) => {
        const [next, ...future] = s.future;
        return next ? edited(s, { draft: next, past: [...s.past, s.draft], future }) : s;
      }),
    saving: (at, { payload: id }: PayloadAction<string>) =>
      put(at, id, (s) => ({ ...s, save: 'saving', trouble: null })),
    /** A save was confirmed; changes made while it was on its way stay pending. */
    saved: (
      at,
      { payload: { id, chart, sent } }: PayloadAction<{ id: string; chart: Chart; sent: ChartDraft }>,
    ) =>
      put(at, id, (s) => {
        const untouched = s.draft === sent;
        return {
          ...s,
          revision: chart.revision,
          draft: untouched ? draftOf(chart) : s.draft,
          save: untouched ? 'saved' : 'pending',
          trouble: null,
          theirs: null,
        };
      }),
    saveFailed: (at, { payload: { id, trouble } }: PayloadAction<{ id: string; trouble: Trouble }>) =>
      put(at, id, (s) => ({
        ...s,
        save: trouble.code === 'conflict' ? 'conflict' : 'failed',
        trouble,
        theirs: trouble.current ?? null,
      })),
    /** After a conflict: my version goes on from their revision and is saved over it. */
    keptMine: (at, { payload: id }: PayloadAction<string>) =>
      put(at, id, (s) =>
        s.theirs ? { ...s, revision: s.theirs.revision, save: 'pending', theirs: null, trouble: null } : s,
      ),
    /** After a conflict: their version replaces mine, which stays within reach of undo. */
    tookTheirs: (at, { payload: id }: PayloadAction<string>) =>
      put(at, id, (s) => (s.theirs ? taken(s, s.theirs) : s)),
    /** Nothing here is wanted any more: it was deleted, replaced, or kept as a copy. */
    dropped: (at, { payload: ids }: PayloadAction<readonly string[]>) => {
      adapter.removeMany(at as Sessions, [...ids]);
    },
    entered: (at, { payload: id }: PayloadAction<string>) => ({ ...at, front: id }),
    left: (at, { payload: id }: PayloadAction<string>) => (at.front === id ? { ...at, front: null } : at),
  },
});

export const {
  opened,
  started,
  named,
  branched,
  arrived,
  changed,
  undone,
  redone,
  saving,
  saved,
  saveFailed,
  keptMine,
  tookTheirs,
  dropped,
  entered,
  left,
} = sessions.actions;

/** The session of an id, from the whole state. */
export const sessionOf = (state: WithSessions, id: string): Session | undefined =>
  state.sessions.entities[id];
/** The new chart that was begun last, while the server does not have it. */
export const begunIn = ({ sessions: { begun, entities } }: WithSessions): Session | undefined => {
  const session = begun === null ? undefined : entities[begun];
  return session?.revision === 0 ? session : undefined;
};
/** All sessions. */
export const allSessions = (state: WithSessions): readonly Session[] =>
  Object.values(state.sessions.entities);
