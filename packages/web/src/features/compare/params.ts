import { placeFrom, placeWord } from '@crow-ladder/contract';
import { onNeck, type Neck, type Place, placeId } from '@crow-ladder/core';
import { type Params } from '../../task/task.ts';

/** What the scale is compared with, and how the sentence says it. */
export const VIEWS = [
  { id: 'scale', name: 'Another scale', said: 'another scale' },
  { id: 'alter', name: 'Itself, with notes altered', said: 'itself, altered' },
  { id: 'added', name: 'Itself, with notes added', said: 'itself, with notes added' },
  { id: 'parallel', name: 'Modes from its root', said: 'the modes from its root' },
  { id: 'relative', name: 'Modes of its notes', said: 'the modes of its notes' },
  { id: 'notes', name: 'Notes on the neck', said: 'notes on the neck' },
] as const;
export type View = (typeof VIEWS)[number]['id'];

/** Where two scales are compared. */
export const WHERE = [
  { id: 'here', name: 'in the position in front' },
  { id: 'neck', name: 'over the whole neck' },
] as const;

export interface CompareParams {
  readonly view: View;
  readonly where: (typeof WHERE)[number]['id'];
  /** Spots whose notes are to be named. */
  readonly ticks: readonly Place[];
  /** The spot whose note is altered, or moved; null is none. */
  readonly spot: Place | null;
}

export const AT_FIRST: CompareParams = { view: 'scale', where: 'here', ticks: [], spot: null };

/** A spot ticked, or no more. */
export const ticked = (ticks: readonly Place[], place: Place): readonly Place[] =>
  ticks.some((t) => placeId(t) === placeId(place))
    ? ticks.filter((t) => placeId(t) !== placeId(place))
    : [...ticks, { string: place.string, fret: place.fret }];

const isPlace = ({ string, fret }: Place): boolean => Number.isInteger(string) && Number.isInteger(fret);
/** The spot whose note is altered or moved, where it lies on a neck. */
export const spotOn = (neck: Neck, { spot }: CompareParams): Place | null =>
  spot && onNeck(neck, spot.string, spot.fret) ? spot : null;

/** The ticked spots that lie on a neck. */
export const ticksOn = (neck: Neck, { ticks }: CompareParams): readonly Place[] =>
  ticks.filter(({ string, fret }) => onNeck(neck, string, fret));

export const params: Params<CompareParams> = {
  read: (query) => ({
    view: VIEWS.find(({ id }) => id === query.get('look'))?.id ?? 'scale',
    where: WHERE.find(({ id }) => id === query.get('where'))?.id ?? 'here',
    ticks: (query.get('ticks')?.split('-') ?? []).map((word) => placeFrom(word) as Place).filter(isPlace),
    spot: [placeFrom(query.get('spot') ?? '') as Place].find(isPlace) ?? null,
  }),
  write: ({ view, where, ticks, spot }) => ({
    look: view === 'scale' ? null : view,
    where: where === 'here' ? null : where,
    ticks: ticks.length ? ticks.map(placeWord).join('-') : null,
    spot: (view === 'alter' || view === 'added') && spot ? placeWord(spot) : null,
  }),
};
