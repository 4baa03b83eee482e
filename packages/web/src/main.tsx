import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter, Link, Route, Routes } from 'react-router';
import { Shell } from './app/Shell.tsx';
import { Stops } from './app/Stops.tsx';
import { Waits } from './features/waiting/Waits.tsx';
import { compose } from './compose.ts';
import { useTitle } from './ui/useTitle.ts';
import { Waiting } from './ui/Waiting.tsx';
import { ChartPage, HomePage } from './frame/pages.tsx';
import { TasksProvider } from './frame/tasks.ts';
import { TASKS } from './tasks.ts';
import './app/style.css';

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

const ChartsPage = lazy(async () => ({
  default: (await import('./features/charts/ChartsPage.tsx')).ChartsPage,
}));
const InstrumentsPage = lazy(async () => ({
  default: (await import('./features/instruments/InstrumentsPage.tsx')).InstrumentsPage,
}));
const BinPage = lazy(async () => ({ default: (await import('./features/bin/BinPage.tsx')).BinPage }));
const recall = () => import('./features/recall/RecallPage.tsx');
const RecallPage = lazy(async () => ({ default: (await recall()).RecallPage }));
const TodayPage = lazy(async () => {
  // What is begun there begins without the server too.
  recall().catch(() => undefined);
  return { default: (await import('./features/log/TodayPage.tsx')).TodayPage };
});
const LogPage = lazy(async () => ({ default: (await import('./features/log/LogPage.tsx')).LogPage }));
const SettingsPage = lazy(async () => ({
  default: (await import('./features/settings/SettingsPage.tsx')).SettingsPage,
}));

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={compose()}>
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
                  <Route path="charts" element={<ChartsPage />} />
                  <Route path="instruments/:id?" element={<InstrumentsPage />} />
                  <Route path="today" element={<TodayPage />} />
                  <Route path="recall" element={<RecallPage />} />
                  <Route path="log" element={<LogPage />} />
                  <Route path="bin" element={<BinPage />} />
                  <Route path="settings" element={<SettingsPage />} />
                  <Route path="*" element={<NoPage />} />
                </Route>
              </Routes>
            </Suspense>
          </BrowserRouter>
        </TasksProvider>
      </Stops>
    </Provider>
  </StrictMode>,
);
