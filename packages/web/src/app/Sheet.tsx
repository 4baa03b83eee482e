import { Dialog } from '../ui/Dialog.tsx';
import { WORDS } from '../ui/words.ts';
import { GROUPS, SHORTCUTS, TASK_KEYS } from './shortcuts.ts';

const KEY_NAMES: Readonly<Record<string, string>> = { $mod: 'Ctrl' };

const keyName = (keys: string): string =>
  keys === '+'
    ? '+'
    : keys
        .split('+')
        .map((k) => KEY_NAMES[k] ?? (k.length === 1 ? k.toUpperCase() : k))
        .join(' + ');

/** Keys of Recall, beside those that stand for an answer. */
const RECALL_KEYS = [
  { key: 'j', does: 'Judge what is ticked, and go on' },
  { key: 'h', does: 'Hear what is right' },
  { key: '1', does: 'Say that it was not known; 2, 3 and 4 that it was hard, good, easy' },
  { key: 'u', does: 'Take the last answer back' },
];

interface SheetProps {
  /** What the keys of the tasks do, in their order. */
  readonly tasks: readonly {
    readonly does: string;
    readonly keys?: readonly { readonly key: string; readonly does: string }[];
  }[];
  readonly onClose: () => void;
}

/** Every key and what it does, and every word of ours and what it means. */
export function Sheet({ tasks, onClose }: SheetProps) {
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Keys and words"
      text="Every frequent action has one key. On the neck the arrow keys walk from spot to spot and Enter makes a spot the root."
    >
      <div className="gap-8 sm:columns-2">
        {GROUPS.map((group) => (
          <Keys key={group} name={group}>
            {SHORTCUTS.filter((s) => s.group === group).map((s) => ({ key: s.keys[0]!, does: s.does }))}
          </Keys>
        ))}
        <Keys name="Recall">{RECALL_KEYS}</Keys>
        <Keys name="Tasks">
          {tasks.flatMap(({ does, keys = [] }, i) => [{ key: TASK_KEYS[i]!, does }, ...keys])}
        </Keys>
      </div>
      <section>
        <h3 className="mb-1 font-semibold">Words</h3>
        <dl className="gap-8 sm:columns-2">
          {Object.values(WORDS).map(({ word, means }) => (
            <div key={word} className="mb-1.5 break-inside-avoid">
              <dt className="inline font-semibold">{word}: </dt>
              <dd className="inline">{means}</dd>
            </div>
          ))}
        </dl>
      </section>
    </Dialog>
  );
}

/** A group of keys and what they do. */
function Keys({ name, children }: { name: string; children: readonly { key: string; does: string }[] }) {
  return (
    <section className="mb-5 break-inside-avoid">
      <h3 className="mb-1 font-semibold">{name}</h3>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1.5">
        {children.map(({ key, does }) => (
          <div key={key} className="contents">
            <dt className="min-w-9">
              <kbd className="border-2 border-line px-1.5 font-marks text-sm font-bold">{keyName(key)}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
