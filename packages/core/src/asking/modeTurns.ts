import { degreeName } from '../degree.ts';
import { pretty } from '../note.ts';
import { resolveScale } from '../ownScale.ts';
import { scaleSaid } from '../said.ts';
import { type Scale } from '../scale.ts';
import { CATALOGUE } from '../scaleCatalogue.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around } from './shared.ts';

/** The one degree that turns a scale into another one, by its place; −1 where it is not one alone. */
function turnedBy(from: Scale, to: Scale): number {
  if (from.degrees.length !== to.degrees.length) return -1;
  const others = from.offsets.flatMap((it, i) => (it === to.offsets[i] ? [] : [i]));
  return others.length === 1 ? others[0]! : -1;
}

/** What turns this scale into another one on the same root. `of` is the other one. */
export const modeTurns: CardKind = {
  kind: 'mode-turns',
  name: 'what makes another mode of it',
  goodFor: 'To go from one mode to another by the one note that matters.',
  asks: ({ key }) => CATALOGUE.filter((it) => turnedBy(key.scale, it) >= 0).map(({ id }) => id),
  ask: (ground) => {
    const { key, position } = ground;
    const other = resolveScale(ground.of);
    const at = other.ok ? turnedBy(key.scale, other.value) : -1;
    if (!other.ok || at < 0) return null;
    const name = (scale: Scale, i: number): string => pretty(degreeName(scale.degrees[i]!));
    const right = name(other.value, at);
    const each = [key.scale, other.value].flatMap((scale) => scale.degrees.map((_, i) => name(scale, i)));
    return {
      says: `${scaleSaid(key.scale)} becomes ${scaleSaid(other.value)} by one degree of the new scale: which one?`,
      given: [],
      frets: around(ground, position),
      right: { by: 'choice', id: right, choices: [...new Set(each)].map((id) => ({ id, name: id })) },
      look: position.held.filter((it) => it.degree === at),
      told: `By ${right} in place of ${name(key.scale, at)}.`,
    };
  },
  judge: judgeChoice,
};
