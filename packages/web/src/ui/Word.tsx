import { type ReactNode } from 'react';
import { Popup } from './Popup.tsx';

interface WordProps {
  /** What the part says in the sentence. */
  readonly children: ReactNode;
  /** What it is, for screen readers: "Root". */
  readonly name: string;
  /** What follows it in the sentence; its punctuation never begins a line. */
  readonly then?: string;
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly body: ReactNode;
}

/** A part of the sentence that opens in place. */
export function Word({ children, name, then = '', open, onOpenChange, body }: WordProps) {
  const [mark, after] = /^([,.]?)(.*)$/.exec(then)!.slice(1);
  return (
    <>
      <span className="whitespace-nowrap">
        <Popup
          name={name}
          buttonClass="word"
          panelClass="max-h-[min(70vh,var(--radix-popover-content-available-height))] w-[min(26rem,calc(100vw-20px))] overflow-auto p-3 font-marks text-base"
          open={open}
          onOpenChange={onOpenChange}
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
