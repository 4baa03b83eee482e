import { Popover } from 'radix-ui';
import { type ReactNode } from 'react';
import { PopupPanel } from './Popup.tsx';

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
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <span className="whitespace-nowrap">
        <Popover.Trigger className="word">
          <span className="sr-only">{name}: </span>
          {children}
        </Popover.Trigger>
        {mark}
      </span>
      {after}
      <PopupPanel
        name={name}
        className="max-h-[min(70vh,var(--radix-popover-content-available-height))] w-[min(26rem,calc(100vw-20px))] overflow-auto p-3 font-marks text-base"
      >
        {body}
      </PopupPanel>
    </Popover.Root>
  );
}
