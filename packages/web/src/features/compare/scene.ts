import {
  degreeName,
  noteName,
  type Place,
  placeId,
  pitchAt,
  pretty,
  solfa,
  type Spot,
  spellScale,
  spotsOf,
  keySaid,
  mod,
  pitchClass,
  scaleSaid,
} from '@crow-ladder/core';
import { sideOf } from '@crow-ladder/core/overlays';
import { type Layers, type Mark, type MarkKind } from '@crow-ladder/picture';
import { addedIn, addedSaid } from '../../model/added.ts';
import { spotHead } from '../../model/describe.ts';
import { type Laid, laidOver } from '../../model/laid.ts';
import { labelOf, marksOf, type Shown } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { marked } from '../../model/way.ts';
import { spotNamed } from '../../model/wording.ts';
import { type Picking } from '../../task/task.ts';
import { LOWER_KEY, MOVE_KEY, RAISE_KEY } from './keys.ts';
import { type CompareParams, spotOn, ticked, ticksOn } from './params.ts';

const KINDS = { both: 'shared', first: 'lower', second: 'upper' } as const satisfies Record<string, MarkKind>;

/** What a note of the second scale alone says: its degree there, or its note where degrees count from another root. */
function labelThere(model: Model, { overlay, part }: Laid, labels: Shown['labels'], spot: Spot): string {
  const { second } = overlay;
  const note = pretty(noteName(spellScale(second)[spot.degree]!));
  const degree = second.scale.degrees[spot.degree]!;
  switch (labels) {
    case 'note':
      return note;
    case 'degree':
      return part.above ? note : pretty(degreeName(degree));
    case 'solfa':
      return part.above ? note : solfa(degree);
    default:
      return labelOf(model, labels, { ...spot, degree: -1 });
  }
}

/** Both scales on the neck, or in the position in front: the notes of both, of the first alone, of the second alone. */
function compared(model: Model, laid: Laid, { where }: CompareParams, { labels }: Shown): readonly Mark[] {
  const { overlay, here } = laid;
  const { first, second } = overlay;
  const inFront =
    where === 'here' && here && model.front
      ? new Set([...model.front.position.held, ...here.come, ...here.moved.map(({ to }) => to)].map(placeId))
      : null;
  const seen = (place: Place): boolean => !inFront || inFront.has(placeId(place));
  const names = {
    both: 'both',
    first: `${scaleSaid(first.scale)} alone`,
    second: `${scaleSaid(second.scale)} alone`,
  };
  const isSecondRoot = (midi: number): boolean => mod(midi, 12) === pitchClass(second.root);
  const own = spotsOf(model.neck, first).flatMap((s): Mark[] => {
    const side = sideOf(overlay, s.midi)!;
    const root = s.degree === 0;
    if (!seen(s))
      return root
        ? [
            {
              string: s.string,
              fret: s.fret,
              kind: 'outsideRoot',
              label: labelOf(model, labels, s),
              name: () => spotHead(model, s),
            },
          ]
        : [];
    return [
      {
        string: s.string,
        fret: s.fret,
        kind: root && side === 'both' ? 'root' : KINDS[side],
        root: root || isSecondRoot(s.midi),
        label: labelOf(model, labels, s),
        name: () =>
          `${spotHead(model, s)}, in ${names[side]}${!root && isSecondRoot(s.midi) ? `, the root of ${keySaid(second)}` : ''}`,
      },
    ];
  });
  const theirs = spotsOf(model.neck, second).flatMap((s): Mark[] => {
    if (sideOf(overlay, s.midi) !== 'second' || !seen(s)) return [];
    return [
      {
        string: s.string,
        fret: s.fret,
        kind: 'upper',
        root: s.degree === 0,
        label: labelThere(model, laid, labels, s),
        name: () => `${spotNamed(s)}: ${labelThere(model, laid, 'note', s)}, in ${names.second}`,
      },
    ];
  });
  return [...own, ...theirs];
}

/** The notes that are to be named, over the faded scale. */
function named(model: Model, params: CompareParams, shown: Shown): readonly Mark[] {
  const ticks = ticksOn(model.neck, params);
  const set = new Set(ticks.map(placeId));
  return [
    ...marked(model, shown, () => null).filter((mark) => !set.has(placeId(mark))),
    ...ticks.map((place): Mark => ({
      ...place,
      kind: 'note',
      label: pitchName(model, pitchAt(model.neck, place.string, place.fret)),
      name: () => `${spotHead(model, place)}, ticked`,
    })),
  ];
}

export function scene(model: Model, params: CompareParams, shown: Shown): Partial<Layers> {
  if (params.view === 'notes') return { marks: named(model, params, shown) };
  const spot = params.view === 'alter' || params.view === 'added' ? spotOn(model.neck, params) : null;
  const cursor = spot && { cursor: { at: spot, next: null } };
  if (params.view === 'added') return { ...cursor, marks: marksOf(model, shown) };
  const laid = laidOver(model);
  return {
    ...cursor,
    marks: laid && !shown.rootsOnly ? compared(model, laid, params, shown) : marksOf(model, shown),
  };
}

/** While notes are named, a spot that is chosen is ticked; while notes are altered, it is the one that is. */
export function picking(model: Model, params: CompareParams): Picking<CompareParams> | null {
  if (params.view === 'alter')
    return {
      pick: ({ string, fret }) => ({ ...params, spot: { string, fret } }),
      word: 'Alter its note',
      said: `A click or Enter chooses it; ${RAISE_KEY} raises its note by a half step, ${LOWER_KEY} lowers it.`,
      say: (place) => ({ head: spotHead(model, place), more: () => '' }),
    };
  if (params.view === 'added') {
    const here = model.front ? addedIn(model, model.front.position) : [];
    return {
      pick: ({ string, fret }) => ({ ...params, spot: { string, fret } }),
      word: 'Choose it',
      said: `A click or Enter chooses an added note; ${MOVE_KEY} plays it on another string, where its pitch lies under the hand.`,
      say: (place) => {
        const spot = here.find((it) => placeId(it) === placeId(place));
        return {
          head: spot ? addedSaid(model, spot) : spotHead(model, place),
          more: () => '',
        };
      },
    };
  }
  if (params.view !== 'notes') return null;
  const set = new Set(ticksOn(model.neck, params).map(placeId));
  return {
    pick: (place) => ({ ...params, ticks: ticked(params.ticks, place) }),
    word: 'Tick it, or take the tick away',
    said: 'A click or Enter ticks it, and takes the tick away again.',
    say: (place) => ({
      head: `${spotHead(model, place)}${set.has(placeId(place)) ? ', ticked' : ''}`,
      more: () => '',
    }),
  };
}
