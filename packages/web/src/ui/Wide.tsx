import { type ReactNode } from 'react';
import { useNarrow } from './useNarrow.ts';

/** What may be wider than a narrow screen: there it scrolls by itself, by keys too. */
export function Wide({ name, children }: { readonly name: string; readonly children: ReactNode }) {
  const narrow = useNarrow();
  return (
    <div {...(narrow && { role: 'group', 'aria-label': name, tabIndex: 0 })} className="overflow-x-auto">
      {children}
    </div>
  );
}
