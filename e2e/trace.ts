import { type CDPSession, type Page } from '@playwright/test';

/** An event of the browser's own trace. */
export interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly ts: number;
  /** In µs: by the clock, and on the processor. */
  readonly dur?: number;
  readonly tdur?: number;
  readonly tid: number;
  readonly pid: number;
  readonly args?: { readonly data?: { readonly message?: string } };
}

/** What the browser traces while something is done on a page. */
export async function traced(page: Page, work: () => Promise<void>): Promise<readonly TraceEvent[]> {
  const cdp: CDPSession = await page.context().newCDPSession(page);
  const events: TraceEvent[] = [];
  cdp.on('Tracing.dataCollected', ({ value }) => events.push(...(value as unknown as TraceEvent[])));
  await cdp.send('Tracing.start', {
    traceConfig: {
      includedCategories: ['devtools.timeline', 'disabled-by-default-devtools.timeline', 'toplevel'],
    },
  });
  await work();
  const complete = new Promise((done) => cdp.once('Tracing.tracingComplete', done));
  await cdp.send('Tracing.end');
  await complete;
  return events;
}
