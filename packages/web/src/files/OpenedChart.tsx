import { type ChartDraft, type Checked } from '@crow-ladder/contract';
import { pretty, resolveScale } from '@crow-ladder/core';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { server } from '../app/api.ts';
import { type Trouble } from '../app/trouble.ts';
import { type Given } from '../workers/opened.ts';

/** Whether a file is one that holds a chart, by its name. */
export const isChartFile = ({ name }: Pick<Given, 'name'>): boolean => /\.json$/iu.test(name);

/** What is in the file of a chart, and the way to take it into the library. */
export function OpenedChart({ given, onClose }: { readonly given: Given; readonly onClose: () => void }) {
  const navigate = useNavigate();
  const [create] = server.useCreateChartMutation();
  const [read, setRead] = useState<{ readonly of: Given; readonly is: Checked<ChartDraft> } | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let wanted = true;
    const set = (is: Checked<ChartDraft>): void => {
      if (wanted) setRead({ of: given, is });
    };
    const refuse = (message: string): void => set({ ok: false, error: { code: 'chart-file', message } });
    if (given.size > given.bytes.length) refuse('This file is larger than any chart.');
    else
      import('@crow-ladder/contract/schemas').then(
        ({ readChartFile }) => set(readChartFile(new TextDecoder().decode(given.bytes))),
        () => refuse('The chart could not be read. Load the page again and try once more.'),
      );
    return () => {
      wanted = false;
    };
  }, [given]);
  const is = read?.of === given ? read.is : null;
  if (!is) return <p role="status">Reading the chart…</p>;
  if (!is.ok)
    return (
      <p role="alert" className="error">
        {[is.error.message, is.error.field && `(${is.error.field})`].filter(Boolean).join(' ')}
      </p>
    );
  const { name, state } = is.value;
  const scale = resolveScale(state.key.scale);
  const take = async (): Promise<void> => {
    try {
      const { id } = await create(is.value).unwrap();
      onClose();
      void navigate(`/charts/${id}`);
    } catch (error) {
      setTrouble((error as Trouble).message);
    }
  };
  return (
    <>
      <p role="status">
        <span className="font-semibold">{name}</span>
        {`, a chart: ${pretty(state.key.root)} ${scale.ok ? scale.value.name : ''}, on ${state.instrument.name}. It becomes a chart of its own; nothing that is open changes.`}
      </p>
      {trouble !== null && (
        <p role="alert" className="error">
          {trouble}
        </p>
      )}
      <button type="button" className="button button-strong self-start" onClick={() => void take()}>
        Take it into the library
      </button>
    </>
  );
}
