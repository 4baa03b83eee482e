import './locale.ts';
import {
  COMFORTABLE_SPAN_MM,
  FINGERING_SCHOOLS,
  type FingeringSchool,
  type Instrument,
  NUMBERING_SCHOOLS,
  type NumberingSchool,
  resolveScale,
} from '@crow-ladder/core';
import { array, number, object, string } from 'yup';
import { type Chart, draftSchema, instrumentSchema, text } from './chart.ts';

/** A player's own instrument. */
export interface KeptInstrument {
  readonly id: string;
  readonly instrument: Instrument;
  readonly updatedAt: string;
}

export const THEMES = ['system', 'paper', 'stage'] as const;
export const LABELS = ['degree', 'note', 'finger', 'fret', 'solfa', 'order', 'none'] as const;

/** What a player prefers; kept on the server. */
export interface Settings {
  readonly theme: (typeof THEMES)[number];
  readonly spelling: 'sharps' | 'flats';
  /** `usual`: what players use for the scale at hand. */
  readonly numbering: 'usual' | NumberingSchool;
  readonly fingering: FingeringSchool;
  /** Comfortable span between index and little finger, in mm. */
  readonly spanMm: number;
  readonly labels: (typeof LABELS)[number];
  readonly stringOnTop: 'high' | 'low';
  readonly handed: 'right' | 'left';
  readonly frets: 'true' | 'even';
  readonly colours: 'plain' | 'degree';
  readonly favourites: readonly string[];
  /** Scales of the player's own that bear a name. */
  readonly ownScales: readonly OwnScale[];
  /** Shapes that the player says are known, as core's `shapeOf` tells them. */
  readonly known: readonly string[];
}

/** A scale of the player's own; its id spells it. */
export interface OwnScale {
  readonly id: string;
  readonly name: string;
}

export const DEFAULT_SETTINGS: Settings = {
  theme: 'system',
  spelling: 'sharps',
  numbering: 'usual',
  fingering: 'onePerFret',
  spanMm: COMFORTABLE_SPAN_MM,
  labels: 'degree',
  stringOnTop: 'high',
  handed: 'right',
  frets: 'true',
  colours: 'plain',
  favourites: [],
  ownScales: [],
  known: [],
};

/** The longest name of a scale. */
export const SCALE_NAME = 60;
const isOwnScale = (id: string | undefined): boolean =>
  id === undefined || (id.startsWith('own:') && resolveScale(id).ok);
const one = <T extends string>(of: readonly T[]) => string().oneOf(of).required();

export const settingsSchema = object({
  theme: one(THEMES),
  spelling: one(['sharps', 'flats']),
  numbering: one(['usual', ...NUMBERING_SCHOOLS.map((s) => s.id)]),
  fingering: one(FINGERING_SCHOOLS.map((s) => s.id)),
  spanMm: number()
    .typeError('The span is a number of mm, 50 to 200.')
    .min(50, 'The span is at least 50 mm.')
    .max(200, 'The span is at most 200 mm.')
    .required('The span is missing.'),
  labels: one(LABELS),
  stringOnTop: one(['high', 'low']),
  handed: one(['right', 'left']),
  frets: one(['true', 'even']),
  colours: one(['plain', 'degree']),
  favourites: array(string().max(120).required()).max(60, 'At most 60 scales can be favourites.').required(),
  ownScales: array(
    object({
      id: string()
        .max(120)
        .required()
        .test('own', 'A scale of your own is spelled by its degrees.', (v) => isOwnScale(v)),
      name: text('The name of a scale', SCALE_NAME)
        .required('Give the scale a name.')
        .test('blank', 'Give the scale a name.', (v) => v === undefined || v.trim() !== ''),
    }).noUnknown(),
  )
    .max(200, 'At most 200 scales of your own can bear a name.')
    .required(),
  known: array(string().max(400).required()).max(2000, 'At most 2000 shapes can be known.').required(),
}).noUnknown();

/** Some of the settings, as one tab changes them while another may change others. */
export const settingsChangeSchema = settingsSchema.partial();

/** The version of backups that this application writes. */
export const BACKUP_VERSION = 1;

/** The whole library in one file. */
export interface Backup {
  readonly format: 'crow-ladder-backup';
  readonly version: number;
  readonly madeAt: string;
  readonly charts: readonly Chart[];
  readonly instruments: readonly KeptInstrument[];
  readonly settings: Settings;
}

const stamp = string()
  .required('A date is missing.')
  .test('date', 'A date cannot be read.', (v) => v !== undefined && !Number.isNaN(Date.parse(v)));
const id = string()
  .matches(/^[\w-]{1,40}$/, 'An id cannot be read.')
  .required('An id is missing.');

export const backupSchema = object({
  format: string()
    .oneOf(['crow-ladder-backup'], 'This file is not a backup of Crow Ladder.')
    .required('This file is not a backup of Crow Ladder.'),
  version: number().oneOf([BACKUP_VERSION]).required(),
  madeAt: stamp,
  charts: array(
    draftSchema.shape({
      id,
      revision: number().integer().min(1).required(),
      createdAt: stamp,
      updatedAt: stamp,
    }),
  ).required('The charts are missing.'),
  instruments: array(
    object({ id, instrument: instrumentSchema.required(), updatedAt: stamp }).noUnknown(),
  ).required('The instruments are missing.'),
  settings: settingsSchema.required('The settings are missing.'),
}).noUnknown();

/** Largest request the server reads, in bytes: one chart, and a whole library. */
export const BODY_LIMIT = { chart: 100_000, backup: 20_000_000 } as const;
