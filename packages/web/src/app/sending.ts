import { type KeptRound, type Practised, type Settings, type SettingsPatch } from '@crow-ladder/contract';
import { type ThunkAction, type UnknownAction } from '@reduxjs/toolkit';
import { type Outside } from '../ports/outside.ts';
import { type Entry } from '../ports/outbox.ts';
import { server, type WithServer } from './api.ts';
import { deleted, said } from './notice.ts';
import { isForNow, type Trouble } from './trouble.ts';

type Work<T> = ThunkAction<T, WithServer, Outside, UnknownAction>;

/** The shapes that are known, with one said to be, or not to be. */
export const withKnown = (all: readonly string[], shape: string, known: boolean): readonly string[] =>
  known === all.includes(shape) ? all : known ? [...all, shape] : all.filter((is) => is !== shape);

/** What the log holds of something, with rounds that it does not have yet. */
export function withRounds(log: Practised, more: readonly KeptRound[]): Practised {
  // One that is there may have been judged since.
  const news = more.filter(({ id, clean }) => log.rounds.find((is) => is.id === id)?.clean !== clean);
  if (!news.length) return log;
  const ids = new Set(news.map(({ id }) => id));
  const clean = news.flatMap((r) => (r.clean && r.tempo !== null ? [r.tempo] : []));
  return {
    best: clean.length ? Math.max(log.best ?? 0, ...clean) : log.best,
    rounds: [...news, ...log.rounds.filter(({ id }) => !ids.has(id))].sort((a, b) =>
      b.at.localeCompare(a.at),
    ),
  };
}

/** How often a change that met another one is made anew. */
const TRIES = 5;

/** A list with what one change of it took out and put in. */
function merged(
  is: readonly unknown[],
  from: readonly unknown[],
  to: readonly unknown[],
): readonly unknown[] {
  const word = (it: unknown): string => JSON.stringify(it);
  const has = (all: readonly unknown[], it: unknown): boolean =>
    all.some((other) => word(other) === word(it));
  const came = to.filter((it) => !has(from, it) && !has(is, it));
  return [...came, ...is.filter((it) => !has(from, it) || has(to, it))];
}

/** A change of settings as it is made where they stand otherwise: lists get both changes, of one value alone this one stands. */
export function rebased({ from, to }: SettingsPatch, is: Settings): SettingsPatch {
  const names = Object.keys(to) as (keyof Settings)[];
  const become = (name: keyof Settings): unknown => {
    const [was, now, stands] = [from[name], to[name], is[name]];
    return Array.isArray(was) && Array.isArray(now) && Array.isArray(stands)
      ? merged(stands as unknown[], was as unknown[], now as unknown[])
      : now;
  };
  return {
    from: Object.fromEntries(names.map((name) => [name, is[name]])),
    to: Object.fromEntries(names.map((name) => [name, become(name)])),
  };
}

const sendSettings =
  (first: SettingsPatch): Work<Promise<Trouble | null>> =>
  async (send) => {
    const stands = (settings: Settings): void =>
      void send(server.util.upsertQueryData('settings', undefined, settings));
    let patch = first;
    for (let tries = 0; ; tries++) {
      const { data, error } = await send(server.endpoints.changeSettings.initiate(patch));
      if (data) {
        stands(data);
        const isOver = tries > 0 && Object.values(patch.to).some((value) => !Array.isArray(value));
        if (isOver) send(said({ text: 'This setting was changed elsewhere as well; yours stands now.' }));
        return null;
      }
      const { current, ...trouble } = error as Trouble<Settings>;
      if (current) stands(current);
      if (!current || tries === TRIES) return trouble;
      patch = rebased(patch, current);
    }
  };

