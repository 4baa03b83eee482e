import { aliasOf } from './alias.ts';
import { makeScale, type Scale } from './scale.ts';
import { SCALE_TABLES } from './scaleTable.ts';

const split = (text = '', by: RegExp | string = /\s+/): string[] =>
  text ? text.split(by).map((t) => t.trim()) : [];

/** Every scale that the application knows, in the order in which they are offered. */
export const CATALOGUE: readonly Scale[] = SCALE_TABLES.flatMap(({ family, modesOf, rows }) =>
  rows.map(([id, name, degrees, characteristic, aliases], i) =>
    makeScale(split(degrees), {
      id,
      name,
      family,
      aliases: split(aliases, ';'),
      characteristic: split(characteristic),
      parent: modesOf ? { id: modesOf, mode: i + 1 } : null,
    }),
  ),
);

const BY_ID = new Map(CATALOGUE.map((s) => [s.id, s]));

/**
 * The catalogue's scale with this id, or undefined.
 *
 * @example scaleById('dorian')?.name // "Dorian"
 */
export const scaleById = (id: string): Scale | undefined => BY_ID.get(aliasOf('scale', id));

const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/♭/g, 'b')
    .replace(/♯/g, '#')
    .replace(/sharp /g, '#')
    .replace(/flat /g, 'b')
    .replace(/[-\s]+/g, ' ')
    .trim();

/**
 * Catalogue scales that match what a player typed: name, alias or family, every word somewhere in it.
 * Exact names come first, then names that begin so, then the rest in catalogue order.
 *
 * @example findScales('fog').length // 0
 */
export function findScales(query: string, among: readonly Scale[] = CATALOGUE): readonly Scale[] {
  const wanted = plain(query);
  if (!wanted) return among;
  const words = wanted.split(' ');
  const rank = (scale: Scale): number => {
    const names = [scale.name, ...scale.aliases].map(plain);
    if (names.some((n) => n === wanted)) return names[0] === wanted ? 0 : 1;
    if (names.some((n) => n.startsWith(wanted))) return 2;
    const all = [...names, scale.family, scale.degrees.length + ' notes'].join(' ');
    return words.every((w) => all.includes(w)) ? 3 : 9;
  };
  return among
    .map((scale, i) => ({ scale, i, r: rank(scale) }))
    .filter((e) => e.r < 9)
    .sort((a, b) => a.r - b.r || a.i - b.i)
    .map((e) => e.scale);
}
