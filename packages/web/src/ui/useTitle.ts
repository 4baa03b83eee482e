import { useEffect } from 'react';

/** The page's own title, as the browser shows it and screen readers say it first. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = `${title} – Crow Ladder`;
  }, [title]);
}
