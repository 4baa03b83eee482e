import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { server } from './api.ts';
import { useSettings, useTheme } from './settings.ts';
import { said } from './notice.ts';
import { GROUPS, SHORTCUTS, TASK_KEYS, useShortcuts } from './shortcuts.ts';
import { useApp, useSend } from './store.ts';
import { Dialog } from '../ui/Dialog.tsx';

const PAGES = [
  { to: '/charts', name: 'Charts' },
  { to: '/instruments', name: 'Instruments' },
  { to: '/settings', name: 'Settings' },
];
const KEY_NAMES: Readonly<Record<string, string>> = { $mod: 'Ctrl' };

interface ShellProps {
  /** What the keys of the tasks do, in their order. */
  readonly tasks: readonly { readonly path: string; readonly does: string }[];
}
const keyName = (keys: string): string =>
  keys === '+'
    ? '+'
    : keys
        .split('+')
        .map((k) => KEY_NAMES[k] ?? (k.length === 1 ? k.toUpperCase() : k))
        .join(' + ');

/** What stands around every page: the way to the others, notices, and the sheet of shortcuts. */
export function Shell({ tasks }: ShellProps) {
  const [settings] = useSettings();
  useTheme(settings.theme);
  const [sheet, setSheet] = useState(false);
  useShortcuts({ sheet: () => setSheet(true) });
  const { pathname } = useLocation();
  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only">
        Skip to the page
      </a>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hair px-4 py-2 sm:gap-x-6 sm:px-6">
        <NavLink to="/" className="font-reading text-lg font-bold">
          Crow Ladder
        </NavLink>
        <nav aria-label="Pages" className="flex flex-wrap gap-x-3 text-sm sm:gap-x-4 sm:text-base">
          {PAGES.map((p) => (
            <NavLink
              key={p.to}
              to={p.to}
              className="py-1.5 aria-[current=page]:font-bold aria-[current=page]:underline aria-[current=page]:decoration-accent aria-[current=page]:decoration-2 aria-[current=page]:underline-offset-4"
            >
              {p.name}
            </NavLink>
          ))}
        </nav>
        <button
          type="button"
          className="button button-quiet ml-auto !px-2"
          onClick={() => setSheet(true)}
          aria-label="Shortcuts"
        >
          ?
        </button>
      </header>
      <main id="main" key={pathname.split('/')[1]} className="mx-auto max-w-[1500px] px-4 pt-3 pb-24 sm:px-6">
        <Outlet />
      </main>
      <Notices />
      <Dialog
        open={sheet}
        onOpenChange={setSheet}
        title="Shortcuts"
        text="Every frequent action has one key. On the neck the arrow keys walk from spot to spot and Enter makes a spot the root."
      >
        <div className="gap-8 sm:columns-2">
          {GROUPS.map((group) => (
            <Keys key={group} name={group}>
              {SHORTCUTS.filter((s) => s.group === group).map((s) => ({ key: s.keys[0]!, does: s.does }))}
            </Keys>
          ))}
          <Keys name="Tasks">{tasks.map(({ does }, i) => ({ key: TASK_KEYS[i]!, does }))}</Keys>
        </div>
      </Dialog>
    </>
  );
}

/** A group of keys and what they do. */
function Keys({ name, children }: { name: string; children: readonly { key: string; does: string }[] }) {
  return (
    <section className="mb-5 break-inside-avoid">
      <h3 className="mb-1 font-semibold">{name}</h3>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1.5">
        {children.map(({ key, does }) => (
          <div key={key} className="contents">
            <dt className="min-w-9">
              <kbd className="border-2 border-line px-1.5 font-marks text-sm font-bold">{keyName(key)}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

const SHOWN_MS = 12_000;

/** The last thing that happened, with the way back where there is one. */
function Notices() {
  const notice = useApp((s) => s.notice);
  const send = useSend();
  const [undeleteChart] = server.useUndeleteChartMutation();
  const [undeleteInstrument] = server.useUndeleteInstrumentMutation();
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => send(said(null)), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice, send]);
  const undo = async (): Promise<void> => {
    const { kind, id } = notice!.undo!;
    const done = kind === 'chart' ? await undeleteChart(id) : await undeleteInstrument(id);
    send(
      said({
        text: done.error ? 'It could not be brought back; try again.' : 'It is back.',
        ...(done.error ? { undo: notice!.undo! } : {}),
      }),
    );
  };
  return (
    <div role="status" className="fixed inset-x-3 bottom-3 z-20 flex justify-center">
      {notice && (
        <div className="panel flex items-center gap-3 px-4 py-2">
          <span>{notice.text}</span>
          {notice.undo && (
            <button type="button" className="button" onClick={() => void undo()}>
              Undo
            </button>
          )}
          <button
            type="button"
            className="button button-quiet"
            aria-label="Dismiss"
            onClick={() => send(said(null))}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      )}
    </div>
  );
}
