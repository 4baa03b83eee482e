import { Popover } from 'radix-ui';
import { type ReactNode } from 'react';

interface PopupProps {
  /** What opens it, and what it is called. */
  readonly name: string;
  /** What the button shows. */
  readonly children: ReactNode;
  readonly body: ReactNode;
  readonly buttonClass?: string;
  readonly open?: boolean;
  readonly onOpenChange?: (open: boolean) => void;
}

interface PanelProps {
  readonly name: string;
  readonly className: string;
  readonly children: ReactNode;
}

/** What opens below a button, over the page. */
export function PopupPanel({ name, className, children }: PanelProps) {
  return (
    <Popover.Portal>
      <Popover.Content
        align="start"
        sideOffset={6}
        collisionPadding={10}
        aria-label={name}
        className={`panel z-30 ${className}`}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  );
}

/** A button with a panel that opens below it. */
export function Popup({ name, children, body, buttonClass = 'button', ...state }: PopupProps) {
  return (
    <Popover.Root {...state}>
      <Popover.Trigger className={buttonClass} aria-label={name}>
        {children}
      </Popover.Trigger>
      <PopupPanel name={name} className="flex w-[min(24rem,calc(100vw-20px))] flex-col gap-3 p-3">
        {body}
      </PopupPanel>
    </Popover.Root>
  );
}
