import {
  createSlice,
  nanoid,
  type PayloadAction,
  type ThunkAction,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { type Work as ChartWork } from '../ports/journal.ts';
import { type Outside } from '../ports/outside.ts';
import { type Entry, type Posted } from '../ports/outbox.ts';
import { type WithServer } from './api.ts';
import { sendOne } from './sending.ts';
import { notKept, type WithStanding } from './standing.ts';
import { againAfter, type Trouble } from './trouble.ts';

/** What waits to be sent, as this page knows of it. */
export interface Outbox {
  readonly entries: readonly Entry[];
  /** Why they wait; null while they are on their way. */
  readonly trouble: Trouble | null;
  /** Charts that were made on another library, in tabs that are gone: they wait for the player to decide. */
  readonly apart: readonly ChartWork[];
}
export interface WithOutbox {
  readonly outbox: Outbox;
}
const isSame = (a: Entry, b: Entry): boolean =>
  a.key === b.key && a.at === b.at && a.nth === b.nth && a.tab === b.tab;

export const outbox = createSlice({
  name: 'outbox',
  initialState: { entries: [], trouble: null, apart: [] } as Outbox,
  reducers: {
    /** One under the same key takes the place of the other. */
    posted: (at, { payload: entry }: PayloadAction<Entry>): Outbox => ({
      ...at,
      entries: [...at.entries.filter((e) => e.key !== entry.key), entry],
    }),
    /** What tabs that are gone left. */
    entriesFound: (at, { payload }: PayloadAction<readonly Entry[]>): Outbox => ({
      ...at,
      entries: [...payload.filter((e) => !at.entries.some((is) => is.key === e.key)), ...at.entries],
    }),
    /** One was sent, refused for good, or given up. */
    entryDone: (at, { payload: entry }: PayloadAction<Entry>): Outbox => ({
      ...at,
      entries: at.entries.filter((e) => !isSame(e, entry)),
    }),
    apartFound: (at, { payload: apart }: PayloadAction<readonly ChartWork[]>): Outbox => ({ ...at, apart }),
    entriesWait: (at, { payload: trouble }: PayloadAction<Trouble | null>): Outbox => ({ ...at, trouble }),
  },
});
export const { posted, entriesFound, entryDone, entriesWait, apartFound } = outbox.actions;

type State = WithOutbox & WithStanding & WithServer;
type Work<T> = ThunkAction<T, State, Outside, UnknownAction>;

/** The name that a tab holds as long as it lives. */
export const tabLock = (tab: string): string => `crow-ladder.tab.${tab}`;
/** Says of a tab whether it is there still. */
export async function livingTabs(locks: Outside['locks']): Promise<(tab: string) => boolean> {
  const held = await locks.held();
  return (tab) => held.has(tabLock(tab));
}
/** Held by the tab that sends. */
const SENDS = 'crow-ladder.outbox';
/** How long the look at a chart rests before it is sent, in ms. */
const LOOK_MS = 700;

/** Whether something made on a library is for the one that the server has, as far as either is known. */
export const isForLibrary = (made: string | null, { standing: { library } }: WithStanding): boolean =>
  made === null || library === null || made === library;

/** How sending stands in a page, beside what its store says. */
interface Sender {
  nth: number;
  /** The sending under way, and whether more came meanwhile. */
  now: Promise<void> | null;
  more: boolean;
  /** How often it failed in a row, and what calls off the next try. */
  times: number;
  callOff: () => void;
}
const SENDERS = new WeakMap<Outside, Sender>();
function senderOf(outside: Outside): Sender {
  if (!SENDERS.has(outside))
    SENDERS.set(outside, { nth: 0, now: null, more: false, times: 0, callOff: () => undefined });
  return SENDERS.get(outside)!;
}

/**
 * Keeps what is to be sent, in the same task, and sends it. Resolves once it was sent or has to wait. What is posted under a key
 * takes the place of what waits under it.
 */
export const post =
  (what: Posted, key: string = nanoid()): Work<Promise<void>> =>
  (send, getState, outside) => {
    const { journal, clock, tab } = outside;
    const sender = senderOf(outside);
    const { library } = getState().standing;
    const entry: Entry = { key, at: clock.now(), nth: sender.nth++, tab, library, what };
    journal.post(entry).catch(() => send(notKept()));
    send(posted(entry));
    if (what.kind !== 'look') return send(sendAll());
    sender.callOff();
    sender.callOff = clock.after(LOOK_MS, () => void send(sendAll()));
    return Promise.resolve();
  };

/** Sends all that waits, in order, while no other tab sends; what fails for now is tried again after a while that grows. */
export const sendAll = (): Work<Promise<void>> => (send, _, outside) => {
  const sender = senderOf(outside);
  if (sender.now) {
    sender.more = true;
    return sender.now;
  }
  const all = async (): Promise<void> => {
    do {
      sender.more = false;
      await send(sendTurn());
    } while (sender.more);
  };
  sender.now = all().finally(() => (sender.now = null));
  return sender.now;
};

const sendTurn = (): Work<Promise<void>> => async (send, getState, outside) => {
  const { journal, locks, channel, clock, tab } = outside;
  const sender = senderOf(outside);
  const next = (): Entry | undefined =>
    getState().outbox.entries.find((e) => isForLibrary(e.library, getState()));
  if (!next()) return;
  sender.callOff();
  const letGo = await locks.hold(SENDS);
  try {
    for (let entry = next(); entry; entry = next()) {
      // What a tab left that is gone may have been sent by another one meanwhile.
      const isLeft = entry.tab !== tab && !(await journal.entries()).some((e) => isSame(e, entry!));
      const trouble = isLeft ? null : await send(sendOne(entry));
      if (trouble) {
        send(entriesWait(trouble));
        sender.callOff = clock.after(againAfter(trouble, sender.times++), () => void send(sendAll()));
        return;
      }
      await journal.sent(entry).catch(() => undefined);
      send(entryDone(entry));
      channel.tell({ is: 'sent', kind: entry.what.kind });
    }
    sender.times = 0;
    send(entriesWait(null));
  } finally {
    letGo();
  }
};

/** Finds what tabs that are gone left unsent, and sends it. */
export const sendLeft =
  (): Work<Promise<void>> =>
  async (send, _, { journal, locks, tab }) => {
    if (!(await journal.opened)) return;
    const left = (await journal.entries()).filter((e) => e.tab !== tab);
    if (left.length) {
      const isAlive = await livingTabs(locks);
      send(entriesFound(left.filter((e) => !isAlive(e.tab))));
    }
    await send(sendAll());
  };
