import { type ChartDraft } from '../chart.ts';
import { type Checked } from '../checked.ts';
import { draftSchema, readWithState } from '../draft.ts';
import { one, type SchemaOf } from '../fields.ts';
import { CHART_FORMAT, type ChartFile } from './chartFile.ts';
import { isFields } from './fields.ts';
import { BACKUP_FORMAT } from './readBackup.ts';

export const chartFileSchema: SchemaOf<ChartFile> = draftSchema.shape({
  format: one([CHART_FORMAT] as const),
});

const refused = (message: string, field?: string): Checked<never> => ({
  ok: false,
  error: { code: 'chart-file', message, ...(field && { field }) },
});

/** Reads a chart from the text of a file, of any version. Code `chart-file` for a file that holds none; else as for a chart. */
export function readChartFile(text: string): Checked<ChartDraft> {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    return refused(`This file is no whole JSON: ${(error as Error).message}.`);
  }
  const format = isFields(json) ? json['format'] : undefined;
  if (format === BACKUP_FORMAT)
    return refused('This is a backup of a whole library: bring it back under Settings.', 'format');
  if (format !== CHART_FORMAT) return refused('This JSON file holds no chart of Crow Ladder.', 'format');
  const read = readWithState<ChartFile>(chartFileSchema, json);
  if (!read.ok) return read;
  const { name, tags, notes, state } = read.value;
  return { ok: true, value: { name, tags, notes, state } };
}
