import { type ChartDraft, type ChartState } from '@crow-ladder/contract';
import { nanoid, type ThunkAction, type UnknownAction } from '@reduxjs/toolkit';
import { said } from '../app/notice.ts';
import { apartFound, isForLibrary, livingTabs } from '../app/outbox.ts';
import { type WithStanding } from '../app/standing.ts';
import { type Trouble } from '../app/trouble.ts';
import { type Resumed, type Work } from '../ports/journal.ts';
import { type Clock, rest } from '../ports/clock.ts';
import { type Outside } from '../ports/outside.ts';
import { catchUp, keepAsChart, nameOfMine, type SavingOutside } from './saving.ts';
import { isFollowing, opened, resumed, sessionOf, started, type WithSessions } from './sessions.ts';
import { walked } from './steps.ts';

export type Thunk<T> = ThunkAction<T, WithSessions & WithStanding, Outside & SavingOutside, UnknownAction>;

/** Work that goes on here; what the server has of it is left to the saving. */
function resume({ work, steps }: Resumed): ReturnType<typeof resumed> {
  const { id, revision, draft, sent, of, kept, back } = work;
  const named = draft.name !== '';
  const save = kept ? 'saved' : named ? 'pending' : 'unsaved';
  return resumed({
    id,
    revision,
    draft,
    sent,
    of,
    save,
    trouble: null,
    theirs: null,
    ...walked(draft, steps, back),
  });
}

/** The work in the journal that no tab has any more, the newest first; of this library, where that is known. */
const orphans =
  (isWanted: (work: Work) => boolean): Thunk<Promise<readonly Work[]>> =>
  async (_, getState, { journal, locks, tab }) => {
    if (!(await journal.opened)) return [];
    const wanted = (await journal.works()).filter((w) => w.tab !== tab && isWanted(w));
    if (!wanted.length) return [];
    const isAlive = await livingTabs(locks);
    return wanted
      .filter((w) => !isAlive(w.tab) && isForLibrary(w.library, getState()))
      .sort((a, b) => b.at - a.at);
  };

/**
 * Takes over what tabs that are gone left of one chart: the newest goes on here, other work that the server does not have becomes
 * charts of their own.
 */
const takeOver =
  (left: readonly Work[]): Thunk<Promise<Resumed | null>> =>
  async (send, getState, { journal, tab }) => {
    let newest: Resumed | null = null;
    for (const work of left) {
      const isFirst = !newest;
      if (work.kept && !isFirst) {
        await journal.drop(work);
        continue;
      }
      const session = sessionOf(getState(), work.id);
      if (isFirst && (!session || (isFollowing(session) && !work.kept))) {
        newest = await journal.adopt(work, tab);
        continue;
      }
      if (work.kept) continue;
      // In the journal as another chart before it goes as this one.
      send(keepBeside(work.draft));
      await journal.drop(work);
    }
    return newest;
  };

/** Keeps work beside what stands under its name, and tells it. */
const keepBeside =
  (draft: ChartDraft): Thunk<void> =>
  (send) => {
    const name = nameOfMine(draft.name || 'New chart');
    send(keepAsChart({ ...draft, name }));
    send(
      said({
        text: `“${draft.name || 'A new chart'}” was changed in two tabs; one version is kept as “${name}”.`,
      }),
    );
  };

/** Goes on with what was made in tabs that are gone, and sends what waits to be sent. */
export const resumeLeft =
  (): Thunk<Promise<void>> =>
  async (send, _, { journal }) => {
    if (!(await journal.opened)) return;
    const left = await send(orphans((w) => !w.kept && w.draft.name !== ''));
    for (const id of new Set(left.map((w) => w.id))) {
      const going = await send(takeOver(left.filter((w) => w.id === id)));
      if (going) send(goOn(going));
    }
    await send(findApart());
  };

/** Finds the charts that were made on another library, and are not sent to this one. */
export const findApart =
  (): Thunk<Promise<void>> =>
  async (send, getState, { journal, locks, tab }) => {
    const isAlive = await livingTabs(locks);
    const isApart = (w: Work): boolean =>
      !w.kept && w.tab !== tab && !isAlive(w.tab) && !isForLibrary(w.library, getState());
    send(apartFound((await journal.works()).filter(isApart)));
  };
