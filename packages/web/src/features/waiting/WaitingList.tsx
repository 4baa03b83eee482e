import { type Settings } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { isForLibrary, post, sendAll } from '../../app/outbox.ts';
import { type Work } from '../../ports/journal.ts';
import { type Entry, type Posted } from '../../ports/outbox.ts';
import { discardApart, dropEntry, keepApart } from '../../sessions/left.ts';
import { saveSession } from '../../sessions/saving.ts';
import { allSessions, isHeldUp, type Session } from '../../sessions/sessions.ts';
import { useAll, useSendAll } from '../../sessions/state.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { download } from '../../ui/download.ts';

const SETTINGS: Readonly<Record<keyof Settings, string>> = {
  theme: 'the theme',
  spelling: 'the spelling',
  numbering: 'names of positions',
  fingering: 'the fingering',
  spanMm: 'your span',
  labels: 'what marks say',
  stringOnTop: 'the string on top',
  handed: 'the hand',
  frets: 'the fret spacing',
  colours: 'the colour',
  letterKeys: 'keys of a single letter',
  seen: 'hints that you closed',
  windowRecord: 'your record in the drill',
  weekMinutes: 'your minutes a week',
  tempoGoals: 'tempos that are goals',
  favourites: 'your favourite scales',
  ownScales: 'names of your own scales',
};

/** What waits, in words. */
function entrySaid(what: Posted): string {
  switch (what.kind) {
    case 'settings': {
      const names = Object.keys(what.patch.to) as (keyof Settings)[];
      return `A setting: ${names.map((name) => SETTINGS[name]).join(', ')}`;
    }
    case 'known':
      return what.known ? 'A shape that you know' : 'A shape that you do not know any more';
    case 'round':
      return `A round of practice: ${what.round.name}, at ${what.round.tempo ?? 'a tempo of its own'}`;
    case 'rounds':
      return `A log that was kept elsewhere: ${plural(what.rounds.length, 'round')}`;
    case 'roundNote':
      return 'A note on a round';
    case 'roundOut':
      return 'A round that is taken out of the log';
    case 'cards':
      return `What is to be learned: ${plural(what.cards.length, 'card')}`;
    case 'cardRests':
      return what.rested ? 'A card that rests' : 'A card that is asked again';
    case 'cardOut':
      return 'A card that is taken away';
    case 'review':
      return 'An answer to a card';
    case 'reviewOut':
      return 'An answer that is taken back';
    case 'delete':
      return `“${what.seen.name}” is deleted`;
    case 'look':
      return 'How a chart is looked at';
  }
}

const WHY = {
  conflict: 'It was changed elsewhere as well: open it to choose.',
  apart: 'It was made on another library than the one that is here now.',
  server: 'It waits for the server.',
} as const;

/** All that waits to be sent, with the reason and what can be done. */
export function WaitingList({ onClose }: { readonly onClose: () => void }) {
  const send = useSendAll();
  const navigate = useNavigate();
  const state = useAll((s) => s);
  const { entries, trouble, apart } = state.outbox;
  const sessions = allSessions(state).filter(isHeldUp);
  const why = ({ save, trouble: its }: Session): string =>
    save === 'conflict' ? WHY.conflict : (its?.message ?? WHY.server);
  const open = (id: string): void => {
    onClose();
    void navigate(`/charts/${id}`);
  };
  const again = (): void => {
    for (const { id, save } of sessions) if (save === 'failed') void send(saveSession(id));
    void send(sendAll());
  };
  const save = (): void => {
    const charts = [...sessions, ...apart].map(({ id, draft }) => ({ id, ...draft }));
    const file = JSON.stringify({ charts, others: entries.map((e) => e.what) }, null, 1);
    download('crow-ladder-not-sent.json', new Blob([file], { type: 'application/json' }));
  };
  const none = !entries.length && !sessions.length && !apart.length;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Not sent yet"
      text="It is kept in this browser, and sent by itself as soon as it can be."
    >
      {none && <p>Everything is sent.</p>}
      <ul className="max-h-[50vh] overflow-y-auto border-t border-hair">
        {sessions.map((session) => (
          <Row key={session.id} what={session.draft.name} why={why(session)}>
            <button type="button" className="button" onClick={() => open(session.id)}>
              Open <span className="sr-only">{session.draft.name}</span>
            </button>
          </Row>
        ))}
        {apart.map((work) => (
          <Apart key={`${work.id} ${work.tab}`} work={work} />
        ))}
        {entries.map((entry) => {
          const isApart = !isForLibrary(entry.library, state);
          return (
            <Row
              key={entry.key}
              what={entrySaid(entry.what)}
              why={isApart ? WHY.apart : (trouble?.message ?? WHY.server)}
            >
              {isApart && <Offer entry={entry} />}
            </Row>
          );
        })}
      </ul>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="button button-strong" onClick={again} disabled={none}>
          Try now
        </button>
        <button type="button" className="button" onClick={save} disabled={none}>
          Save it as a file
        </button>
      </div>
    </Dialog>
  );
}

interface RowProps {
  readonly what: string;
  readonly why: string;
  readonly children?: ReactNode;
}
const Row = ({ what, why, children }: RowProps) => (
  <li className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair py-2">
    <div className="min-w-40 grow basis-0 [overflow-wrap:anywhere]">
      <p className="font-semibold">{what}</p>
      <p className="text-sm text-soft">{why}</p>
    </div>
    {children}
  </li>
);

/** A chart that was made on another library. */
function Apart({ work }: { readonly work: Work }) {
  const send = useSendAll();
  const name = work.draft.name || 'A new chart';
  return (
    <Row what={name} why={WHY.apart}>
      <button type="button" className="button" onClick={() => void send(keepApart(work))}>
        Keep it as a new chart
      </button>
      <button type="button" className="button" onClick={() => void send(discardApart(work))}>
        Discard <span className="sr-only">{name}</span>
      </button>
    </Row>
  );
}

/** What else was meant for another library: sent to this one, or not at all. */
function Offer({ entry }: { readonly entry: Entry }) {
  const send = useSendAll();
  const drop = (): void => void send(dropEntry(entry));
  return (
    <>
      <button
        type="button"
        className="button"
        onClick={() => {
          drop();
          void send(post(entry.what));
        }}
      >
        Send it here
      </button>
      <button type="button" className="button" onClick={drop}>
        Discard
      </button>
    </>
  );
}
