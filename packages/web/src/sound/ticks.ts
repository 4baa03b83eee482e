/** The worker of this page that ticks, kept from the first time on: it is there when the server is not. */
let worker: Worker | null = null;

/** Calls again and again, in the background too, until what it gives back is called; the last one that asked is called. */
export function ticking(everyMs: number, tick: () => void): () => void {
  const mine = (worker ??= new Worker(new URL('../workers/ticker.ts', import.meta.url), { type: 'module' }));
  mine.onmessage = tick;
  mine.postMessage(everyMs);
  return () => {
    if (mine.onmessage !== tick) return;
    mine.onmessage = null;
    mine.postMessage(0);
  };
}
