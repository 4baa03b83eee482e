import { Dialog as Radix } from 'radix-ui';
import { X } from 'lucide-react';
import { type ReactNode } from 'react';
import { handOver, intoText, useOpener } from './focus.ts';

interface DialogProps {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly title: string;
  readonly text?: string;
  readonly children: ReactNode;
}

/** A dialog in the middle of the screen. */
export function Dialog({ open, onOpenChange, title, text, children }: DialogProps) {
  const opener = useOpener(open);
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Radix.Content
          {...(text ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={intoText}
          onCloseAutoFocus={(e) => handOver(e, opener())}
          className="panel fixed top-1/2 left-1/2 z-50 max-h-[88vh] w-[min(44rem,calc(100vw-24px))] -translate-x-1/2 -translate-y-1/2 overflow-auto p-5"
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Radix.Title className="text-xl font-semibold">{title}</Radix.Title>
            <Radix.Close className="button button-quiet" aria-label="Close">
              <X size={18} aria-hidden />
            </Radix.Close>
          </div>
          {text && <Radix.Description className="mb-4 text-soft">{text}</Radix.Description>}
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
