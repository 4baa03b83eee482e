import { type Settings } from '@crow-ladder/contract';
import { pitchAt, type Place, placeId, type Spot, spotsOf } from '@crow-ladder/core';
import { type FourthsWindow, type Outcome } from '@crow-ladder/core/moves';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { type Picking } from '../../task/task.ts';
import { spotHead } from '../../model/describe.ts';
import { labelOf, marksOf, type Shown } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { spotNamed } from '../../model/wording.ts';
import { type Drilled, drillOn, withPlaced } from './drilled.ts';
import { type MoveParams } from './params.ts';
import { afterOf, onThisNeck, windowOf } from './seen.ts';

type Drawn = Partial<Layers>;
/** What a note that is moved is followed by. */
const followed = (i: number): string => `moved ${i}`;

/** The notes of a position before it is moved, so that they can be seen to go. */
function before(model: Model, shown: Shown): Drawn {
  const at = new Map((model.front?.position.held ?? []).map((s, i) => [placeId(s), i]));
  return {
    marks: marksOf(model, shown).map((m): Mark => {
      const i = at.get(placeId(m));
      return i === undefined ? m : { ...m, follows: followed(i) };
    }),
  };
}

/** Before and after on one neck: the notes where they lie then, and a faint outline where they were. */
function moved(model: Model, outcome: Outcome, shown: Shown, settings: Settings): Drawn {
  const after = afterOf(model, outcome, settings);
  const at = new Map(outcome.spots.flatMap(({ to }, i) => (to ? [[placeId(to), { to, i }] as const] : [])));
  const was = new Map(
    outcome.spots.flatMap(({ from }) =>
      from && !at.has(placeId(from)) ? [[placeId(from), from] as const] : [],
    ),
  );
  // What moved stands in front, whatever position the layout has there.
  const marks = marksOf(after, shown, after.fingering).flatMap((m): Mark[] => {
    const id = placeId(m);
    const here = at.get(id);
    if (here) {
      const kind = here.to.degree < 0 ? 'altered' : here.to.degree === 0 ? 'root' : 'note';
      return [
        { ...m, kind, follows: followed(here.i), name: () => `${spotHead(after, m, () => null)}, moved` },
      ];
    }
    if (was.has(id)) return [];
    return [
      m.kind === 'root' || m.kind === 'note'
        ? { ...m, kind: m.kind === 'root' ? 'outsideRoot' : 'outside' }
        : m,
    ];
  });
  const drawn = new Set(marks.map(placeId));
  // Notes that came to lie outside the scale have no mark yet.
  const strange = [...at.values()].flatMap(({ to, i }): Mark[] =>
    drawn.has(placeId(to)) || shown.rootsOnly
      ? []
      : [
          {
            ...to,
            kind: 'altered',
            label: labelOf(after, shown.labels, to) || pitchName(after, to.midi),
            follows: followed(i),
            name: () => `${spotHead(after, to, () => null)}, moved`,
          },
        ],
  );
  const ghosts = [...was.values()].map((s): Mark => ({
    string: s.string,
    fret: s.fret,
    kind: 'was',
    label: shown.rootsOnly ? '' : labelOf(model, shown.labels, s),
    name: () => `${spotHead(model, s, () => null)}, where it was`,
  }));
  return {
    marks: [...marks, ...strange, ...(shown.rootsOnly ? [] : ghosts)],
    links: shown.rootsOnly
      ? []
      : outcome.spots.flatMap(({ from, to }): Link[] =>
          from && to && placeId(from) !== placeId(to) ? [{ from, to, kind: 'was', label: '' }] : [],
        ),
  };
}

