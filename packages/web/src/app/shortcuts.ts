import { useEffect, useRef } from 'react';

export type Action =
  | 'undo' | 'redo' | 'save' | 'nextRoot' | 'lastRoot' | 'up' | 'down' | 'nextPosition' | 'lastPosition' | 'ownPosition'
  | 'root' | 'scale' | 'layout' | 'instrument' | 'labels' | 'roots' | 'zoom' | 'neck'
  | 'shape' | 'formula' | 'notes' | 'charts' | 'sheet'; // prettier-ignore

export const GROUPS = ['Neck', 'Sentence', 'View', 'Chart'] as const;

export interface Shortcut {
  readonly action: Action;
  /** Value of KeyboardEvent.key, lower case; `mod+` stands for Ctrl or ⌘. */
  readonly keys: readonly string[];
  readonly does: string;
  readonly group: (typeof GROUPS)[number];
}

/** Every shortcut of the application; the sheet, the handler and the tests read this table. */
export const SHORTCUTS: readonly Shortcut[] = [
  { action: 'nextRoot', keys: [']'], does: 'Go to the next place of the root', group: 'Neck' },
  { action: 'lastRoot', keys: ['['], does: 'Go to the place of the root before', group: 'Neck' },
  { action: 'up', keys: ['+', '='], does: 'Move the key up a half step', group: 'Neck' },
  { action: 'down', keys: ['-'], does: 'Move the key down a half step', group: 'Neck' },
  { action: 'nextPosition', keys: ['.'], does: 'Bring the next position up the neck forward', group: 'Neck' },
  { action: 'lastPosition', keys: [','], does: 'Bring the position below forward', group: 'Neck' },
  { action: 'ownPosition', keys: ['0'], does: 'Go back to the position through the root', group: 'Neck' },
  { action: 'labels', keys: ['l'], does: 'Change what the marks say', group: 'Neck' },
  { action: 'roots', keys: ['o'], does: 'Show the roots alone, or all notes', group: 'Neck' },
  { action: 'zoom', keys: ['z'], does: 'Show the frets of the position, or the whole neck', group: 'Neck' },
  { action: 'neck', keys: ['n'], does: 'Put the keyboard on the neck', group: 'Neck' },
  { action: 'root', keys: ['r'], does: 'Choose the root', group: 'Sentence' },
  { action: 'scale', keys: ['s'], does: 'Choose the scale', group: 'Sentence' },
  { action: 'layout', keys: ['y'], does: 'Choose the layout', group: 'Sentence' },
  { action: 'instrument', keys: ['i'], does: 'Choose the tuning or instrument', group: 'Sentence' },
  { action: 'shape', keys: ['1'], does: 'Show the shape', group: 'View' },
  { action: 'formula', keys: ['2'], does: 'Show the formula on its way to the neck', group: 'View' },
  { action: 'notes', keys: ['3'], does: 'Show notes and tags', group: 'View' },
  { action: 'undo', keys: ['mod+z'], does: 'Undo the last change', group: 'Chart' },
  { action: 'redo', keys: ['mod+shift+z', 'mod+y'], does: 'Redo what was undone', group: 'Chart' },
  { action: 'save', keys: ['mod+s'], does: 'Save the chart', group: 'Chart' },
  { action: 'charts', keys: ['g'], does: 'Go to the list of charts', group: 'Chart' },
  { action: 'sheet', keys: ['?'], does: 'Show this sheet', group: 'Chart' },
];

const chord = (e: KeyboardEvent): string => {
  const strong = e.ctrlKey || e.metaKey;
  const shift =
    e.shiftKey && e.key.length > 1 + Number(!strong) ? 'shift+' : strong && e.shiftKey ? 'shift+' : '';
  return `${strong ? 'mod+' : ''}${shift}${e.key.toLowerCase()}`;
};

/** Runs actions by their keys, except while something is typed or a dialog is open. */
export function useShortcuts(actions: Partial<Record<Action, () => void>>): void {
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.defaultPrevented || e.altKey) return;
      const on = e.target as HTMLElement;
      const typing = on.matches('input, textarea, select, [contenteditable]');
      if (document.querySelector('[role="dialog"]') || (typing && !e.ctrlKey && !e.metaKey)) return;
      const pressed = chord(e);
      const shortcut = SHORTCUTS.find((s) => s.keys.includes(pressed) && latest.current[s.action]);
      // Undo inside a text belongs to the text.
      if (!shortcut || (typing && shortcut.action !== 'save')) return;
      e.preventDefault();
      latest.current[shortcut.action]!();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
}
