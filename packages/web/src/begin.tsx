import { type ComponentType, lazy, startTransition, StrictMode, Suspense, useState } from 'react';
import { Provider } from 'react-redux';
import { BrowserRouter, Link, matchPath, Route, Routes } from 'react-router';
import { Shell } from './app/Shell.tsx';
import { Stops } from './app/Stops.tsx';
import { Waits } from './features/waiting/Waits.tsx';
import { createRoot } from './begin/drawing.ts';
import { compose } from './compose.ts';
import { useFetchedSoon } from './ui/later.ts';
import { useTitle } from './ui/useTitle.ts';
import { Waiting } from './ui/Waiting.tsx';
import { ChartPage, HomePage } from './frame/pages.tsx';
import { TasksProvider } from './frame/tasks.ts';
import { TASKS } from './tasks.ts';

function NoPage() {
  useTitle('Nothing here');
  return (
    <div className="py-10">
      <h1 className="mb-2 text-2xl font-semibold">There is nothing at this address</h1>
      <Link to="/charts" className="underline">
        All charts
      </Link>
    </div>
  );
}

type PageStore = ReturnType<typeof compose>;

/** A page that is loaded when it is gone to; what is loaded before stands at once. */
interface Page {
  readonly path: string;
  readonly load: () => Promise<unknown>;
  readonly Show: ComponentType;
}
function pageAt(path: string, fetchIt: () => Promise<ComponentType>): Page {
  let There: ComponentType | null = null;
  const load = async (): Promise<ComponentType> => (There ??= await fetchIt());
  const Later = lazy(async () => ({ default: await load() }));
  function Show() {
    // What was begun with stays: another component in its place would begin anew.
    const [Is] = useState(() => There ?? Later);
    return <Is />;
  }
  return { path, load, Show };
}

const recall = async () => (await import('./features/recall/RecallPage.tsx')).RecallPage;
const recallOrNot = () => recall().catch(() => undefined);
const PAGES: readonly Page[] = [
  pageAt('charts', async () => (await import('./features/charts/ChartsPage.tsx')).ChartsPage),
  pageAt(
    'instruments/:id?',
    async () => (await import('./features/instruments/InstrumentsPage.tsx')).InstrumentsPage,
  ),
  pageAt('today', async () => {
    const { TodayPage } = await import('./features/log/TodayPage.tsx');
    return function Today() {
      // What is begun there begins without the server too.
      useFetchedSoon(recallOrNot);
      return <TodayPage />;
    };
  }),
  pageAt('recall', recall),
  pageAt('log', async () => (await import('./features/log/LogPage.tsx')).LogPage),
  pageAt('bin', async () => (await import('./features/bin/BinPage.tsx')).BinPage),
  pageAt('settings', async () => (await import('./features/settings/SettingsPage.tsx')).SettingsPage),
];

/** The store of the page, once the page of the address is there: what is shown in place of one would stay for a while. */
export async function prepared(): Promise<PageStore> {
  const first = PAGES.find(({ path }) => matchPath(path, window.location.pathname));
  await first?.load().catch(() => undefined);
  return compose();
}

/** Draws the page the first time, in pieces as well. */
export function draw(store: PageStore): void {
  startTransition(() =>
    createRoot(document.getElementById('root')!).render(
      <StrictMode>
        <Provider store={store}>
          <Stops>
            <TasksProvider value={TASKS}>
              <BrowserRouter>
                {/* The page that is left stays until the next one is there. */}
                <Suspense fallback={<Waiting what="the page" />}>
                  <Routes>
                    <Route element={<Shell tasks={TASKS} waits={<Waits />} />}>
                      <Route index element={<HomePage />} />
                      <Route path="new/:task?" element={<ChartPage />} />
                      <Route path="charts/:id/:task?" element={<ChartPage />} />
                      {PAGES.map(({ path, Show }) => (
                        <Route key={path} path={path} element={<Show />} />
                      ))}
                      <Route path="*" element={<NoPage />} />
                    </Route>
                  </Routes>
                </Suspense>
              </BrowserRouter>
            </TasksProvider>
          </Stops>
        </Provider>
      </StrictMode>,
    ),
  );
}
