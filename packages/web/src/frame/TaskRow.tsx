import { type KeyboardEvent, memo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { type TaskEntry } from '../task/task.ts';
import { walked } from '../ui/walked.ts';

interface TaskRowProps {
  readonly entries: readonly TaskEntry[];
  readonly current: TaskEntry;
  readonly addressOf: (path: string) => string;
  /** What stands at its end, over the corner of the neck. */
  readonly children: ReactNode;
}

/** The row is one stop of the tab key; the arrow keys walk it. */
const onKey = (e: KeyboardEvent<HTMLElement>): void =>
  walked(e, [...e.currentTarget.querySelectorAll('a')], {
    next: ['ArrowRight'],
    last: ['ArrowLeft'],
  })?.focus();

/** The tasks of a chart: what the neck shows, and what stands under it. On a narrow screen the row scrolls. */
export const TaskRow = memo(function TaskRow({ entries, current, addressOf, children }: TaskRowProps) {
  return (
    <div className="task-row flex items-center justify-between gap-3 border-b border-hair">
      <nav aria-label="Tasks" className="-mx-1 flex gap-1 overflow-x-auto px-1" onKeyDown={onKey}>
        {entries.map((entry) => (
          <Link
            key={entry.path}
            to={addressOf(entry.path)}
            className="task"
            tabIndex={entry === current ? 0 : -1}
            aria-current={entry === current ? 'page' : undefined}
          >
            {entry.name}
          </Link>
        ))}
      </nav>
      {children}
    </div>
  );
});
