import { type Settings } from '@crow-ladder/contract';
import { type Place } from '@crow-ladder/core';
import { type Fingering } from '@crow-ladder/core/run';
import { type Layers, type NeckLook } from '@crow-ladder/picture';
import { type ComponentType, type ReactNode } from 'react';
import { type SettingsChange } from '../app/settings.ts';
import { type Shown } from '../model/marks.ts';
import { type Model } from '../model/model.ts';
import { type Change } from '../model/moves.ts';
import { type OnPaper } from '../paper/onPaper.ts';
import { type SpotSaid } from '../ui/neck/Neck.tsx';

/** A task's own parameters in the address: by name, null where they are as at first. */
export interface Params<P> {
  readonly read: (query: URLSearchParams) => P;
  readonly write: (params: P) => Readonly<Record<string, string | null>>;
}

export interface PanelProps<P> {
  readonly model: Model;
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
  readonly look: NeckLook;
  readonly params: P;
  /** Other parameters; what comes of itself, as an answer or a sound does, is a function of those that stand by then. */
  readonly onParams: (params: P | ((now: P) => P)) => void;
  readonly onChange: (change: Change) => void;
  /** Opens another task of the chart, with these words of its address. */
  readonly onOpen: (path: string, words: Readonly<Record<string, string>>) => void;
}

/** What a task is given to stand beside an upright neck, and the rungs of the ladder that stand there else. */
export interface BesideProps<P> extends PanelProps<P> {
  readonly rungs: ReactNode;
}

/** What choosing a spot of the neck does where it does not make it the root. */
export interface Picking<P> {
  readonly pick: (place: Place) => P;
  /** What it makes of the chart, where it changes it. */
  readonly change?: (place: Place) => Change;
  /** "Place it", and the sentence that tells of it, where it stands beside the neck all the time. */
  readonly word: string;
  readonly said?: string;
  /** What is said of a spot meanwhile. */
  readonly say: (place: Place) => SpotSaid;
}

/** What the neck shows that the chart is not yet. */
export interface Instead {
  /** "C minor pentatonic". */
  readonly said: string;
  /** The chart as it would be. */
  readonly model: Model;
}

/** What a task puts on the neck and under it. */
export interface Task<P> {
  readonly params: Params<P>;
  /** The fingers that are shown, in the order of the position's spots, where the task shows others than the player's usual ones. */
  readonly fingering?: (model: Model, params: P, settings: Settings) => Fingering | null;
  readonly scene: (model: Model, params: P, shown: Shown, settings: Settings) => Partial<Layers>;
  /** The frets that a narrow screen shows, where they are others than those of the position in front. */
  readonly frets?: (model: Model, params: P) => readonly [number, number] | null;
  /** What the neck shows in place of the chart; null where it shows the chart. */
  readonly instead?: (model: Model, params: P, settings: Settings) => Instead | null;
  /** What choosing a spot does meanwhile; null where it makes it the root, as elsewhere. */
  readonly picking?: (model: Model, params: P, settings: Settings) => Picking<P> | null;
  /** What is put on a sheet of paper; null, or where a task has none, the page is printed as it stands. */
  readonly paper?: (model: Model, params: P, settings: Settings) => OnPaper | null;
  readonly Panel: ComponentType<PanelProps<P>>;
  /** What stands beside an upright neck, as high as it, where that is not the rungs. */
  readonly Beside?: ComponentType<BesideProps<P>>;
}

/** A task whose parameters are known by its own folder alone. */
export type AnyTask = Task<unknown>;
export const defineTask = <P>(task: Task<P>): AnyTask => task as unknown as AnyTask;

/** A task in the list, before it is loaded. */
export interface TaskEntry {
  /** Its part of the address. */
  readonly path: string;
  readonly name: string;
  /** What its key does, for the sheet of shortcuts. */
  readonly does: string;
  /** Whether the ladder is its subject; elsewhere it folds into a slim row. */
  readonly ladder: boolean;
  /** The word of its address that names a phrase, where it is the task in which one is opened. */
  readonly phrase?: string;
  /** Keys that it has of its own, and what they do, for the sheet of shortcuts. */
  readonly keys?: readonly { readonly key: string; readonly does: string }[];
  readonly load: () => Promise<AnyTask>;
}
