import { type Restored } from '@crow-ladder/contract';
import { momentSaid } from '../../ui/dates.ts';
import { plural } from '@crow-ladder/core';
import { nanoid } from '@reduxjs/toolkit';
import { useRef, useState } from 'react';
import { server } from '../../app/api.ts';
import { type Trouble, UNREACHABLE } from '../../app/trouble.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { Dialog } from '../../ui/Dialog.tsx';

/** How often the server is asked how far it is, and what stands there after an answer was lost, in ms. */
const ASK_MS = { progress: 700, lost: 2000 };
const pause = (ms: number): Promise<void> => new Promise((later) => setTimeout(later, ms));
const brings = ({ charts, instruments }: Restored): string =>
  `${plural(charts, 'chart')} and ${plural(instruments, 'instrument')}`;

/** A backup that is being brought back. */
type Bringing =
  | { readonly is: 'reading'; readonly id: string; readonly name: string; readonly size: number }
  | ({
      readonly is: 'ready' | 'replacing' | 'lost';
      readonly id: string;
      readonly name: string;
      readonly madeAt: string;
    } & Restored);

/** The whole library as a file, out and in. */
export function Library() {
  const send = useSend();
  const [take] = server.useTakeBackupMutation();
  const [replace] = server.useReplaceLibraryMutation();
  const [callOff] = server.useCallOffRestoreMutation();
  const [stateOf] = server.useLazyRestoreQuery();
  const [at, setAt] = useState<Bringing | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const sending = useRef<{ abort(): void } | null>(null);

  const end = (text: string | null): void => {
    setAt(null);
    setProblem(text);
  };
  const read = async (file: File): Promise<void> => {
    const id = nanoid();
    const { name, size } = file;
    setProblem(null);
    setAt({ is: 'reading', id, name, size });
    const request = take({ id, file });
    sending.current = request;
    const done = await request;
    sending.current = null;
    const trouble = done.error as (Trouble & { readonly name?: string }) | undefined;
    if (trouble?.name === 'AbortError') return;
    if (trouble)
      end(
        trouble.code === UNREACHABLE
          ? `${name} could not be sent to the server, or the server has stopped. Nothing was changed.`
          : `${name} is not brought back. ${trouble.message} Nothing was changed.`,
      );
    else if (done.data?.is === 'ready') setAt({ ...done.data, is: 'ready', id, name });
  };
  const cancel = (): void => {
    if (!at || at.is === 'replacing') return;
    sending.current?.abort();
    void callOff(at.id);
    end(null);
  };
  const go = async (ready: Bringing & { is: 'ready' | 'replacing' | 'lost' }): Promise<void> => {
    for (;;) {
      setAt({ ...ready, is: 'replacing' });
      const done = await replace(ready.id);
      if (done.data) {
        end(null);
        return void send(said({ text: `The library is back: ${brings(ready)}.` }));
      }
      const trouble = done.error as Trouble;
      if (trouble.code !== UNREACHABLE) return end(`${trouble.message}`);
      // It may have been done or not: what stands there now is asked for until it is known.
      setAt({ ...ready, is: 'lost' });
      let stands = await stateOf(ready.id);
      while ((stands.error as Trouble | undefined)?.code === UNREACHABLE) {
        await pause(ASK_MS.lost);
        stands = await stateOf(ready.id);
      }
      if (stands.error) return end((stands.error as Trouble).message);
      if (stands.data?.is !== 'done') {
        setProblem('The server was away for a moment. Nothing was changed yet.');
        return setAt({ ...ready, is: 'ready' });
      }
      // Replacing it once more changes nothing, and tells the whole page that it is done.
      await pause(ASK_MS.lost);
    }
  };
  return (
    <section className="flex flex-col gap-3 border-t-2 border-ink pt-4">
      <h2 className="text-xl font-semibold">The whole library</h2>
      <p className="text-soft">
        All charts, instruments and settings in one file. Bringing it back replaces everything, or changes
        nothing.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <a className="button" href="/api/backup" download>
          Save a backup
        </a>
        <label className="button focus-within:outline-2 focus-within:outline-accent">
          Bring a backup back
          <input
            type="file"
            accept="application/json,.json"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void read(file);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      {problem && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      {at?.is === 'reading' && (
        <Dialog
          open
          onOpenChange={cancel}
          title="Reading the backup"
          text={`${at.name} is read and checked. Nothing is changed yet.`}
        >
          <Progress {...at} onCancel={cancel} />
        </Dialog>
      )}
      {at && at.is !== 'reading' && (
        <Dialog
          open
          onOpenChange={cancel}
          title="Replace the whole library?"
          text={`${at.name}, made on ${momentSaid(at.madeAt)}, holds ${brings(at)}, all of it in order. Everything that is here now is replaced by it.`}
        >
          <div className="flex flex-wrap items-center gap-2">
            <button
              type="button"
              className="button button-strong"
              disabled={at.is !== 'ready'}
              onClick={() => void go(at)}
            >
              {at.is === 'ready' ? 'Replace everything' : 'Replacing…'}
            </button>
            <button type="button" className="button" disabled={at.is !== 'ready'} onClick={cancel}>
              Leave it as it is
            </button>
            {at.is === 'lost' && (
              <p role="status">The answer of the server was lost. Asking what stands there now…</p>
            )}
          </div>
        </Dialog>
      )}
    </section>
  );
}

interface ProgressProps {
  readonly id: string;
  readonly size: number;
  readonly onCancel: () => void;
}

/** How much of a backup has been read. */
function Progress({ id, size, onCancel }: ProgressProps) {
  const { data } = server.useRestoreQuery(id, { pollingInterval: ASK_MS.progress });
  const { bytes, charts } = data?.is === 'reading' ? data : { bytes: 0, charts: 0 };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <progress aria-label="Read so far" max={size} value={bytes} />
      <p role="status">{plural(charts, 'chart')} read</p>
      <button type="button" className="button" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}

/** The way out for a browser that was let in with the passcode; nothing where none is asked for. */
export function Visit() {
  const { data } = server.useVisitQuery();
  const [leave, { error }] = server.useLeaveMutation();
  if (!data?.asks) return null;
  return (
    <section className="flex flex-col gap-3 border-t border-hair pt-4">
      <h2 className="text-xl font-semibold">This browser</h2>
      <p className="text-soft">
        It was let in with the passcode, and is asked for it again once it is logged out.
      </p>
      <button
        type="button"
        className="button self-start"
        onClick={() => void leave().then(() => window.location.reload())}
      >
        Log out
      </button>
      {error && <p className="error">{(error as Trouble).message}</p>}
    </section>
  );
}