/** Sends one entry. Resolves to why it could not be sent or was refused; null once it is done. What comes of it is told. */
const sendIt =
  ({ what }: Entry): Work<Promise<Trouble | null>> =>
  async (send) => {
    const { setKnown, addRound, addRounds, noteRound, removeRound, lookAt, remove } = server.endpoints;
    const { addCards, restCard, removeCard, addReview, removeReview } = server.endpoints;
    switch (what.kind) {
      case 'settings':
        return send(sendSettings(what.patch));
      // What was sent is shown as the server has it by now, until it is read again.
      case 'known': {
        const { error } = await send(setKnown.initiate(what));
        if (error) return error as Trouble;
        const { shape, known } = what;
        send(server.util.updateQueryData('known', undefined, (all) => withKnown(all, shape, known)));
        return null;
      }
      case 'round': {
        const { round } = what;
        const { error } = await send(addRound.initiate(round));
        if (error) return error as Trouble;
        const { drill, shape, perBeat } = round;
        send(
          server.util.updateQueryData('practised', { drill, shape, perBeat }, (all) =>
            withRounds(all, [round]),
          ),
        );
        return null;
      }
      case 'rounds':
        return troubleOf(await send(addRounds.initiate(what.rounds)));
      case 'roundNote':
        return isGone(troubleOf(await send(noteRound.initiate(what))));
      case 'roundOut': {
        const { error } = await send(removeRound.initiate(what.id));
        return isGone(error as Trouble | undefined);
      }
      case 'cards':
        return troubleOf(await send(addCards.initiate(what.cards)));
      case 'cardRests':
        return isGone(troubleOf(await send(restCard.initiate(what))));
      case 'cardOut':
        return isGone(troubleOf(await send(removeCard.initiate(what.id))));
      // A card that was taken away elsewhere needs no answer any more.
      case 'review':
        return isGone(troubleOf(await send(addReview.initiate(what.review))));
      case 'reviewOut':
        return isGone(troubleOf(await send(removeReview.initiate(what.id))));
      case 'look': {
        const { error } = await send(lookAt.initiate(what));
        return isGone(error as Trouble | undefined);
      }
      case 'delete': {
        const { seen, more } = what;
        const { kind, id, name } = seen;
        const done = await send(remove.initiate(seen));
        const { current, ...trouble } = (done.error ?? {}) as Partial<Trouble<{ readonly revision: number }>>;
        if (trouble.code === 'conflict' && current) {
          const insist = { ...seen, revision: current.revision };
          send(said({ text: `“${name}” was changed elsewhere meanwhile, so it was not deleted.`, insist }));
          return null;
        }
        if (trouble.code !== undefined) return isGone(trouble as Trouble);
        const it = { kind, id, name };
        send(deleted.actions.gone(it));
        send(said({ text: `Deleted “${name}”.${more}`, undo: it }));
        return null;
      }
    }
  };
const troubleOf = ({ error }: { readonly error?: unknown }): Trouble | null =>
  (error as Trouble | undefined) ?? null;
/** What is not there any more needs nothing more. */
const isGone = (trouble: Trouble | null | undefined): Trouble | null =>
  !trouble || trouble.code === 'not-found' ? null : trouble;

/** Sends one entry. Resolves to why it has to wait; null once it is done, or refused for good, which is told. */
export const sendOne =
  (entry: Entry): Work<Promise<Trouble | null>> =>
  async (send) => {
    const trouble = await send(sendIt(entry));
    if (trouble && isForNow(trouble)) return trouble;
    if (trouble) send(said({ text: `${WHAT[entry.what.kind]}${trouble.message}` }));
    return null;
  };
const WHAT: Readonly<Record<Entry['what']['kind'], string>> = {
  settings: '',
  known: '',
  round: 'This round is not in the log of practice: ',
  rounds: 'These rounds are not in the log of practice: ',
  roundNote: 'This note is not kept: ',
  roundOut: '',
  cards: 'These cards are not kept: ',
  cardRests: '',
  cardOut: '',
  review: 'This answer is not kept: ',
  reviewOut: '',
  look: '',
  delete: '',
};
