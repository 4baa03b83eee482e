import { array, mixed, number, object, string } from 'yup';
import { type Chart } from '../chart.ts';
import { draftSchema, readWithState } from '../draft.ts';
import { idSchema, instrumentSchema, type SchemaOf, stamp } from '../fields.ts';
import { LIBRARY_LIMITS, MOST_REVISION } from '../limits.ts';
import { type KeptRound, roundNow } from '../practice.ts';
import { type KeptCard, type Review, reviewNow } from '../recall/card.ts';
import { keptCardSchema, reviewSchema } from '../recall/schema.ts';
import { keptRoundSchema } from '../roundSchema.ts';
import { DEFAULT_SETTINGS, settingsFrom } from '../settings.ts';
import { settingsSchema } from '../settingsSchema.ts';
import { shapeSchema } from '../shape.ts';
import { type Checked } from '../checked.ts';
import { cutText, withoutOdd } from '../text.ts';
import { validate } from '../validate.ts';
import { type Backup, BACKUP_VERSION, type RawRow } from './backup.ts';
import { type Fields, isFields, isFieldsOf } from './fields.ts';
import { broughtUp } from './read.ts';

/** What a backup holds beside its charts, the rows that could not be read and the log of practice. */
export type BackupHead = Omit<Backup, 'charts' | 'unreadable' | 'practice' | 'cards' | 'reviews'>;

const isCell = (value: unknown): boolean =>
  value === null || typeof value === 'string' || typeof value === 'number';

export const BACKUP_FORMAT = 'crow-ladder-backup';
/** What is read piece by piece. */
const ANYTHING = { is: 'anything' };
export const chartSchema: SchemaOf<Chart> = draftSchema.shape({
  id: idSchema,
  revision: number().integer().min(1).required(),
  createdAt: stamp,
  updatedAt: stamp,
});
const rowSchema = mixed<RawRow>(isFieldsOf)
  .typeError('A row cannot be read.')
  .required('A row is missing.')
  .test('row', 'A row without an id cannot be kept.', (row) => typeof row['id'] === 'string')
  .test('cells', 'A row holds texts and numbers alone.', (row) => Object.values(row).every(isCell));
