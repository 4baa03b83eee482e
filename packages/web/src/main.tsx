import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, Link, RouterProvider } from 'react-router';
import { Shell } from './app/Shell.tsx';
import { makeStore } from './app/store.ts';
import { ChartPage, HomePage, NewPage } from './features/workbench/pages.tsx';
import './app/style.css';

function NoPage() {
  return (
    <div className="py-10">
      <h1 className="mb-2 text-2xl font-semibold">There is nothing at this address</h1>
      <Link to="/charts" className="underline">
        All charts
      </Link>
    </div>
  );
}

const router = createBrowserRouter([
  {
    element: <Shell />,
    children: [
      { index: true, element: <HomePage /> },
      { path: 'new', element: <NewPage /> },
      { path: 'charts/:id', element: <ChartPage /> },
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
    <Provider store={makeStore()}>
      <RouterProvider router={router} />
    </Provider>
  </StrictMode>,
);
