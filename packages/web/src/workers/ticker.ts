/** Ticks on and on: timers of a worker go on in a page that is in the background, where those of the page are held back. */
let timer: ReturnType<typeof setInterval> | undefined;
/** How often, in ms; 0 ends it. */
self.onmessage = ({ data }: MessageEvent<number>): void => {
  clearInterval(timer);
  if (data) timer = setInterval(() => self.postMessage(null), data);
};
