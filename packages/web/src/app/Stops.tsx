import { Component, type ReactNode } from 'react';
import { useApp } from './state.ts';

/** What is shown where a page fails by itself: what was saved is safe, and there are ways on. */
function Stopped() {
  const missing = useApp((s) => s.standing.outdated);
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

/** Where what it holds fails, the failure is told to the console, and the player what to do. */
export class Stops extends Component<{ readonly children: ReactNode }, { readonly failed: boolean }> {
  override state = { failed: false };
  static getDerivedStateFromError = () => ({ failed: true });
  override componentDidCatch(error: unknown): void {
    console.error(error);
  }
  override render(): ReactNode {
    return this.state.failed ? <Stopped /> : this.props.children;
  }
}
