import { holding, list, pitchAt, type Place, spotsOf, unisons } from '@crow-ladder/core';
import { type Model, pitchName } from './model.ts';

/** How many positions that hold a spot are told. */
const TOLD = 4;

/** What a player wants to know about a spot, in one sentence. */
export function describeSpot(model: Model, { string, fret }: Place): string {
  const { neck, key, notes, degrees, front, fingering, names } = model;
  const midi = pitchAt(neck, string, fret);
  const spot = spotsOf({ ...neck, rising: [string] }, key).find((s) => s.fret === fret);
  const parts = [
    `String ${string}, ${fret ? `fret ${fret}` : 'open'}: ${spot ? notes[spot.degree] : pitchName(model, midi)}`,
    spot ? (spot.degree === 0 ? 'the root' : `degree ${degrees[spot.degree]}`) : 'outside the scale',
  ];
  const at = front?.position.spots.findIndex((s) => s.string === string && s.fret === fret) ?? -1;
  const by = at >= 0 ? fingering()?.steps[at]?.finger : undefined;
  if (by !== undefined) parts.push(by ? `finger ${by}` : 'open string');
  const same = unisons(neck, string, fret);
  const also = same.length
    ? ` Same pitch at ${list(same.map((s) => `string ${s.string} fret ${s.fret}`))}.`
    : ' This pitch lies nowhere else.';
  const held = model.positions.ok ? holding(model.positions.value, string, fret) : [];
  const holds = held.length
    ? ` In ${list(held.slice(0, TOLD).map((h) => `${names()[h.position.index]}`))}.`
    : '';
  return `${parts.join(', ')}.${also}${holds}`;
}
