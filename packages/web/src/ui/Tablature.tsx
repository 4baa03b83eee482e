import { Check, Copy } from 'lucide-react';
import { useEffect, useState } from 'react';

const TOLD_MS = 2500;

interface TablatureProps {
  readonly text: string;
  /** What it is of, for screen readers: "Tablature of Dorian position". */
  readonly name: string;
  /** How high its letters are, in px; as usual where it is not said. */
  readonly px?: number;
}

/** Tablature as plain text, with a button that copies it. */
export function Tablature({ text, name, px }: TablatureProps) {
  const [told, tell] = useState<'copied' | 'refused' | null>(null);
  useEffect(() => {
    if (!told) return;
    const timer = setTimeout(() => tell(null), TOLD_MS);
    return () => clearTimeout(timer);
  }, [told]);
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      tell('copied');
    } catch {
      tell('refused');
    }
  };
  return (
    <section aria-label={name}>
      <div className="flex flex-wrap items-center gap-x-3">
        <h3 className="text-sm font-semibold text-soft">Tablature, with the fingers below</h3>
        <button type="button" className="button button-quiet" onClick={() => void copy()}>
          {told === 'copied' ? <Check size={15} aria-hidden /> : <Copy size={15} aria-hidden />} Copy
        </button>
        <span role="status" className="text-sm text-soft">
          {told === 'copied' && 'Copied as plain text.'}
          {told === 'refused' && 'The browser does not let it be copied; mark the text and copy it by hand.'}
        </span>
      </div>
      {/* The keyboard scrolls it where it is wider than the page. */}
      <pre
        tabIndex={0}
        role="region"
        aria-label={`${name}, plain text`}
        style={px ? { fontSize: px } : undefined}
        className="overflow-x-auto border-l-4 border-hair py-1 pl-3 font-mono text-sm leading-tight"
      >
        {text}
      </pre>
    </section>
  );
}
