import { Menu, X } from 'lucide-react';
import { lazy, type ReactNode, Suspense, useEffect, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { bringBack, remove } from './deleting.ts';
import { useSettings, useTheme } from './settings.ts';
import { said } from './notice.ts';
import { keepFocus } from '../ui/focus.ts';
import { LineProvider } from '../ui/places.tsx';
import { Popup } from '../ui/Popup.tsx';
import { useNarrow } from '../ui/useNarrow.ts';
import { useShortcuts } from './shortcuts.ts';
import { useApp, useSend } from './state.ts';

const PAGES = [
  { to: '/today', name: 'Today' },
  { to: '/log', name: 'Log' },
  { to: '/charts', name: 'Charts' },
  { to: '/instruments', name: 'Instruments' },
  { to: '/settings', name: 'Settings' },
];
interface ShellProps {
  /** What the keys of the tasks do, in their order. */
  readonly tasks: readonly { readonly path: string; readonly does: string }[];
  /** What says that something waits to be sent. */
  readonly waits: ReactNode;
}
const Locked = lazy(() => import('./Locked.tsx').then((m) => ({ default: m.Locked })));
const Sheet = lazy(() => import('./Sheet.tsx').then((m) => ({ default: m.Sheet })));

/** What stands around every page: the way to the others, notices, and the sheet of shortcuts. */
export function Shell({ tasks, waits }: ShellProps) {
  const [settings] = useSettings();
  useTheme(settings.theme);
  const narrow = useNarrow();
  const [sheet, setSheet] = useState(false);
  const [line, setLine] = useState<HTMLElement | null>(null);
  useShortcuts({ sheet: () => setSheet(true) });
  const { pathname } = useLocation();
  useEffect(keepFocus, []);
  const locked = useApp((s) => s.standing.locked);
  return (
    <>
      <a href="#main" className="sr-only focus:not-sr-only">
        Skip to the page
      </a>
      <header className="line mx-auto flex max-w-[1500px] flex-wrap items-center gap-x-3 px-4 sm:gap-x-4 sm:px-6">
        <NavLink to="/" className="font-reading text-lg font-bold">
          Crow Ladder
        </NavLink>
        <div ref={setLine} className="contents" />
        {narrow ? (
          <span className="ml-auto">
            <Popup name="Pages" label="Pages" buttonClass="button button-quiet" body={<Pages upright />}>
              <Menu size={20} aria-hidden />
            </Popup>
          </span>
        ) : (
          <Pages upright={false} />
        )}
        <span className="flex items-center">
          {waits}
          <button
            type="button"
            className="button button-quiet !px-2"
            onClick={() => setSheet(true)}
            aria-label="Keys and words"
          >
            ?
          </button>
        </span>
      </header>
      <Outdated />
      <main id="main" key={pageOf(pathname)} className="mx-auto max-w-[1500px] px-4 pt-1 pb-24 sm:px-6">
        <LineProvider value={line}>
          <Outlet />
        </LineProvider>
      </main>
      <Status />
      <Notices />
      {locked && (
        <Suspense>
          <Locked />
        </Suspense>
      )}
      {sheet && (
        <Suspense>
          <Sheet tasks={tasks} onClose={() => setSheet(false)} />
        </Suspense>
      )}
    </>
  );
}

/** The way to the other pages. */
const Pages = ({ upright }: { readonly upright: boolean }) => (
  <nav aria-label="Pages" className={upright ? 'flex flex-col' : 'ml-auto flex gap-x-4'}>
    {PAGES.map((p) => (
      <NavLink key={p.to} to={p.to} end className="page">
        {p.name}
      </NavLink>
    ))}
  </nav>
);

/** The one place where changes are told to those who cannot see them. */
function Status() {
  const { text, nth } = useApp((s) => s.status);
  return (
    <p role="status" aria-label="What changed" className="sr-only">
      <span key={nth}>{text}</span>
    </p>
  );
}

/** The server has another version than this page: what it does may no longer fit. */
function Outdated() {
  const outdated = useApp((s) => s.standing.outdated);
  return (
    <div role="status">
      {outdated && (
        <div className="on-screen flex flex-wrap items-center justify-center gap-3 border-b border-hair bg-raised px-4 py-2">
          <span>
            Crow Ladder was updated. Load it again to go on with the new one; what you typed is kept.
          </span>
          <button type="button" className="button" onClick={() => window.location.reload()}>
            Load it again
          </button>
        </div>
      )}
    </div>
  );
}

/** What page an address is of: a chart stays the same one as it gets an address of its own. */
function pageOf(pathname: string): string {
  const [, page = '', of] = pathname.split('/');
  return page === 'new' || (page === 'charts' && of) ? 'chart' : page;
}

const SHOWN_MS = 12_000;

/** The last thing that happened, with the way back where there is one. */
function Notices() {
  const notice = useApp((s) => s.notice);
  const send = useSend();
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => send(said(null)), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [notice, send]);
  return (
    <div role="status" className="fixed inset-x-3 bottom-20 z-20 flex justify-center sm:bottom-3">
      {notice && (
        <div className="panel flex items-center gap-3 px-4 py-2">
          <span>{notice.text}</span>
          {notice.undo && (
            <button type="button" className="button" onClick={() => void send(bringBack(notice.undo!))}>
              Undo
            </button>
          )}
          {notice.insist && (
            <button type="button" className="button" onClick={() => void send(remove(notice.insist!))}>
              Delete it all the same
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
