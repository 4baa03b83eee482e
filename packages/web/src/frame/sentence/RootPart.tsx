import { noteName, pretty, ROOTS, simplerRoot, spellScale } from '@crow-ladder/core';
import { type KeyboardEvent } from 'react';
import { type Model } from '../../model/model.ts';
import { type Change, withRoot } from '../../model/moves.ts';
import { beginHere } from '../../ui/focus.ts';
import { walkedByLetters } from '../../ui/walked.ts';

interface RootPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
  readonly onPickOnNeck: () => void;
}

/** Arrow keys walk the keys up and down, a letter goes to the next one that begins with it. */
const onKey = (e: KeyboardEvent<HTMLElement>): void =>
  walkedByLetters(e, [...e.currentTarget.querySelectorAll('button')], {
    next: ['ArrowRight', 'ArrowDown'],
    last: ['ArrowLeft', 'ArrowUp'],
  })?.focus();

/** The twelve keys with both spellings. */
export function RootPart({ model, onChange, onPickOnNeck }: RootPartProps) {
  const { state, scale, key } = model;
  const better = simplerRoot(key.root, scale);
  return (
    <div className="flex flex-col gap-3">
      <div className="grid grid-cols-6 gap-1.5" role="group" aria-label="Keys" onKeyDown={onKey}>
        {ROOTS.map((names) => (
          <div key={names[0]} className="flex flex-col gap-1">
            {names.map((name) => (
              <button
                key={name}
                type="button"
                className="button justify-center !px-1"
                ref={name === state.key.root ? beginHere : undefined}
                aria-pressed={name === state.key.root}
                onClick={() => onChange((s) => withRoot(s, name))}
              >
                {pretty(name)}
              </button>
            ))}
          </div>
        ))}
      </div>
      {better && (
        <p className="text-sm">
          {better.reason}{' '}
          <button
            type="button"
            className="word"
            onClick={() => onChange((s) => withRoot(s, noteName(better.root)))}
          >
            Write it as {pretty(noteName(better.root))}
          </button>
        </p>
      )}
      <p className="text-sm text-soft">
        {pretty(`${state.key.root} ${scale.name}`)}:{' '}
        {spellScale(key)
          .map((n) => pretty(noteName(n)))
          .join(' ')}
      </p>
      <button type="button" className="button self-start" onClick={onPickOnNeck}>
        Pick on the neck
      </button>
    </div>
  );
}
