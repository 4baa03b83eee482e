import { plural } from '@crow-ladder/core';
import { useState } from 'react';
import { useRounds } from '../../app/practised.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { daySaid, noonOf } from '../../ui/dates.ts';
import { useClock } from '../../ports/clock.ts';
import { type LogRead, readLog } from './readLog.ts';

/** Lines that are left out and listed. */
const LISTED = 20;

/** Takes a log in that was kept elsewhere: it is shown what comes in before it does. */
export function FileIn() {
  const { keepAll } = useRounds();
  const send = useSend();
  const clock = useClock();
  const [read, setRead] = useState<LogRead | null>(null);
  const [reading, setReading] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = (file: File | undefined): void => {
    if (!file) return;
    setTrouble(null);
    setReading(true);
    readLog(file, clock)
      .then(setRead, (error: Error) => setTrouble(error.message))
      .finally(() => setReading(false));
  };
  const take = (): void => {
    keepAll(read!.rounds);
    send(said({ text: `${plural(read!.rounds.length, 'round')} taken into the log.` }));
    setRead(null);
  };
  const days = read?.rounds.map(({ day }) => day).sort() ?? [];
  return (
    <>
      <label className="button">
        {reading ? 'Reading the file…' : 'Take a log in'}
        <input
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          onChange={(e) => {
            open(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
      </label>
      {trouble !== null && (
        <p role="alert" className="error w-full">
          {trouble}
        </p>
      )}
      {read && (
        <Dialog
          open
          onOpenChange={() => setRead(null)}
          title="Take a log in"
          text="Rounds that are in the log already stay as they are."
        >
          <div className="flex flex-col gap-3">
            <p role="status">
              {read.rounds.length
                ? `${plural(read.rounds.length, 'round')}, from ${daySaid(noonOf(days[0]!))} to ${daySaid(noonOf(days.at(-1)!))}.`
                : 'There is no round in this file.'}
              {read.answers > 0 &&
                ` ${plural(read.answers, 'answer')} to cards: these come back with a backup alone.`}
            </p>
            {read.left.length > 0 && (
              <div>
                <p className="font-semibold">{`${plural(read.left.length, 'line')} left out:`}</p>
                <ul className="list-disc pl-5 text-sm">
                  {read.left.slice(0, LISTED).map(({ line, why }) => (
                    <li key={line}>{`Line ${line}: ${why}`}</li>
                  ))}
                  {read.left.length > LISTED && <li>{`and ${read.left.length - LISTED} more`}</li>}
                </ul>
              </div>
            )}
            <button
              type="button"
              className="button button-strong self-start"
              disabled={!read.rounds.length}
              onClick={take}
            >
              Take it in
            </button>
          </div>
        </Dialog>
      )}
    </>
  );
}
