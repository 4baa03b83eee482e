import { type ChartDraft, type ChartQuery } from '@crow-ladder/contract';
import { useEffect, useState } from 'react';
import { server } from '../app/api.ts';
import { type Trouble } from '../app/trouble.ts';

/** Most charts of one book. */
export const MOST_CHARTS = 120;

/** Charts that were found, as they come; null as long as they are not all there. */
export interface TheseCharts {
  readonly charts: readonly ChartDraft[] | null;
  /** How many are there, and how many were found. */
  readonly read: number;
  readonly found: number;
  readonly trouble: string | null;
}
const NONE: TheseCharts = { charts: null, read: 0, found: 0, trouble: null };

/** Charts by what is asked for, read one by one; null asks for none. */
export function useTheseCharts(query: ChartQuery | null): TheseCharts {
  const [ask] = server.useLazyChartsQuery();
  const [read] = server.useLazyChartQuery();
  const [here, setHere] = useState<{ readonly of: ChartQuery | null; readonly is: TheseCharts }>({
    of: null,
    is: NONE,
  });
  useEffect(() => {
    if (!query) return undefined;
    let wanted = true;
    const set = (is: TheseCharts): void => {
      if (wanted) setHere({ of: query, is });
    };
    const all = async (): Promise<void> => {
      const charts: ChartDraft[] = [];
      let found = 0;
      for (let from = 0; wanted && from < MOST_CHARTS;) {
        const page = await ask({ ...query, from }, true).unwrap();
        ({ found } = page);
        for (const { id } of page.charts.slice(0, MOST_CHARTS - charts.length)) {
          if (!wanted) return;
          charts.push(await read(id, true).unwrap());
          set({ ...NONE, read: charts.length, found });
        }
        from += page.charts.length;
        if (!page.charts.length || from >= found) break;
      }
      set({ charts, read: charts.length, found, trouble: null });
    };
    all().catch((error: unknown) => set({ ...NONE, trouble: (error as Trouble).message }));
    return () => {
      wanted = false;
    };
  }, [query, ask, read]);
  return here.of === query ? here.is : NONE;
}
