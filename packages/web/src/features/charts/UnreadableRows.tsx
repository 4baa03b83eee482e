import { type Unreadable } from '@crow-ladder/contract';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { remove } from '../../app/deleting.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { download, fileName } from '../../ui/download.ts';

/** Charts that this application cannot read: with the reason, to be kept as a file or deleted. */
export function UnreadableRows({ rows }: { rows: readonly Unreadable[] }) {
  const send = useSend();
  const [fetchRaw] = server.useLazyRawChartQuery();
  const tell = (trouble: unknown): void => void send(said({ text: (trouble as Trouble).message }));
  const keep = async ({ id, name }: Unreadable): Promise<void> => {
    try {
      const row = await fetchRaw(id).unwrap();
      download(
        `${fileName(name)}.json`,
        new Blob([JSON.stringify(row, null, 1)], { type: 'application/json' }),
      );
    } catch (trouble) {
      tell(trouble);
    }
  };
  return (
    <section className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">Charts that cannot be read</h2>
      <p className="text-sm text-soft">
        They are kept as they are, and stand in backups. A later Crow Ladder may read them.
      </p>
      <ul className="border-t border-line">
        {rows.map((row) => (
          <li key={row.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2">
            <div className="min-w-64 grow">
              <p className="font-semibold">{row.name || 'A chart without a name'}</p>
              <p className="text-sm text-soft">{row.reason}</p>
            </div>
            <button
              type="button"
              className="button"
              aria-label={`Download ${row.name} as it is`}
              onClick={() => void keep(row)}
            >
              Download as it is
            </button>
            <button
              type="button"
              className="button"
              aria-label={`Delete ${row.name}`}
              onClick={() =>
                void send(remove({ kind: 'chart', id: row.id, name: row.name, revision: row.revision }))
              }
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
