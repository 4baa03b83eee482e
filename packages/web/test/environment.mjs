import { MessageChannel } from 'node:worker_threads';
import { TestEnvironment } from 'jest-environment-jsdom';

/** A page with the requests, answers and channels of Node, which jsdom has none of, on a wide screen that stays as it is. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    const { fetch, Request, Response, Headers, AbortController, AbortSignal, structuredClone } = globalThis;
    Object.assign(this.global, { fetch, Request, Response, Headers, AbortController, AbortSignal });
    Object.assign(this.global, { structuredClone, TextEncoder, TextDecoder, ReadableStream, MessageChannel });
    const still = { matches: false, addEventListener: () => undefined, removeEventListener: () => undefined };
    this.global.matchMedia = () => still;
    this.global.ResizeObserver = class {
      observe() {
        // Nothing changes its size.
      }
      disconnect() {
        // Nothing was observed.
      }
    };
  }
}
