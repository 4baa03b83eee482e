import { nanoid } from '@reduxjs/toolkit';
import { server } from '../app/api.ts';
import { sendLeft } from '../app/outbox.ts';
import { notKept } from '../app/standing.ts';
import { type Keeping, OLD_DRAFTS } from '../ports/keeping.ts';
import { type Outside } from '../ports/outside.ts';
import { type Entry } from '../ports/outbox.ts';
import { heardOf, resumeLeft } from './opening.ts';
import { isFollowing, sessionOf } from './sessions.ts';
import { catchUp } from './saving.ts';
import { type Store } from './state.ts';

/** What is read anew where another tab has sent something. */
const READ_ANEW = {
  settings: ['settings'],
  known: ['known'],
  round: ['practice'],
  rounds: ['practice'],
  roundNote: ['practice'],
  roundOut: ['practice'],
  cards: ['recall'],
  cardRests: ['recall'],
  cardOut: ['recall'],
  review: ['recall'],
  reviewOut: ['recall'],
  look: [],
  delete: ['charts', 'instruments', 'bin'],
} as const satisfies Readonly<Record<Entry['what']['kind'], readonly string[]>>;
/** How long after a tab said that it goes it is looked for what it left, in ms. */
const LEFT_MS = 500;

/** Whether the browser has drafts of before there was a journal. */
function keepsOld(keeping: Keeping): boolean {
  try {
    return (keeping.getItem(OLD_DRAFTS) ?? '[]') !== '[]';
  } catch {
    return false;
  }
}

/**
 * Goes on with what tabs that are gone left behind, follows what other tabs do, and says where nothing can be kept. Resolves once what
 * was left is on its way.
 */
export async function live(store: Store, { journal, channel, clock, keeping }: Outside): Promise<void> {
  const { dispatch, getState } = store;
  const takeUp = async (): Promise<void> => {
    await dispatch(resumeLeft());
    await dispatch(sendLeft());
  };
  channel.listen((message) => {
    if (message.is === 'gone') return void clock.after(LEFT_MS, () => void takeUp());
    if (message.is === 'sent') return void dispatch(server.util.invalidateTags([...READ_ANEW[message.kind]]));
    dispatch(server.util.invalidateTags(['charts']));
    // A tab without changes of its own follows.
    const session = sessionOf(getState(), message.id);
    if (!session || !isFollowing(session)) return;
    void dispatch(catchUp(message.id));
  });
  if (!(await journal.opened)) return void dispatch(notKept());
  if (keepsOld(keeping))
    await import('./oldDrafts.ts').then((m) => m.takeOldDrafts({ journal, keeping }, nanoid));
  const reading = dispatch(server.endpoints.settings.initiate());
  await heardOf(reading.unwrap(), clock);
  reading.unsubscribe();
  await takeUp();
}
