import { type Chart } from '../chart.ts';
import { type KeptInstrument } from '../library.ts';
import { type KeptRound } from '../practice.ts';
import { type KeptCard, type Review } from '../recall/card.ts';
import { type Settings } from '../settings.ts';

/** The version of backups that this application writes. */
export const BACKUP_VERSION = 5;

/** A row that cannot be read, as it stands. */
export type RawRow = Readonly<Record<string, string | number | null>>;

/** The whole library in one file. */
export interface Backup {
  readonly format: 'crow-ladder-backup';
  readonly version: typeof BACKUP_VERSION;
  readonly madeAt: string;
  readonly charts: readonly Chart[];
  /** Rows that could not be read as charts, as they stood. */
  readonly unreadable: readonly RawRow[];
  /** The log of practice. */
  readonly practice: readonly KeptRound[];
  /** What is to be remembered, in the order in which it is learned, and every answer in the order in which it was given. */
  readonly cards: readonly KeptCard[];
  readonly reviews: readonly Review[];
  readonly instruments: readonly Omit<KeptInstrument, 'revision'>[];
  readonly settings: Settings;
  /** Shapes that the player knows. */
  readonly known: readonly string[];
}
