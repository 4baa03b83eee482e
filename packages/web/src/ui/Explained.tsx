import { Popover } from 'radix-ui';
import { type ReactNode } from 'react';
import { PopupPanel } from './Opened.tsx';
import { type Term, WORDS } from './words.ts';

interface ExplainedProps {
  readonly term: keyof typeof WORDS;
  readonly children: ReactNode;
}

/** A word that is explained where it stands, on asking. */
export function Explained({ term, children }: ExplainedProps) {
  const { word, means }: Term = WORDS[term];
  return (
    <Popover.Root>
      <Popover.Trigger className="explained" aria-label={`${word}: what is it?`}>
        {children}
      </Popover.Trigger>
      <PopupPanel name={word} className="max-w-[min(24rem,calc(100vw-20px))] p-3">
        <p>
          <b className="font-semibold">{word}</b>: {means}
        </p>
      </PopupPanel>
    </Popover.Root>
  );
}
