import { type ReactNode } from 'react';
import { Popup } from './Popup.tsx';

interface WordProps {
  /** What the part says in the sentence. */
  readonly children: ReactNode;
  /** What it is, for screen readers: "Root". */
  readonly name: string;
  /** What follows it in the sentence; its punctuation never begins a line. */
  readonly then?: string;
  /** How it is set beside other words: the one that chooses what is looked at stands out, what is seldom needed steps back. */
  readonly weight?: 'first' | 'usual' | 'seldom';
  /** Where what is open is decided elsewhere. */
  readonly open?: boolean;
  readonly onOpenChange?: (open: boolean) => void;
  readonly body: ReactNode;
}

const WEIGHTS = { first: 'word font-semibold', usual: 'word', seldom: 'word word-seldom' } as const;

/** A part of a sentence that opens in place. */
export function Word({ children, name, then = '', weight = 'usual', body, ...opening }: WordProps) {
  const [mark, after] = /^([,.]?)(.*)$/.exec(then)!.slice(1);
  return (
    <>
      <span className="whitespace-nowrap">
        <Popup
          name={name}
          buttonClass={WEIGHTS[weight]}
          panelClass="max-h-[min(70vh,var(--radix-popover-content-available-height))] w-[min(26rem,calc(100vw-20px))] overflow-auto p-3 font-marks text-base"
          {...opening}
          body={body}
        >
          <span className="sr-only">{name}: </span>
          {children}
        </Popup>
        {mark}
      </span>
      {after}
    </>
  );
}
