import { type Chart, type ChartDraft, type ChartState } from '@crow-ladder/contract';
import { createEntityAdapter, createSlice, type Draft, original, type PayloadAction } from '@reduxjs/toolkit';
import { type Trouble, UNREACHABLE } from '../app/trouble.ts';
import { otherLibrary } from '../app/standing.ts';

/** How the work at hand stands to what the server keeps; `apart`: it was made on another library, and is not sent to this one. */
export type SaveState = 'unsaved' | 'saved' | 'pending' | 'saving' | 'failed' | 'conflict' | 'apart';

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
  /** What was sent and may have been saved unheard of: what drafts of it hold, in a word each. */
  readonly sent: readonly string[];
  /** Whether there is anything in it that an address does not say: from then on the journal has it. */
  readonly touched: boolean;
  /** The saved chart in whose address it came. */
  readonly of: string | null;
  /** Whether a text of it is being typed, which is no change yet and will be one. */
  readonly typing: boolean;
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
const APART: Trouble = {
  code: 'other-library',
  message: 'Another library took the place of the one that this was made on, so it is not saved there.',
};
/** Most of what was sent unheard of that is remembered. */
const MOST_SENT = 100;
export const draftOf = ({ name, tags, notes, state }: ChartDraft): ChartDraft => ({
  name,
  tags,
  notes,
  state,
});
const fresh = (
  id: string,
  revision: number,
  draft: ChartDraft,
  save: SaveState,
  part: Partial<Session> = {},
): Session => ({
  id,
  revision,
  draft,
  past: [],
  future: [],
  save,
  trouble: null,
  theirs: null,
  sent: [],
  touched: true,
  of: null,
  typing: false,
  ...part,
});

/** Whether a draft waits for the name under which it is saved. */
export const isUnnamed = ({ draft }: Session): boolean => draft.name === '';
/** Whether a chart is not saved and will not be by itself, or not for now: it failed, or waits for the player to decide. */
export const isHeldUp = ({ save }: Pick<Session, 'save'>): boolean =>
  save === 'failed' || save === 'conflict' || save === 'apart';
/** Whether nothing is made of a chart here that the server does not have: it follows what is made elsewhere. */
export const isFollowing = ({ save, touched, typing }: Session): boolean =>
  !typing && (save === 'saved' || !touched);
/** Whether two drafts differ by how the chart is looked at alone: that is kept with it without a revision. */
const isLook = (a: ChartDraft, b: ChartDraft): boolean =>
  a.name === b.name &&
  a.tags === b.tags &&
  a.notes === b.notes &&
  (Object.keys(b.state) as (keyof ChartState)[]).every(
    (part) => part === 'front' || a.state[part] === b.state[part],
  );
/** A session with a change of its draft, which then waits to be saved. */
function edited(session: Session, part: Pick<Session, 'draft' | 'past' | 'future'>): Session {
  const { save, draft } = session;
  const stays = save === 'conflict' || save === 'apart' || (save === 'saved' && isLook(draft, part.draft));
  return {
    ...session,
    ...part,
    touched: true,
    save: isUnnamed(session) ? 'unsaved' : stays ? save : 'pending',
  };
}
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
  sent: [],
});