export const headSchema = object({
  format: string().oneOf([BACKUP_FORMAT]).required(),
  version: number().oneOf([BACKUP_VERSION]).required(),
  madeAt: stamp,
  charts: array(mixed().meta(ANYTHING)).required('The charts are missing.'),
  unreadable: array(mixed().meta(ANYTHING)).required('The unreadable rows are missing.'),
  practice: array(mixed().meta(ANYTHING)).required('The log of practice is missing.'),
  cards: array(mixed().meta(ANYTHING)).required('The cards are missing.'),
  reviews: array(mixed().meta(ANYTHING)).required('The answers are missing.'),
  instruments: array(
    object({ id: idSchema, instrument: instrumentSchema.required(), updatedAt: stamp }).noUnknown(),
  )
    .max(LIBRARY_LIMITS.instruments, `A library holds at most ${LIBRARY_LIMITS.instruments} instruments.`)
    .required('The instruments are missing.'),
  settings: settingsSchema.required('The settings are missing.'),
  known: array(shapeSchema)
    .max(LIBRARY_LIMITS.known, `A library holds at most ${LIBRARY_LIMITS.known} known shapes.`)
    .required('The known shapes are missing.'),
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
/** Version 2 had no log of practice. */
const upgrade2 = (backup: Fields): Fields => ({ ...backup, version: 3, practice: [] });
/** Version 3 had nothing to recall. */
const upgrade3 = (backup: Fields): Fields => ({ ...backup, version: 4, cards: [], reviews: [] });
/** Version 4 told of rounds and answers less than is written down now; each is completed as it is read. */
const upgrade4 = (backup: Fields): Fields => ({ ...backup, version: 5 });
const UPGRADES: readonly ((fields: Fields) => Fields)[] = [upgrade1, upgrade2, upgrade3, upgrade4];

/** The version from which on a backup has a list. */
const LISTS_SINCE: Readonly<Record<string, number>> = {
  unreadable: 2,
  known: 2,
  practice: 3,
  cards: 4,
  reviews: 4,
};

/** What is wrong with a backup: code `backup-invalid` with the full path of the field, or `backup-version` for one of a later Crow Ladder. */
export const backupRefused = (message: string, field?: string, code = 'backup-invalid'): Checked<never> => ({
  ok: false,
  error: { code, message, ...(field ? { field } : {}) },
});

/** Reads one chart of a backup, of any version, by its number from 0. What is wrong is said with the chart's name. */
export function readBackupChart(json: unknown, at: number): Checked<Chart> {
  // What was kept before there was a rule for texts comes back without what they may not have.
  const chart = readWithState<Chart>(chartSchema, withoutOdd(json));
  if (chart.ok)
    return { ok: true, value: { ...chart.value, revision: Math.min(chart.value.revision, MOST_REVISION) } };
  const { field, message } = chart.error;
  const name = isFields(json) && typeof json['name'] === 'string' ? cutText(json['name'].trim(), 60) : '';
  return backupRefused(
    `Chart ${at + 1}${name && `, “${name}”`}: ${message}`,
    `charts[${at}]${field ? `.${field}` : ''}`,
  );
}

/** Reads one row that could not be read as a chart; what is in it is nobody's to tidy. */
export function readBackupRow(json: unknown, at: number): Checked<RawRow> {
  const row = validate<RawRow>(rowSchema, withoutOdd(json));
  return row.ok ? { ok: true, value: json as RawRow } : backupRefused(row.error.message, `unreadable[${at}]`);
}

/** Reads one entry of a list; what is wrong is said with its number. */
const entryReader =
  <T>(
    schema: Parameters<typeof validate>[0],
    list: string,
    called: (n: number) => string,
    now = (entry: unknown): unknown => entry,
  ) =>
  (json: unknown, at: number): Checked<T> => {
    const entry = validate<T>(schema, now(withoutOdd(json)));
    if (entry.ok) return entry;
    const { field, message } = entry.error;
    return backupRefused(`${called(at + 1)}: ${message}`, `${list}[${at}]${field ? `.${field}` : ''}`);
  };
/** Reads one round of the log of practice. */
export const readBackupRound = entryReader<KeptRound>(
  keptRoundSchema,
  'practice',
  (n) => `Round ${n} of the log of practice`,
  roundNow,
);
/** Reads one card. */
export const readBackupCard = entryReader<KeptCard>(keptCardSchema, 'cards', (n) => `Card ${n}`);
/** Reads one answer to a card. */
export const readBackupReview = entryReader<Review>(reviewSchema, 'reviews', (n) => `Answer ${n}`, reviewNow);

/** Whether what begins so can be a backup that is read here: the format and the version, as far as they are known by then. */
export function backupTrouble({ format, version }: Fields): Checked<never> | null {
  if (format !== undefined && format !== BACKUP_FORMAT)
    return backupRefused('This file is not a backup of Crow Ladder.', 'format');
  const now = version === undefined ? null : broughtUp({}, version, UPGRADES, 'backup');
  if (!now || !('refused' in now)) return null;
  return backupRefused(now.message, 'version', now.refused === 'newer' ? 'backup-version' : undefined);
}

/** Reads all of a backup but its charts, rows and rounds, whose lists may be empty here. */
export function readBackupHead(json: Fields): Checked<BackupHead> {
  const trouble = backupTrouble({ format: null, version: null, ...json });
  if (trouble) return trouble;
  const later = Object.entries(LISTS_SINCE).find(
    ([list, v]) => list in json && v > (json['version'] as number),
  );
  if (later)
    return backupRefused(
      `This backup has version ${String(json['version'])}, and a list of version ${later[1]}: it was altered, and cannot be read.`,
      later[0],
    );
  const now = broughtUp(withoutOdd(json) as Fields, json['version'], UPGRADES, 'backup');
  if ('refused' in now) return backupRefused(now.message, 'version');
  const { settings } = now.fields;
  // Settings made before one existed get its default.
  const complete = isFields(settings) ? { ...DEFAULT_SETTINGS, ...settings } : settings;
  const head = validate<Backup>(headSchema, { ...now.fields, settings: complete });
  if (!head.ok) return backupRefused(head.error.message, head.error.field);
  const { format, version, madeAt, instruments, known } = head.value;
  const ids = instruments.map((i) => i.id);
  const twice = ids.find((id, i) => ids.indexOf(id) !== i);
  if (twice) return backupRefused(`Two instruments in this backup have the id ${twice}.`, 'instruments');
  const settingsNow = settingsFrom(head.value.settings);
  return { ok: true, value: { format, version, madeAt, instruments, known, settings: settingsNow } };
}
