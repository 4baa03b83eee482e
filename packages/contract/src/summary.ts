import {
  accidentalsOf,
  note,
  noteName,
  type Place,
  pretty,
  scaleSaid,
  spellScale,
  spotSaid,
  tuningSaid,
} from '@crow-ladder/core';
import { type LayoutSpec, layoutName } from '@crow-ladder/core/layouts';
import { type Chart, type Unreadable } from './chart.ts';
import { type ChartState } from './document/state.ts';
import { scalesOf } from './ownScale.ts';
import { DEFAULT_SETTINGS, type Settings } from './settings.ts';

/** What a list says of a chart without its document. */
export interface ChartAbout {
  readonly key: ChartState['key'];
  readonly at: Place;
  readonly layout: LayoutSpec;
  readonly tuning: readonly number[];
}

/** A chart in a list. */
export interface ChartSummary extends Pick<Chart, 'id' | 'name' | 'tags' | 'revision' | 'updatedAt'> {
  readonly about: ChartAbout;
}

export const CHART_ORDERS = ['changed', 'name', 'key', 'made'] as const;
export type ChartOrder = (typeof CHART_ORDERS)[number];

/** Which charts are asked for: those with all of the words and the tag, in an order. */
export interface ChartQuery {
  readonly find: string;
  /** Empty is any. */
  readonly tag: string;
  readonly order: ChartOrder;
}

/** How many charts a page of a list holds. */
export const CHART_PAGE = 60;

/** One page of the charts asked for. */
export interface ChartPage {
  readonly charts: readonly ChartSummary[];
  /** How many were found, on all pages. */
  readonly found: number;
  /** How many charts there are. */
  readonly all: number;
  /** Rows that cannot be read as charts, at most as many as a page holds. */
  readonly unreadable: readonly Unreadable[];
}

/** A tag, and how many charts have it. */
export interface Tagged {
  readonly tag: string;
  readonly charts: number;
}

export const aboutOf = ({ key, at, layout, instrument }: ChartState): ChartAbout => ({
  key,
  at,
  layout,
  tuning: instrument.tuning,
});

/** What a chart is about, as in its sentence. */
export function aboutSaid(
  { key, at, layout, tuning }: ChartAbout,
  { ownScales, spelling }: Pick<Settings, 'ownScales' | 'spelling'> = DEFAULT_SETTINGS,
): string {
  const [scale] = scalesOf([key.scale], ownScales);
  const notes = scale ? spellScale({ root: note(key.root), scale }).map((n) => pretty(noteName(n))) : [];
  const strings = tuningSaid(tuning, accidentalsOf(notes, spelling));
  return `${pretty(key.root)} ${scale ? scaleSaid(scale) : ''}, ${spotSaid(at)}, ${layoutName(layout)}, ${strings}`;
}
