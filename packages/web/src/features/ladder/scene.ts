import { pitchAt, type Place, placeId } from '@crow-ladder/core';
import { seamByString, underHand } from '@crow-ladder/core/ladder';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { marksOf, type Shown } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { spotNamed } from '../../model/wording.ts';
import { marked, wayLayers } from '../../model/way.ts';
import { climbed } from './climbed.ts';
import { type LadderParams } from './params.ts';
import { pickedPlan } from './planning.ts';
import { handOf, netOf, pairOf, regionsSeen, rootHeld } from './seen.ts';

type Drawn = Partial<Layers>;

/** Two positions: what both hold, and what each holds alone. */
function seamLayers(model: Model, params: LadderParams, shown: Shown): Drawn {
  const pair = pairOf(model, params);
  if (!pair) return { marks: marksOf(model, shown) };
  const kinds = new Map<number, 'shared' | 'lower' | 'upper'>();
  for (const on of seamByString(model.neck, ...pair))
    for (const kind of ['shared', 'lower', 'upper'] as const)
      for (const spot of on[kind]) kinds.set(placeId(spot), kind);
  const names = model.names();
  const [lower, upper] = pair.map((p) => names[p.index]!);
  const said = { shared: 'in both positions', lower: `in ${lower} alone`, upper: `in ${upper} alone` };
  return {
    marks: marked(
      model,
      shown,
      (s) => kinds.get(placeId(s)) ?? null,
      (s) => {
        const kind = kinds.get(placeId(s));
        return kind ? `, ${said[kind]}` : '';
      },
    ),
  };
}

/** All roots with the octave jumps between them; those of the chart's root stand out, and what lies beside it. */
function rootLayers(model: Model, _: LadderParams, shown: Shown): Drawn {
  const { jumps } = netOf(model.neck, model.key);
  const anchor = placeId(model.state.at);
  const beside = new Set(
    rootHeld(model).flatMap(({ below, above }) => [below, above].flatMap((s) => (s ? [placeId(s)] : []))),
  );
  const near = ({ from, to }: { from: Place; to: Place }): boolean =>
    placeId(from) === anchor || placeId(to) === anchor;
  return {
    marks: marked(model, shown, (s) => (s.degree === 0 ? 'root' : beside.has(placeId(s)) ? 'note' : null)),
    links: jumps.map((jump): Link => ({
      from: jump.from,
      to: jump.to,
      kind: near(jump) ? 'move' : 'octave',
      label: '',
    })),
  };
}

/** The hand on the neck, and which notes of the position in front lie under it. */
function handLayers(model: Model, params: LadderParams, shown: Shown): Drawn {
  const hand = handOf(model, params);
  if (!hand.ok) return { marks: marksOf(model, shown) };
  const { frets, held } = hand.value;
  const under = underHand(hand.value);
  const marks = marksOf(model, shown).map((m): Mark => {
    if (!under(m)) return m;
    if (m.kind === 'root' || m.kind === 'note')
      return { ...m, kind: 'shared', root: m.kind === 'root', name: () => `${m.name()}, under the hand` };
    return held ? { ...m, kind: 'altered', name: () => `${m.name()}, held, outside the position` } : m;
  });
  const taken = new Set(marks.map(placeId));
  const strange = (held ?? [])
    .filter((p) => !taken.has(placeId(p)))
    .map((p): Mark => {
      const name = pitchName(model, pitchAt(model.neck, p.string, p.fret));
      return {
        ...p,
        kind: 'altered',
        label: name,
        name: () => `${spotNamed(p)}: ${name}, held, outside the scale`,
      };
    });
  return { marks: [...marks, ...strange], hand: { from: frets[0], to: frets[1], label: 'the hand' } };
}

/** The regions, and the same octave in each. */
function regionLayers(model: Model, params: LadderParams, shown: Shown): Drawn {
  const seen = regionsSeen(model, params);
  const inOctave = new Set(seen.flatMap(({ octave }) => (octave ?? []).map(placeId)));
  return {
    regions: seen.flatMap(({ from, to }, i) => (i % 2 ? [{ from, to, label: '' }] : [])),
    marks: marked(model, shown, (s) => {
      if (!inOctave.has(placeId(s))) return null;
      return s.degree === 0 ? 'root' : 'note';
    }),
  };
}

const climbLayers = (model: Model, params: LadderParams, shown: Shown): Drawn => {
  const now = climbed(model, params);
  return wayLayers(
    model,
    params.step,
    shown,
    now?.played.ok ? now.played.value.fingering.steps : undefined,
    'climb',
  );
};
const planLayers = (model: Model, params: LadderParams, shown: Shown): Drawn =>
  wayLayers(model, params.step, shown, pickedPlan(model, params)?.steps, 'climb');

const LAYERS: Readonly<
  Record<LadderParams['view'], (model: Model, params: LadderParams, shown: Shown) => Drawn>
> = {
  positions: (model, _, shown) => ({ marks: marksOf(model, shown) }),
  seam: seamLayers,
  roots: rootLayers,
  hand: handLayers,
  regions: regionLayers,
  climbs: climbLayers,
  plan: planLayers,
};

/** What the neck shows of the ladder. */
export function scene(model: Model, params: LadderParams, shown: Shown): Drawn {
  const drawn = LAYERS[params.view](model, params, shown);
  if (!shown.rootsOnly) return drawn;
  const isRoot = (m: Mark): boolean => m.kind === 'root' || m.kind === 'outsideRoot' || m.root === true;
  return { ...drawn, marks: (drawn.marks ?? []).filter(isRoot) };
}
