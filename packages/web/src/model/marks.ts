import { type Settings } from '@crow-ladder/contract';
import { placeId, solfa, spotsOf, type Place } from '@crow-ladder/core';
import { fingerSign, type Fingering } from '@crow-ladder/core/run';
import { shapeSteps } from '@crow-ladder/core/sources';
import { type Mark } from '@crow-ladder/picture';
import { aboveRoot, addedIn, addedSaid, beside } from './added.ts';
import { spotHead } from './describe.ts';
import { type Model, pitchName } from './model.ts';

/** Okabe and Ito, "Color Universal Design", 2008: eight colours told apart by colour-blind eyes, with a text colour for each. */
const PALETTE: readonly (readonly [fill: string, text: string])[] = [
  ['#000000', '#ffffff'],
  ['#e69f00', '#000000'],
  ['#56b4e9', '#000000'],
  ['#009e73', '#000000'],
  ['#f0e442', '#000000'],
  ['#0072b2', '#ffffff'],
  ['#d55e00', '#000000'],
  ['#cc79a7', '#000000'],
];

/** What the neck is asked to show. */
export type Shown = Pick<Settings, 'labels' | 'colours'> & { readonly rootsOnly: boolean };

/** A note that a mark stands for. `degree` is −1 outside the scale; `order` counts from 0 in the order of play. */
export interface Labelled {
  readonly degree: number;
  readonly fret: number;
  readonly midi: number;
  readonly order?: number | undefined;
  readonly finger?: number | undefined;
}

/** What a mark says. */
export function labelOf(model: Model, labels: Settings['labels'], it: Labelled): string {
  const { degrees, notes, scale } = model;
  switch (labels) {
    case 'degree':
      return degrees[it.degree] ?? '';
    case 'note':
      return notes[it.degree] ?? pitchName(model, it.midi);
    case 'solfa':
      return it.degree >= 0 ? solfa(scale.degrees[it.degree]!) : '';
    case 'fret':
      return String(it.fret);
    case 'finger':
      return it.finger === undefined ? '' : fingerSign(it.finger);
    case 'order':
      return it.order === undefined ? '' : String(it.order + 1);
    case 'none':
      return '';
  }
}

/** Fill and text colour of a note where colours tell degrees; the root keeps its own. */
export function colourOf({ scale }: Model, { colours }: Shown, degree: number): Pick<Mark, 'fill' | 'text'> {
  if (colours === 'plain' || degree <= 0) return {};
  const [fill, text] = PALETTE[scale.degrees[degree]!.number % PALETTE.length]!;
  return { fill, text };
}

/** A key for a place on the neck that costs no text. */
type ByPlace<T> = ReadonlyMap<number, T>;

/** Where the spots of the position in front come in the order of play; none for twins, which a run passes over. */
function orderOf({ front }: Model): ByPlace<number | undefined> {
  const order = new Map<number, number | undefined>();
  const many = front?.position.spots.length ?? 0;
  front?.position.held.forEach((s, i) => {
    const id = placeId(s);
    if (!order.has(id)) order.set(id, i < many ? i : undefined);
  });
  return order;
}

/**
 * The marks of a model: the position in front in full, the other notes faded, altered notes among them. Fingers are those
 * of `fingering`, which follows the order of the position's spots.
 */
export function marksOf(
  model: Model,
  { labels, rootsOnly, colours }: Shown,
  fingering: () => Fingering | null = model.fingering,
): readonly Mark[] {
  const { neck, key, front } = model;
  const steps = labels === 'finger' && front ? (fingering()?.steps ?? []) : [];
  const fingers = new Map<number, number>();
  for (const { spot, finger } of front ? shapeSteps(neck, front.position, steps) : [])
    if (!fingers.has(placeId(spot))) fingers.set(placeId(spot), finger);
  const order = orderOf(model);
  const label = (spot: Place, degree: number, midi: number): string =>
    labelOf(model, labels, {
      degree,
      fret: spot.fret,
      midi,
      order: order.get(placeId(spot)),
      finger: fingers.get(placeId(spot)),
    });
  const marks = spotsOf(neck, key).flatMap((s): Mark[] => {
    const inside = front === null || order.has(placeId(s));
    const root = s.degree === 0;
    if (rootsOnly && !root) return [];
    return [
      {
        string: s.string,
        fret: s.fret,
        kind: root ? (inside ? 'root' : 'outsideRoot') : inside ? 'note' : 'outside',
        label: label(s, s.degree, s.midi),
        name: () => spotHead(model, s, fingering),
        ...(inside ? colourOf(model, { labels, rootsOnly, colours }, s.degree) : {}),
      },
    ];
  });
  if (rootsOnly) return marks;
  const altered = new Map((front?.position.spots ?? []).flatMap((s) => (s.altered ? [[placeId(s), s]] : [])));
  for (const s of altered.values()) {
    marks.push({
      string: s.string,
      fret: s.fret,
      kind: 'altered',
      // It has no degree: where degrees are said its note says what it is.
      label:
        label(s, -1, s.midi) || (labels === 'degree' || labels === 'solfa' ? pitchName(model, s.midi) : ''),
      name: () => spotHead(model, s, fingering),
    });
  }
  for (const s of front ? addedIn(model, front.position) : []) {
    const { degree, note } = beside(model, aboveRoot(model, s.midi));
    marks.push({
      string: s.string,
      fret: s.fret,
      kind: s.added === 'passing' ? 'passing' : 'added',
      label: labels === 'degree' ? degree : labels === 'note' ? note : label(s, -1, s.midi),
      name: () => addedSaid(model, s),
    });
  }
  return marks;
}
