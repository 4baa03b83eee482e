import { StrictMode, useEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, Link, RouterProvider, useRouteError } from 'react-router';
import { Shell } from './app/Shell.tsx';
import { useApp } from './app/state.ts';
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

/** What is shown where a page fails by itself: what was saved is safe, and there are ways on. */
function Failed() {
  const error = useRouteError();
  const missing = useApp((s) => s.standing.outdated);
  useEffect(() => console.error(error), [error]);
  return (
    <main className="mx-auto max-w-[60ch] px-6 py-16">
      <h1 className="mb-2 text-2xl font-semibold">This page has stopped</h1>
      <p className="mb-4">
        {missing
          ? 'A part of it could not be loaded: Crow Ladder was updated, or is away.'
          : 'Something in it went wrong.'}{' '}
        What was saved is safe, and what was not is kept in this browser: load the page again, or go on with
        another chart.
      </p>
      <div className="flex gap-2">
        <button type="button" className="button button-strong" onClick={() => window.location.reload()}>
          Load it again
        </button>
        <a href="/charts" className="button">
          All charts
        </a>
      </div>
    </main>
  );
}

const store = compose();

const router = createBrowserRouter([
  {
    element: <Shell tasks={TASKS} waits={<Waits />} />,
    errorElement: <Failed />,
    hydrateFallbackElement: <Waiting what="the page" />,
    children: [
      { index: true, element: <HomePage /> },
      { path: 'new/:task?', element: <ChartPage /> },
      { path: 'charts/:id/:task?', element: <ChartPage /> },
      {
        path: 'charts',
        lazy: async () => ({ Component: (await import('./features/charts/ChartsPage.tsx')).ChartsPage }),
      },
      {
        path: 'instruments/:id?',
        lazy: async () => ({
          Component: (await import('./features/instruments/InstrumentsPage.tsx')).InstrumentsPage,
        }),
      },
      {
        path: 'bin',
        lazy: async () => ({ Component: (await import('./features/bin/BinPage.tsx')).BinPage }),
      },
      {
        path: 'settings',
        lazy: async () => ({
          Component: (await import('./features/settings/SettingsPage.tsx')).SettingsPage,
        }),
      },
      { path: '*', element: <NoPage /> },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Provider store={store}>
      <TasksProvider value={TASKS}>
        <RouterProvider router={router} />
      </TasksProvider>
    </Provider>
  </StrictMode>,
);
