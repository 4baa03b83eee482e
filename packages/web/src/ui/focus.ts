import { useLayoutEffect, useRef } from 'react';

type Focusable = HTMLElement | SVGElement;

/** Where focus goes once what is open over the page has closed, if not back to where it was opened. */
let wanted: (() => Focusable | null) | null = null;
export const focusAfterClosing = (where: () => Focusable | null): void => {
  wanted = where;
};

/**
 * Hands focus over as something closes: to where it was asked for, else to `back`, which is what opened it unless the closing part
 * is to decide. It comes a moment after: what has opened meanwhile keeps its focus, as it would close without.
 */
export function handOver(closing: Event, opener: Focusable | null, back = opener): void {
  const to = wanted?.() ?? (back?.isConnected ? back : null);
  wanted = null;
  const inFront = document.activeElement?.closest('[role="dialog"]');
  if (inFront && !inFront.contains(to ?? opener)) return closing.preventDefault();
  if (!to) return;
  closing.preventDefault();
  to.focus();
}

/** What had focus before something opened that has no button of its own; to be asked once that is closing. */
export function useOpener(open: boolean): () => Focusable | null {
  const opener = useRef<Focusable | null>(null);
  useLayoutEffect(() => {
    if (open) opener.current = document.activeElement as Focusable | null;
  }, [open]);
  return () => opener.current;
}

/** As something opens that asks for a text, the text gets focus, selected, so that it can be typed over. */
export function intoText(opening: Event): void {
  const field = (opening.currentTarget as HTMLElement).querySelector<HTMLInputElement>(
    'input:not([type="checkbox"])',
  );
  if (!field) return;
  opening.preventDefault();
  field.select();
}

/** Takes focus from a panel as a whole to the first thing in it. */
export function intoPanel(): void {
  const panel = document.activeElement;
  if (panel?.getAttribute('role') === 'dialog') panel.querySelector<HTMLElement>(FOCUSABLE)?.focus();
}

const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex="0"]';
const visible = (e: Element): boolean => e.getClientRects().length > 0;
/** The heading of the page, ready to take focus. */
function heading(): Focusable | null {
  const found = document.querySelector<HTMLElement>('main h1');
  found?.setAttribute('tabindex', '-1');
  return found;
}

/** An element's parents within its page, with its place among their children. */
function chainOf(of: Element): readonly { readonly parent: Element; readonly place: number }[] {
  const chain = [];
  for (let e = of; e.closest('main') && e.parentElement!.tagName !== 'MAIN'; e = e.parentElement!)
    chain.push({ parent: e.parentElement!, place: [...e.parentElement!.children].indexOf(e) });
  return chain;
}

/** What can have focus and stood nearest to the one that went: behind it in the nearest part that is left, else before it. */
function neighbour(chain: ReturnType<typeof chainOf>): Focusable | null {
  for (const { parent, place } of chain) {
    if (!parent.isConnected) continue;
    const inside = [...parent.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(visible);
    const at = (e: Element): number => [...parent.children].findIndex((c) => c.contains(e));
    const near = inside.find((e) => at(e) >= place) ?? inside.at(-1);
    if (near) return near;
  }
  return null;
}

/** What closes hands focus back itself, a moment after it is gone. */
const SETTLED_MS = 40;

/**
 * Keeps focus on the page: where what had it goes, as a row that is deleted or a page that is left, it goes to what stood
 * nearest, else to the heading. Returns a way to end it.
 */
export function keepFocus(): () => void {
  let last: Element | null = null;
  let chain: ReturnType<typeof chainOf> = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  const seen = (e: Event): void => {
    last = e.target as Element;
    chain = chainOf(last);
  };
  const mend = (): void => {
    if (document.activeElement !== document.body || !last || last.isConnected) return;
    (neighbour(chain) ?? heading())?.focus({ preventScroll: true });
  };
  const watch = new MutationObserver(() => {
    if (!last || last.isConnected) return;
    clearTimeout(timer);
    timer = setTimeout(mend, SETTLED_MS);
  });
  document.addEventListener('focusin', seen);
  watch.observe(document.body, { childList: true, subtree: true });
  return () => {
    clearTimeout(timer);
    document.removeEventListener('focusin', seen);
    watch.disconnect();
  };
}

/** For what a list begins at as it opens: the choice that stands. */
export const beginHere = (e: HTMLElement | null): void => e?.focus();
