import { type Aliased, aliasOf } from '../alias.ts';
import { refuse, type Result } from '../result.ts';
import { checkOptions } from './option.ts';
import { type Kind, type Spec } from './spec.ts';

/** All kinds of one sort, in the order in which they are offered. */
export interface Registry<K extends Kind> {
  readonly all: () => readonly K[];
  /** The one of a kind, also of one that was renamed; undefined where there is none. */
  readonly of: (kind: string) => K | undefined;
  /** The one of a spec that was checked; throws on another. */
  readonly for: (spec: Pick<Spec, 'kind'>) => K;
  /** Adds one after the others; throws where its kind is taken. */
  readonly register: (it: K) => void;
  /** The one of a spec whose options are within their bounds; code of the sort, such as `layout.option`. */
  readonly checked: (spec: Spec) => Result<K>;
}

/**
 * A registry of kinds; `sort` is what they are called where one is missing, and what their aliases are found by.
 *
 * @example registryOf('climb', CLIMBS.all()).of('slide')?.name // "slide along a string"
 */
export function registryOf<K extends Kind>(sort: Aliased, kinds: readonly K[]): Registry<K> {
  const all = [...kinds];
  const of = (kind: string): K | undefined => {
    const now = aliasOf(sort, kind);
    return all.find((it) => it.kind === now);
  };
  return {
    all: () => all,
    of,
    for: ({ kind }) => {
      const found = of(kind);
      if (!found) throw new Error(`There is no ${sort} “${kind}”.`);
      return found;
    },
    register: (it) => {
      if (of(it.kind)) throw new Error(`There is a ${sort} “${it.kind}” already.`);
      all.push(it);
    },
    checked: (spec) => {
      const found = of(spec.kind);
      if (!found)
        return refuse(`${sort}.option`, `There is no ${sort} “${spec.kind}”: pick one from the list.`);
      const checked = checkOptions(sort, found.options, spec);
      return checked.ok ? { ok: true, value: found } : checked;
    },
  };
}
