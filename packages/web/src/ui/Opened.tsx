import { Popover } from 'radix-ui';
import { type ReactNode, useRef } from 'react';
import { handOver } from './focus.ts';

interface OpenedProps {
  readonly name: string;
  readonly label: string | undefined;
  readonly buttonClass: string;
  readonly panelClass: string;
  readonly children: ReactNode;
  readonly body: ReactNode;
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
}

/** A button whose panel was asked for, with the panel, below it and over the page, while it is open. */
export function Opened({
  name,
  label,
  buttonClass,
  panelClass,
  children,
  body,
  open,
  onOpenChange,
}: OpenedProps) {
  const button = useRef<HTMLButtonElement>(null);
  return (
    <Popover.Root open={open} onOpenChange={onOpenChange}>
      <Popover.Trigger ref={button} className={buttonClass} aria-label={label}>
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={10}
          aria-label={name}
          onCloseAutoFocus={(e) => handOver(e, button.current, null)}
          className={`panel z-[60] ${panelClass}`}
        >
          {body}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
