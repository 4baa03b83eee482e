import { array, mixed, number, object, string } from 'yup';
import { type Chart } from '../chart.ts';
import { draftSchema, readWithState } from '../draft.ts';
import { idSchema, instrumentSchema, type SchemaOf, stamp } from '../fields.ts';
import { DEFAULT_SETTINGS, settingsFrom } from '../settings.ts';
import { settingsSchema } from '../settingsSchema.ts';
import { shapeSchema } from '../shape.ts';
import { type Checked } from '../checked.ts';
import { withoutOdd } from '../text.ts';
import { validate } from '../validate.ts';
import { type Backup, BACKUP_VERSION, type RawRow } from './backup.ts';
import { broughtUp, isFields } from './read.ts';
import { type Fields } from './upgrade1.ts';

const isCell = (value: unknown): boolean =>
  value === null || typeof value === 'string' || typeof value === 'number';

const FORMAT = 'crow-ladder-backup';
const NO_BACKUP = 'This file is not a backup of Crow Ladder.';
const chartSchema: SchemaOf<Chart> = draftSchema.shape({
  id: idSchema,
  revision: number().integer().min(1).required(),
  createdAt: stamp,
  updatedAt: stamp,
});
const backupSchema = object({
  format: string().oneOf([FORMAT]).required(),
  version: number().oneOf([BACKUP_VERSION]).required(),
  madeAt: stamp,
  charts: array(mixed<Chart>().required()).required('The charts are missing.'),
  unreadable: array(
    mixed<RawRow>(isFields as (v: unknown) => v is RawRow)
      .required()
      .test('row', 'A row without an id cannot be kept.', (row) => typeof row['id'] === 'string')
      .test('cells', 'A row holds texts and numbers alone.', (row) => Object.values(row).every(isCell)),
  ).required('The unreadable rows are missing.'),
  instruments: array(
    object({ id: idSchema, instrument: instrumentSchema.required(), updatedAt: stamp }).noUnknown(),
  ).required('The instruments are missing.'),
  settings: settingsSchema.required('The settings are missing.'),
  known: array(shapeSchema).required('The known shapes are missing.'),
}).noUnknown();

/** Version 1 kept known shapes among the settings, had no unreadable rows, and knew no hand but the player's. */
function upgrade1(backup: Fields): Fields {
  const kept = backup['settings'];
  const { known = [], ...settings } = isFields(kept) ? kept : {};
  const handed = settings['handed'] === 'left' ? 'left' : 'instrument';
  return {
    ...backup,
    version: 2,
    unreadable: [],
    known,
    settings: isFields(kept) ? { ...settings, handed } : kept,
  };
}
const UPGRADES: readonly ((fields: Fields) => Fields)[] = [upgrade1];

const refuse = (code: string, message: string, field?: string): Checked<never> => ({
  ok: false,
  error: { code, message, ...(field ? { field } : {}) },
});

/**
 * Reads a backup of any version, all or nothing. Codes: `backup-version` for one of a later Crow Ladder, `backup-invalid`
 * with the field that is wrong.
 */
export function readBackup(json: unknown): Checked<Backup> {
  if (!isFields(json) || json['format'] !== FORMAT) return refuse('backup-invalid', NO_BACKUP, 'format');
  // What was kept before there was a rule for texts comes back without what they may not have.
  const now = broughtUp(withoutOdd(json) as Fields, json['version'], UPGRADES, 'backup');
  if ('refused' in now)
    return refuse(now.refused === 'newer' ? 'backup-version' : 'backup-invalid', now.message, 'version');
  const { settings } = now.fields;
  // Settings made before one existed get its default.
  const complete = isFields(settings) ? { ...DEFAULT_SETTINGS, ...settings } : settings;
  const whole = validate<Backup>(backupSchema, { ...now.fields, settings: complete });
  if (!whole.ok) return refuse('backup-invalid', whole.error.message, whole.error.field);
  const charts: Chart[] = [];
  for (const [i, json] of whole.value.charts.entries()) {
    const chart = readWithState<Chart>(chartSchema, json);
    if (!chart.ok) {
      const { field, message } = chart.error;
      return refuse('backup-invalid', message, `charts[${i}]${field ? `.${field}` : ''}`);
    }
    charts.push(chart.value);
  }
  const ids = [...charts.map((c) => c.id), ...whole.value.unreadable.map((r) => r['id'] as string)];
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  if (twice) return refuse('backup-invalid', `Two charts in this backup have the id ${twice}.`, 'charts');
  // What could not be read is nobody's to tidy.
  const unreadable = whole.value.unreadable.length ? (json['unreadable'] as readonly RawRow[]) : [];
  return {
    ok: true,
    value: { ...whole.value, unreadable, settings: settingsFrom(whole.value.settings), charts },
  };
}
