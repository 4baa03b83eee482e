import { type Degree, degreeName } from './degree.ts';
import { alterationsOf, offsetsAltered } from './alter.ts';
import { type LayoutSpec } from './layouts/layout.ts';
import { LAYOUTS } from './layouts/registry.ts';
import { type Neck } from './neck.ts';
import { scaleFromToggles } from './ownScale.ts';
import { type Position } from './position.ts';
import { list, plural } from './words.ts';
import { type Scale } from './scale.ts';
import { crossings, intervalName } from './tuning.ts';

const said = (d: Degree): string =>
  d.number === 1 && d.alteration === 0 ? 'the root' : `the ${degreeName(d)}`;

/**
 * Where the widest steps of a scale lie: "The wide step (3 frets) follows the root and the 5; …". Null for even scales.
 *
 * @example wideStepLaw(A.scale) // "The wide steps (3 frets) follow the root and the 5; all other steps are 2 frets."
 */
export function wideStepLaw(scale: Scale): string | null {
  const widest = Math.max(...scale.steps);
  const after = scale.degrees.filter((_, i) => scale.steps[i] === widest);
  if (after.length === scale.degrees.length || after.length * 2 > scale.degrees.length) return null;
  const rest = [...new Set(scale.steps.filter((s) => s !== widest))].sort();
  const only = after.length === 1 ? 'step' : 'steps';
  const others = rest.length === 1 ? `; all other steps are ${plural(rest[0]!, 'fret')}` : '';
  return `The wide ${only} (${plural(widest, 'fret')}) ${after.length === 1 ? 'follows' : 'follow'} ${list(after.map(said))}${others}.`;
}

/**
 * Where the half steps lie, for scales that have a few.
 *
 * @example halfStepLaw(scaleById('major')) // "Half steps lie from 3 to 4 and 7 to 1."
 */
export function halfStepLaw(scale: Scale): string | null {
  const after = scale.degrees.flatMap((d, i) =>
    scale.steps[i] === 1
      ? [`${degreeName(d)} to ${degreeName(scale.degrees[(i + 1) % scale.degrees.length]!)}`]
      : [],
  );
  return after.length && after.length <= 4 ? `Half steps lie from ${list(after)}.` : null;
}

/**
 * After how many strings the groups of a layout repeat, where all strings are a fourth apart; null where it has no such rule.
 *
 * @example repeatStrings(scaleById('major'), { kind: 'count', counts: [3] }) // 7
 */
export const repeatStrings = (scale: Scale, spec: LayoutSpec): number | null =>
  LAYOUTS.for(spec).repeats?.(scale, spec)?.starts.length ?? null;

/**
 * The law of repetition of a layout in words, with the frets that a repeat moves by in fourths; null where it has none.
 *
 * @example repeatLaw(scaleById('major'), { kind: 'count', counts: [3] }) // "In fourths the groups repeat after 7 strings (21 notes), 1 fret up."
 */
export function repeatLaw(scale: Scale, spec: LayoutSpec): string | null {
  const groups = LAYOUTS.for(spec).repeats?.(scale, spec);
  if (!groups) return null;
  const strings = groups.starts.length;
  const notes = groups.starts.reduce((sum, start) => sum + groups.takes[start]!, 0);
  const shift = (notes / scale.degrees.length) * 12 - 5 * strings;
  const moves =
    shift === 0 ? 'at the same fret' : `${plural(Math.abs(shift), 'fret')} ${shift > 0 ? 'up' : 'down'}`;
  return `In fourths the groups repeat after ${plural(strings, 'string')} (${plural(notes, 'note')}), ${moves}.`;
}

/** The scale whose steps a layout takes: with degrees altered wherever they lie another one; null where no one scale is taken throughout. */
function scaleTaken(scale: Scale, spec: LayoutSpec): Scale | null {
  const altered = alterationsOf(spec);
  if (!altered.length) return scale;
  if (altered.some((a) => a.string !== undefined)) return null;
  const made = scaleFromToggles(offsetsAltered(scale, altered).flat());
  return made.ok && made.value.offsets.length === scale.offsets.length ? made.value : null;
}

/**
 * What holds for every position of a layout in every key, a sentence each.
 *
 * @example lawsOf(A.scale, { kind: 'count', counts: [2] })[0] // "The wide steps (3 frets) follow the root and the 5; all other steps are 2 frets."
 */
export function lawsOf(scale: Scale, spec: LayoutSpec): readonly string[] {
  const taken = scaleTaken(scale, spec);
  const laws = taken ? [wideStepLaw(taken), halfStepLaw(taken), repeatLaw(scale, spec)] : [];
  return laws.filter((law) => law !== null);
}

export interface Jog {
  readonly from: number;
  readonly to: number;
  readonly by: number;
  readonly why: string;
}

/**
 * The jogs that a position crosses, and why each falls there.
 *
 * @example jogsIn(neck, box).map((j) => [j.from, j.to, j.by]) // [[3,2,1]]
 */
export function jogsIn(neck: Neck, position: Position): readonly Jog[] {
  const played = new Set(position.groups.map((g) => g.string));
  const rising = neck.rising;
  return crossings(rising.map((s) => neck.open[s - 1]!)).flatMap(({ interval, jog }, i) => {
    const [from, to] = [rising[i]!, rising[i + 1]!];
    if (jog === 0 || !played.has(from) || !played.has(to)) return [];
    const way = jog > 0 ? 'up' : 'down';
    const why = `From string ${from} to string ${to} the shape moves ${plural(Math.abs(jog), 'fret')} ${way}: these strings are a ${intervalName(interval)} (${plural(interval, 'half step')}) apart, not a fourth (5).`;
    return [{ from, to, by: jog, why }];
  });
}
