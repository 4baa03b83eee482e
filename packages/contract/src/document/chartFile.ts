import { type ChartDraft } from '../chart.ts';

export const CHART_FORMAT = 'crow-ladder-chart';

/** A chart by itself in a file; its version is that of its state. */
export interface ChartFile extends ChartDraft {
  readonly format: typeof CHART_FORMAT;
}

/** The text of such a file. */
export const chartFileText = ({ name, tags, notes, state }: ChartDraft): string =>
  `${JSON.stringify({ format: CHART_FORMAT, name, tags, notes, state } satisfies ChartFile, null, 1)}\n`;
