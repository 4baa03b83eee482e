import { type ReactNode } from 'react';

/** What a task does, as a player would say it, with what is done about it beside; each word that can be changed opens in place. */
export const TaskSentence = ({ children, acts }: { children: ReactNode; acts?: ReactNode }) => (
  <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
    <p className="task-sentence">{children}</p>
    {acts && <div className="flex flex-wrap items-center gap-2">{acts}</div>}
  </div>
);
