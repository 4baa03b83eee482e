import { TestEnvironment } from 'jest-environment-jsdom';

/** A page with the requests and answers of Node, which jsdom has none of. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    const { fetch, Request, Response, Headers, AbortController, AbortSignal, structuredClone } = globalThis;
    Object.assign(this.global, {
      fetch,
      Request,
      Response,
      Headers,
      AbortController,
      AbortSignal,
      structuredClone,
    });
    Object.assign(this.global, { TextEncoder, TextDecoder, ReadableStream });
  }
}
