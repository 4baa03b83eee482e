import { type KeptRound } from '@crow-ladder/contract';
import { type LogCells, logReader, columnsIn } from '@crow-ladder/contract/logFile';
import { plural } from '@crow-ladder/core';
import papa from 'papaparse';
import { useState } from 'react';
import { useRounds } from '../../app/practised.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { daySaid } from '../../ui/dates.ts';

/** Bytes that are read at a time, so that the page answers meanwhile, the largest file, and lines of it that are listed. */
const FILE = { piece: 16_000, most: 20_000_000, listed: 20, rounds: 20_000 };

interface Read {
  readonly rounds: readonly KeptRound[];
  readonly answers: number;
  readonly left: readonly { readonly line: number; readonly why: string }[];
}
/** What a file holds, read piece by piece; refused with why. */
function readFile(file: File): Promise<Read> {
  const read = logReader();
  const rounds: KeptRound[] = [];
  const left: { line: number; why: string }[] = [];
  let answers = 0;
  let columns: ReturnType<typeof columnsIn> = null;
  let line = 0;
  return new Promise((resolve, reject) => {
    if (file.size > FILE.most)
      return reject(new Error(`This file is larger than ${FILE.most / 1_000_000} MB: cut it into parts.`));
    papa.parse<string[]>(file, {
      chunkSize: FILE.piece,
      skipEmptyLines: true,
      chunk: ({ data }, parser) => {
        const fail = (message: string): void => {
          reject(new Error(message));
          parser.abort();
        };
        for (const cells of data) {
          line++;
          if (!columns) {
            columns = columnsIn(cells);
            if (!columns)
              return fail(
                'The first line of this file does not name its columns. It has to name at least “day” and “what”, and can name “minutes”, “tempo”, “clean”, “note” and “chart”.',
              );
            head = cells;
            continue;
          }
          const named: LogCells = Object.fromEntries(
            head.flatMap((name, i) => {
              const column = columns!.get(name);
              return column ? [[column, cells[i] ?? '']] : [];
            }),
          );
          const it = read(named);
          if (it.is === 'round') rounds.push(it.round);
          else if (it.is === 'answer') answers++;
          else left.push({ line, why: it.why });
          if (rounds.length > FILE.rounds)
            return fail(`This file has more than ${FILE.rounds} rounds: cut it into parts.`);
        }
      },
      complete: () => resolve({ rounds, answers, left }),
      error: () => reject(new Error('This file cannot be read.')),
    });
    let head: readonly string[] = [];
  });
}

/** Takes a log in that was kept elsewhere: it is shown what comes in before it does. */
export function FileIn() {
  const { keepAll } = useRounds();
  const send = useSend();
  const [read, setRead] = useState<Read | null>(null);
  const [reading, setReading] = useState(false);
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = (file: File | undefined): void => {
    if (!file) return;
    setTrouble(null);
    setReading(true);
    readFile(file)
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
                ? `${plural(read.rounds.length, 'round')}, from ${daySaid(`${days[0]!}T12:00:00`)} to ${daySaid(`${days.at(-1)!}T12:00:00`)}.`
                : 'There is no round in this file.'}
              {read.answers > 0 &&
                ` ${plural(read.answers, 'answer')} to cards: these come back with a backup alone.`}
            </p>
            {read.left.length > 0 && (
              <div>
                <p className="font-semibold">{`${plural(read.left.length, 'line')} left out:`}</p>
                <ul className="list-disc pl-5 text-sm">
                  {read.left.slice(0, FILE.listed).map(({ line, why }) => (
                    <li key={line}>{`Line ${line}: ${why}`}</li>
                  ))}
                  {read.left.length > FILE.listed && <li>{`and ${read.left.length - FILE.listed} more`}</li>}
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