/** What a confirmed save makes of a session: all of it is saved, or something before it, and what was changed since stays pending. */
const confirmed = (session: Session, chart: Chart, whole: boolean): Partial<Session> => ({
  revision: chart.revision,
  draft: whole ? draftOf(chart) : session.draft,
  save: whole ? 'saved' : 'pending',
  trouble: null,
  theirs: null,
  sent: [],
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
    /** A chart was read from the server for the first time. `front`: how its address looks at it. */
    opened: (
      at,
      { payload: { chart, front } }: PayloadAction<{ chart: Chart; front?: ChartState['front'] }>,
    ) => {
      const draft = draftOf(chart);
      const looked = front === undefined ? draft : { ...draft, state: { ...draft.state, front } };
      adapter.addOne(at as Sessions, fresh(chart.id, chart.revision, looked, 'saved', { touched: false }));
    },
    /** What the journal holds of a chart goes on. */
    resumed: (at, { payload: session }: PayloadAction<Omit<Session, 'touched' | 'typing'>>) => {
      adapter.setOne(at as Sessions, { ...session, touched: true, typing: false });
      if (session.revision === 0) at.begun = session.id;
    },
    /** A new chart is begun, as an address says it or with more in it; one begun before that holds nothing of its own goes. */
    started: (
      at,
      {
        payload: { id, draft, ...part },
      }: PayloadAction<{ id: string; draft: ChartDraft; touched: boolean; of: string | null }>,
    ) => {
      const all = at as Sessions;
      const last = all.begun === null ? undefined : all.entities[all.begun];
      if (last && !last.touched) adapter.removeOne(all, last.id);
      adapter.setOne(all, fresh(id, 0, { ...draft, name: '' }, 'unsaved', part));
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
          touched: true,
          save: 'pending',
        };
      }),
    /** Work goes on as a chart of its own. */
    branched: (at, { payload: { id, draft } }: PayloadAction<{ id: string; draft: ChartDraft }>) => {
      adapter.setOne(at as Sessions, fresh(id, 0, draft, 'pending'));
    },
    /** A chart was read again: taken over only where nothing was changed here since. */
    arrived: (at, { payload: chart }: PayloadAction<Chart>) =>
      put(at, chart.id, (s) => (isFollowing(s) && s.revision < chart.revision ? taken(s, chart) : s)),
    changed: (at, { payload: { id, part } }: PayloadAction<{ id: string; part: Partial<ChartDraft> }>) =>
      put(at, id, (s) =>
        edited(s, {
          draft: { ...s.draft, ...part },
          past: [...s.past.slice(-HISTORY), s.draft],
          future: [],
        }),
      ),
    /** A text of a chart begins to be typed, or is typed no more. */
    typed: (at, { payload: { id, typing } }: PayloadAction<{ id: string; typing: boolean }>) =>
      put(at, id, (s) => (s.typing === typing ? s : { ...s, typing })),
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
    /** What is sent is on its way: `held` is what it holds, in a word. */
    saving: (at, { payload: { id, held } }: PayloadAction<{ id: string; held: string }>) =>
      put(at, id, (s) => ({
        ...s,
        save: 'saving',
        trouble: null,
        sent: s.sent.includes(held) ? s.sent : [...s.sent.slice(-MOST_SENT), held],
      })),
    /** A save was confirmed, of what stands here (`whole`) or of something before it; what was changed since stays pending. */
    saved: (
      at,
      { payload: { id, chart, whole } }: PayloadAction<{ id: string; chart: Chart; whole: boolean }>,
    ) =>
      put(at, id, (s) => ({
        ...s,
        ...(s.save === 'apart' ? {} : confirmed(s, chart, whole)),
      })),
    /** A save came to nothing; what is apart already stays so, whatever was on its way. */
    saveFailed: (at, { payload: { id, trouble } }: PayloadAction<{ id: string; trouble: Trouble }>) =>
      put(at, id, (s) =>
        s.save === 'apart' || trouble.code === APART.code
          ? { ...s, save: 'apart', theirs: null, trouble: APART, sent: [] }
          : {
              ...s,
              save: trouble.code === 'conflict' && trouble.current ? 'conflict' : 'failed',
              trouble,
              theirs: trouble.current ?? null,
              sent: trouble.code === UNREACHABLE ? s.sent : [],
            },
      ),
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
  extraReducers: (build) => {
    build.addCase(otherLibrary, (at) => {
      const all = original(at) as Sessions;
      const here = Object.values(all.entities).filter((s) => s.save !== 'saved');
      const apart = here.map((s): Session =>
        s.save === 'unsaved' ? s : { ...s, save: 'apart', theirs: null, trouble: APART },
      );
      return { ...all, ...adapter.setAll(all, apart) };
    });
  },
});

export const {
  opened,
  resumed,
  started,
  named,
  branched,
  arrived,
  changed,
  typed,
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
/** All sessions. */
export const allSessions = (state: WithSessions): readonly Session[] =>
  Object.values(state.sessions.entities);
