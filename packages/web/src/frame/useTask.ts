import { startTransition, useCallback, useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { type AnyTask, type TaskEntry } from '../task/task.ts';

/** What was loaded stays: it is opened at once. */
const LOADED = new Map<string, AnyTask>();
/** Loads a task; fails where the page cannot have it. */
export async function loadTask({ path, load }: TaskEntry): Promise<void> {
  LOADED.set(path, await load());
}

interface Opened {
  /** Null while it is being loaded. */
  readonly task: AnyTask | null;
  readonly params: unknown;
  readonly onParams: (params: unknown) => void;
  /** Words of its address that a task is opened with the next time. */
  readonly ask: (path: string, words: Readonly<Record<string, string>>) => void;
}

/** Parameters of a task with words of its address in place of those that stand there; what has no word stays. */
function withWords({ params }: AnyTask, now: unknown, words: Readonly<Record<string, string>>): unknown {
  const written = Object.entries(params.write(now)).flatMap(([k, v]) =>
    v === null ? [] : [[k, v] as const],
  );
  const [was, is] = [{}, words].map((more) =>
    Object.entries(
      params.read(new URLSearchParams({ ...Object.fromEntries<string>(written), ...more })) as object,
    ),
  );
  const changed = is!.filter(([, value], i) => JSON.stringify(value) !== JSON.stringify(was![i]![1]));
  return { ...(now as object), ...Object.fromEntries(changed) };
}

/**
 * A task with its parameters: read from the address when it is first opened, and kept for the visit. Where it cannot be
 * loaded, the page says so.
 */
export function useTask(entry: TaskEntry): Opened {
  const { search } = useLocation();
  const [, loaded] = useState(0);
  const [failed, fail] = useState<unknown>(null);
  const [kept, keep] = useState<ReadonlyMap<string, unknown>>(() => new Map());
  const [asked, ask] = useState<{
    readonly path: string;
    readonly words: Readonly<Record<string, string>>;
  } | null>(null);
  const task = LOADED.get(entry.path) ?? null;
  useEffect(() => {
    if (LOADED.has(entry.path)) return;
    let wanted = true;
    loadTask(entry)
      .then(() => {
        // Drawn piece by piece: it is large, and the player may go on meanwhile.
        if (wanted) startTransition(() => loaded((n) => n + 1));
      })
      .catch((error: unknown) => wanted && fail(error));
    return () => {
      wanted = false;
    };
  }, [entry]);
  if (failed) throw failed as Error;
  if (task && !kept.has(entry.path))
    keep(new Map(kept).set(entry.path, task.params.read(new URLSearchParams(search))));
  else if (task && asked?.path === entry.path) {
    ask(null);
    keep(new Map(kept).set(entry.path, withWords(task, kept.get(entry.path), asked.words)));
  }
  const onParams = useCallback(
    (next: unknown) =>
      keep((all) => {
        const now =
          typeof next === 'function' ? (next as (now: unknown) => unknown)(all.get(entry.path)) : next;
        return new Map(all).set(entry.path, now);
      }),
    [entry.path],
  );
  const onAsk = useCallback<Opened['ask']>((path, words) => ask({ path, words }), []);
  return { ask: onAsk, task: kept.has(entry.path) ? task : null, params: kept.get(entry.path), onParams };
}
