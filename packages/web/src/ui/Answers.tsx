import { type Offered } from '@crow-ladder/core/asking';
import { type RefObject, useEffect, useEffectEvent, useRef } from 'react';
import { answersAt } from './answersAt.ts';

interface AnswersProps {
  readonly choices: readonly Offered[];
  /** Those that were tried already. */
  readonly wrong: readonly string[];
  readonly onAnswer: (id: string) => void;
  /** Whether no other letter or figure leads away meanwhile. */
  readonly alone?: boolean;
  readonly group?: RefObject<HTMLDivElement | null>;
}

/** What can be answered, chosen or typed: one answer that a key stands for is given; of several, the keyboard goes to the next one. */
export function Answers({ choices, wrong, onAnswer, alone = false, group }: AnswersProps) {
  const own = useRef<HTMLDivElement>(null);
  const at = group ?? own;
  const names = choices.map(({ name }) => name);
  const answer = (name: string): void => {
    const chosen = choices.find((it) => it.name === name);
    if (chosen && !wrong.includes(chosen.id)) onAnswer(chosen.id);
  };
  const onKey = useEffectEvent((e: KeyboardEvent): void => {
    if (e.ctrlKey || e.metaKey || e.altKey || e.key.length > 1 || e.key === ' ') return;
    if ((e.target as Element).closest('input, textarea, select, [role="dialog"]')) return;
    // Some answers are known by a figure that is not in their name, as fingers are.
    const byName = answersAt(names, e.key);
    const found = byName.length ? byName : choices.filter(({ id }) => id === e.key).map(({ name }) => name);
    if (!alone && !found.length) return;
    e.preventDefault();
    e.stopPropagation();
    if (found.length === 1) return answer(found[0]!);
    const to = found[(found.indexOf(document.activeElement?.textContent ?? '') + 1) % found.length];
    [...(at.current?.querySelectorAll('button') ?? [])].find((b) => b.textContent === to)?.focus();
  });
  useEffect(() => {
    // Whatever has the focus.
    const listen = (e: KeyboardEvent): void => onKey(e);
    window.addEventListener('keydown', listen, { capture: true });
    return () => window.removeEventListener('keydown', listen, { capture: true });
  }, []);
  return (
    <div ref={at} role="group" aria-label="Answers" className="flex flex-wrap gap-2">
      {choices.map(({ id, name }) => (
        <button
          key={id}
          type="button"
          className="button min-w-14 justify-center text-lg"
          aria-disabled={wrong.includes(id)}
          onClick={() => answer(name)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}

/** How answers are typed, where they stand. */
export const AnswersTyped = () => (
  <p className="text-sm text-soft">
    A key is enough: the letter of a note, the figure of a degree, a string or a finger. Where two begin
    alike, it goes from one to the other, and Enter answers.
  </p>
);