/** The window of the pattern over the root: the root alone, then the pattern as if all strings were fourths apart, then the strings moved by their jogs. */
function windowed(model: Model, { step }: MoveParams, window: FourthsWindow, shown: Shown): Drawn {
  const { anchor, frets, strings } = window;
  const inWindow = strings.flatMap(({ spots, pattern }) =>
    spots.map((s, i) => ({ s, at: { string: s.string, fret: step === 3 ? s.fret : pattern[i]! } })),
  );
  const isAnchor = (p: { string: number; fret: number }): boolean => placeId(p) === placeId(anchor);
  if (step === 1)
    return {
      marks: marksOf(model, shown).map((m): Mark => ({
        ...m,
        kind: isAnchor(m)
          ? 'root'
          : m.kind === 'root' || m.kind === 'outsideRoot'
            ? 'outsideRoot'
            : 'outside',
      })),
    };
  const taken = new Map(inWindow.map((w, i) => [placeId(w.at), { ...w, i }]));
  const kind = (s: Spot): Mark['kind'] => (s.degree === 0 ? 'root' : 'note');
  const rest = spotsOf(model.neck, model.key)
    .filter((s) => !taken.has(placeId(s)))
    .map((s): Mark => ({
      string: s.string,
      fret: s.fret,
      kind: s.degree === 0 ? 'outsideRoot' : 'outside',
      label: labelOf(model, shown.labels, s),
      name: () => spotHead(model, s, () => null),
    }));
  const marks = [...taken.values()].map(({ s, at, i }): Mark => ({
    ...at,
    kind: kind(s),
    label: labelOf(model, shown.labels, { ...s, fret: at.fret }),
    follows: `window ${i}`,
    name: () =>
      step === 3
        ? `${spotHead(model, s, () => null)}, in the window`
        : `${spotNamed(at)}: in the pattern, degree ${model.degrees[s.degree]}`,
  }));
  const jogged = step === 3 ? strings.filter((s) => s.by !== 0) : [];
  const was = jogged.flatMap(({ string, pattern, spots }) =>
    spots.flatMap((s, i): Mark[] => {
      const at = { string, fret: pattern[i]! };
      if (taken.has(placeId(at)) || rest.some((m) => placeId(m) === placeId(at))) return [];
      const label = labelOf(model, shown.labels, { ...s, fret: at.fret });
      return [{ ...at, kind: 'was', label, name: () => `${spotNamed(at)}: where the pattern had it` }];
    }),
  );
  return {
    marks: [...rest, ...was, ...marks],
    ...(step === 2 ? { hand: { from: Math.max(0, frets[0]), to: frets[1], label: 'the window' } } : {}),
    links: jogged.flatMap(({ string, pattern, spots }) =>
      spots.map((to, i): Link => ({ from: { string, fret: pattern[i]! }, to, kind: 'was', label: '' })),
    ),
  };
}

/** A spot of the neck while the window is drilled. */
const drilledSaid = (model: Model, { placed }: Drilled, place: Place): string =>
  `${spotNamed(place)}: ${pitchName(model, pitchAt(model.neck, place.string, place.fret))}${placed.some((p) => placeId(p) === placeId(place)) ? ', placed' : ''}`;

/** The drill: the anchor, the spots that were placed, and once judged what is wrong with them. */
function drilled(model: Model, drill: Drilled): Drawn {
  const { window, placed, faults } = drill;
  const { anchor, strings } = window;
  const right = new Set(strings.flatMap((s) => s.spots.map(placeId)));
  const here = new Set(placed.map(placeId));
  const mark = (p: Place, kind: Mark['kind'], more = ''): Mark => ({
    string: p.string,
    fret: p.fret,
    kind,
    label: pitchName(model, pitchAt(model.neck, p.string, p.fret)),
    name: () => `${drilledSaid(model, drill, p)}${more}`,
  });
  const marks = placed.map((p) =>
    placeId(p) === placeId(anchor)
      ? mark(p, 'root')
      : faults && !right.has(placeId(p))
        ? mark(p, 'altered', ', not in the window')
        : mark(p, 'note'),
  );
  const missed = strings.flatMap(({ spots }) =>
    spots.filter((p) => !here.has(placeId(p)) && placeId(p) !== placeId(anchor)),
  );
  return {
    marks: [
      ...marks,
      ...(faults ? missed.map((p) => mark(p, 'was', ', missing')) : []),
      ...(here.has(placeId(anchor)) ? [] : [mark(anchor, 'outsideRoot', ', the anchor')]),
    ],
    cursor: { at: anchor, next: null },
  };
}

/** While the window is drilled, a spot that is chosen is placed. */
export function picking(model: Model, params: MoveParams): Picking<MoveParams> | null {
  const drill = drillOn(model.neck, params.drill);
  if (params.view !== 'fourths' || !drill) return null;
  return {
    pick: (place) => ({ ...params, drill: withPlaced(drill, place) }),
    word: 'Place it, or take it away',
    said: 'A click or Enter places it, and takes it away again.',
    say: (place) => ({ head: drilledSaid(model, drill, place), more: () => '' }),
  };
}

/** What the neck shows of a move. */
export function scene(model: Model, params: MoveParams, shown: Shown, settings: Settings): Drawn {
  if (params.view === 'fourths') {
    const drill = drillOn(model.neck, params.drill);
    if (drill) return drilled(model, drill);
    const window = windowOf(model, params);
    return window.ok ? windowed(model, params, window.value, shown) : before(model, shown);
  }
  const outcome = onThisNeck(model, params, settings);
  return outcome ? moved(model, outcome, shown, settings) : before(model, shown);
}
