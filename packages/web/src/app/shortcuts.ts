import { useLayoutEffect, useRef } from 'react';
import { useSettings } from './settings.ts';
import { type KeyBindingMap, tinykeys } from 'tinykeys';

export type Action =
  | 'undo'
  | 'redo'
  | 'save'
  | 'nextRoot'
  | 'lastRoot'
  | 'up'
  | 'down'
  | 'nextPosition'
  | 'lastPosition'
  | 'ownPosition'
  | 'root'
  | 'scale'
  | 'layout'
  | 'instrument'
  | 'labels'
  | 'roots'
  | 'zoom'
  | 'neck'
  | 'charts'
  | 'sheet';

export const GROUPS = ['Neck', 'Sentence', 'Chart'] as const;

export interface Shortcut {
  readonly action: Action;
  /**
   * The characters typed, by which keys are matched wherever they lie on the keyboard; `$mod+` stands for Ctrl or ⌘. The
   * first one is shown. At least one can be typed without AltGr on US, UK, German, French, Nordic and Spanish keyboards.
   */
  readonly keys: readonly string[];
  readonly does: string;
  readonly group: (typeof GROUPS)[number];
}

/** Every shortcut of the application but those of the tasks; the sheet, the handler and the tests read this table. */
export const SHORTCUTS: readonly Shortcut[] = [
  { action: 'nextRoot', keys: ['m', ']'], does: 'Go to the next place of the root', group: 'Neck' },
  { action: 'lastRoot', keys: ['b', '['], does: 'Go to the place of the root before', group: 'Neck' },
  { action: 'up', keys: ['+', '='], does: 'Move the key up a half step', group: 'Neck' },
  { action: 'down', keys: ['-'], does: 'Move the key down a half step', group: 'Neck' },
  { action: 'nextPosition', keys: ['.'], does: 'Bring the next position up the neck forward', group: 'Neck' },
  { action: 'lastPosition', keys: [','], does: 'Bring the position below forward', group: 'Neck' },
  { action: 'ownPosition', keys: ['h'], does: 'Go back to the position through the root', group: 'Neck' },
  { action: 'labels', keys: ['l'], does: 'Change what the marks say', group: 'Neck' },
  { action: 'roots', keys: ['o'], does: 'Show the roots alone, or all notes', group: 'Neck' },
  { action: 'zoom', keys: ['z'], does: 'Show the frets of the position, or the whole neck', group: 'Neck' },
  { action: 'neck', keys: ['n'], does: 'Put the keyboard on the neck', group: 'Neck' },
  { action: 'root', keys: ['r'], does: 'Choose the root', group: 'Sentence' },
  { action: 'scale', keys: ['s'], does: 'Choose the scale', group: 'Sentence' },
  { action: 'layout', keys: ['y'], does: 'Choose the layout', group: 'Sentence' },
  { action: 'instrument', keys: ['i'], does: 'Choose the tuning or instrument', group: 'Sentence' },
  {
    action: 'undo',
    keys: ['$mod+z'],
    does: 'Undo the last change; in the library, bring back what was deleted',
    group: 'Chart',
  },
  { action: 'redo', keys: ['$mod+Shift+z', '$mod+y'], does: 'Redo what was undone', group: 'Chart' },
  { action: 'save', keys: ['$mod+s'], does: 'Save the chart', group: 'Chart' },
  { action: 'charts', keys: ['g'], does: 'Go to the list of charts', group: 'Chart' },
  { action: 'sheet', keys: ['?'], does: 'Show this sheet', group: 'Chart' },
];

/** The keys of the tasks, in the order of their row. */
export const TASK_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'] as const;

/** What the actions do; `task` opens one by its place in the row, from 0. */
export type Actions = Partial<Record<Action, () => void>> & { readonly task?: (place: number) => void };

/** A character as the patterns that match it: on some keyboards it is typed with Shift, on others without. */
const patterns = (key: string): readonly string[] =>
  key.includes('$mod') || /^[a-z]$/.test(key) ? [key] : [key, `Shift+${key}`];

/** Runs actions by the characters typed, except while something is typed or a dialog is open; single ones can be switched off. */
export function useShortcuts(actions: Actions): void {
  const [{ letterKeys }] = useSettings();
  const latest = useRef(actions);
  // In the layout phase: as soon as a page can be seen its keys do what they say.
  useLayoutEffect(() => {
    latest.current = actions;
  });
  useLayoutEffect(() => {
    const run = (
      e: KeyboardEvent,
      of: (now: Actions) => (() => void) | undefined,
      whileTyping: boolean,
    ): void => {
      const on = e.target as HTMLElement;
      const typing =
        on.matches('input:not([type="checkbox"], [type="radio"]), textarea, [contenteditable]') ||
        (on.matches('select') && !e.ctrlKey && !e.metaKey);
      const work = of(latest.current);
      // Undo inside a text belongs to the text.
      if (
        !work ||
        e.defaultPrevented ||
        (typing && !whileTyping) ||
        document.querySelector('[role="dialog"]')
      )
        return;
      e.preventDefault();
      work();
    };
    const bindings: KeyBindingMap = {};
    for (const { action, keys } of SHORTCUTS)
      for (const pattern of keys.filter((k) => letterKeys || k.includes('$mod')).flatMap(patterns))
        bindings[pattern] = (e) => run(e, (now) => now[action], action === 'save');
    (letterKeys ? TASK_KEYS : []).forEach((key, place) => {
      for (const pattern of patterns(key))
        bindings[pattern] = (e) => run(e, ({ task }) => task && (() => task(place)), false);
    });
    return tinykeys(window, bindings);
  }, [letterKeys]);
}
