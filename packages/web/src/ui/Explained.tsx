import { type ReactNode } from 'react';
import { Popup } from './Popup.tsx';
import { type Term, WORDS } from './words.ts';

interface ExplainedProps {
  readonly term: keyof typeof WORDS;
  readonly children: ReactNode;
}

/** A word that is explained where it stands, on asking. */
export function Explained({ term, children }: ExplainedProps) {
  const { word, means }: Term = WORDS[term];
  return (
    <Popup
      name={word}
      label={`${word}: what is it?`}
      buttonClass="explained"
      panelClass="max-w-[min(24rem,calc(100vw-20px))] p-3"
      body={
        <p>
          <b className="font-semibold">{word}</b>: {means}
        </p>
      }
    >
      {children}
    </Popup>
  );
}
