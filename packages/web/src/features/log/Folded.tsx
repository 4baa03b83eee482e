import { type ReactNode, useState } from 'react';

interface FoldedProps {
  readonly summary: string;
  /** Made once it is open. */
  readonly children: () => ReactNode;
  readonly className?: string;
}

/** What is folded away, and is not there before it is unfolded. */
export function Folded({ summary, children, className = '' }: FoldedProps) {
  const [open, setOpen] = useState(false);
  return (
    <details className={className} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer">{summary}</summary>
      {open && children()}
    </details>
  );
}
