import { createContext, useContext } from 'react';

/** The time, as what works by it is given it: a test moves it by hand. */
export interface Clock {
  /** ms since the beginning of 1970, as `Date.now` has it. */
  readonly now: () => number;
  /** Does work once, so many ms from now. Returns a way to call it off. */
  readonly after: (ms: number, work: () => void) => () => void;
}

/** The clock of the computer that the page is on. */
export const pageClock: Clock = {
  now: () => Date.now(),
  after: (ms, work) => {
    const timer = setTimeout(work, ms);
    return () => clearTimeout(timer);
  },
};

/** Resolves so many ms from now. */
export const rest = (clock: Clock, ms: number): Promise<void> =>
  new Promise((done) => void clock.after(ms, () => done()));

const Context = createContext(pageClock);
export const ClockProvider = Context.Provider;
export const useClock = (): Clock => useContext(Context);