/** Goes on with what was taken over; beside what is made here, where the chart was opened and changed in the meantime. */
const goOn =
  (going: Resumed): Thunk<void> =>
  (send, getState) => {
    const session = sessionOf(getState(), going.work.id);
    if (!session || isFollowing(session)) send(resume(going));
    else if (!going.work.kept) send(keepBeside(going.work.draft));
  };

/** How long the server is waited for before what is kept here goes on without it, in ms. */
const SLOW_MS = 1500;
/** Which library the server has is known once it has answered anything; one that is slow is not waited for. */
export const heardOf = (answer: Promise<unknown>, clock: Clock): Promise<unknown> =>
  Promise.race([answer.catch(() => undefined), rest(clock, SLOW_MS)]);

/** How a chart is opened. */
interface Opening {
  /** How its address looks at it. */
  readonly front?: ChartState['front'] | undefined;
}

/**
 * Opens a chart: what the journal has of it goes on, else what the server has. Resolves to why it cannot be opened; null once it is.
 */
export const openChart =
  (id: string, opening: Opening = {}): Thunk<Promise<Trouble | null>> =>
  (send, _, { opening: under }) => {
    const now = under.get(id) ?? send(openIt(id, opening)).finally(() => under.delete(id));
    under.set(id, now);
    return now;
  };

const openIt =
  (id: string, { front }: Opening): Thunk<Promise<Trouble | null>> =>
  async (send, getState, { journal, charts, clock }) => {
    const isOpen = () => sessionOf(getState(), id) !== undefined;
    if (isOpen()) {
      // An open session goes on: what the server has is taken over only where nothing was changed here.
      if (sessionOf(getState(), id)!.revision > 0) void send(catchUp(id));
      return null;
    }
    const reading = charts(send).get(id);
    reading.catch(() => undefined);
    await heardOf(reading, clock);
    const going = await send(takeOver(await send(orphans((w) => w.id === id))));
    if (going && (isOpen() || !going.work.kept)) {
      send(goOn(going));
      return null;
    }
    try {
      const chart = await reading;
      if (isOpen()) return null;
      const { work, steps } = going ?? {};
      if (work?.revision === chart.revision) {
        const looked = front === undefined ? chart.state.front : front;
        const draft = { ...work.draft, state: { ...work.draft.state, front: looked } };
        send(resume({ work: { ...work, draft }, steps: steps! }));
      } else {
        if (work) await journal.drop(work);
        send(opened({ chart, ...(front === undefined ? {} : { front }) }));
      }
      return null;
    } catch (error) {
      const trouble = error as Trouble;
      if (isOpen()) return null;
      // What is kept here can be looked at and worked on while the server is away.
      if (going && trouble.code !== 'not-found') send(resume(going));
      else if (!(await send(follow(id)))) return trouble;
      return null;
    }
  };

/** Shows what another tab is making of a new chart, without a part in it. False where there is none. */
const follow =
  (id: string): Thunk<Promise<boolean>> =>
  async (send, getState, { journal }) => {
    if (!(await journal.opened)) return false;
    const isIt = (w: Work): boolean => w.id === id && w.revision === 0 && isForLibrary(w.library, getState());
    const work = (await journal.works()).find(isIt);
    if (!work) return false;
    const { draft, of } = work;
    if (!sessionOf(getState(), id)) send(started({ id, draft, touched: false, of }));
    return true;
  };

/** Resolves once what is made can be kept, or it is known that it cannot be. */
export const ready =
  (): Thunk<Promise<boolean>> =>
  (_, __, { journal }) =>
    journal.opened;

/** Begins a new chart with all that another one holds; `touched`: no address says it. Gives its id. */
export const begin =
  (
    draft: ChartDraft,
    { of = null, touched = false }: { of?: string | null; touched?: boolean } = {},
  ): Thunk<string> =>
  (send) => {
    const id = nanoid();
    send(started({ id, draft, touched, of }));
    return id;
  };
