import { mod } from '../arithmetic.ts';
import { type PitchClass } from '../note.ts';
import { intervalVector } from '../scale.ts';

/** What a set of notes is without a key. */
export interface SetFacts {
  /** How often it has each interval of 1 to 6 half steps. */
  readonly vector: readonly number[];
  /** How many transpositions of it differ, 1 to 12. */
  readonly transpositions: number;
  /** Its prime form by Forte's rule: half steps from 0. */
  readonly prime: readonly number[];
  /** Its number in Forte's table of set classes ("7-35"); null for fewer than three notes and more than nine. */
  readonly forte: string | null;
}

const sorted = (of: Iterable<number>): readonly number[] => [...new Set(of)].sort((a, b) => a - b);
const earlier = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((x, i) => x !== b[i]);
  return at >= 0 && a[at]! < b[at]!;
};
const least = (forms: readonly (readonly number[])[]): readonly number[] =>
  forms.reduce((best, form) => (earlier(form, best) ? form : best));

/** A set from each of its notes, counted from it. */
const rotations = (set: readonly number[]): readonly (readonly number[])[] =>
  set.map((from) => sorted(set.map((pc) => mod(pc - from, 12))));

/**
 * The prime form of a set by Forte's rule: of all orders, turned round as well, the one that spans least, then the one that is packed most
 * closely from its beginning on (Forte, *The Structure of Atonal Music*, 1973; a later rule, which looks from the end, differs for 5-20, 6-Z29,
 * 6-31, 7-Z18, 7-20 and 8-26).
 *
 * @example primeForm([0, 4, 7]) // [0,3,7]
 */
export function primeForm(notes: Iterable<PitchClass>): readonly number[] {
  const set = sorted([...notes].map((n) => mod(n, 12)));
  if (!set.length) return [];
  const all = [...rotations(set), ...rotations(sorted(set.map((pc) => mod(-pc, 12))))];
  const narrow = Math.min(...all.map((form) => form.at(-1)!));
  return least(all.filter((form) => form.at(-1) === narrow));
}

/** Of two set classes with one interval vector, those that come at their vector's place in Forte's table; the others stand at its end. */
const FIRST_OF_PAIR = [
  ...['0146', '01356', '01348', '01457'],
  ...['012356', '012456', '012567', '013457', '012457', '012467', '013467', '012478', '013478', '023568'],
  ...['013468', '013568', '013578', '013569', '013689'],
];
const MOST = 6;
const formName = (prime: readonly number[]): string => prime.map((n) => n.toString(16)).join('');

/** Forte's table for so many notes: set classes by falling interval vector, second ones of a pair at the end. */
function tableOf(many: number): readonly { readonly form: string; readonly z: boolean }[] {
  const vectors = new Map<string, string>();
  for (let bits = 1; bits < 2048; bits++) {
    const set = [0, ...Array.from({ length: 11 }, (_, i) => i + 1).filter((n) => bits & (1 << (n - 1)))];
    if (set.length !== many) continue;
    const prime = primeForm(set);
    vectors.set(
      formName(prime),
      intervalVector(prime)
        .map((n) => n.toString(16))
        .join(''),
    );
  }
  const count = (vector: string): number => [...vectors.values()].filter((v) => v === vector).length;
  return [...vectors]
    .map(([form, vector]) => ({ form, vector, z: count(vector) > 1 }))
    .sort(
      (a, b) =>
        Number(a.z && !FIRST_OF_PAIR.includes(a.form)) - Number(b.z && !FIRST_OF_PAIR.includes(b.form)) ||
        (a.vector < b.vector ? 1 : -1),
    );
}
const TABLES = new Map<number, ReturnType<typeof tableOf>>();

/** A set's number in Forte's table; a set of more than six notes has that of the notes which it has not. */
function forteOf(set: readonly number[]): string | null {
  if (set.length < 3 || set.length > 9) return null;
  const others = Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !set.includes(pc));
  const small = set.length > MOST ? others : set;
  const table = TABLES.get(small.length) ?? tableOf(small.length);
  TABLES.set(small.length, table);
  const form = formName(primeForm(small));
  const at = table.findIndex((it) => it.form === form);
  return `${set.length}-${table[at]!.z ? 'Z' : ''}${at + 1}`;
}

/**
 * What notes are as a set, whatever their key.
 *
 * @example setFacts([0, 2, 4, 5, 7, 9, 11]).forte // "7-35"
 */
export function setFacts(notes: Iterable<PitchClass>): SetFacts {
  const set = sorted([...notes].map((n) => mod(n, 12)));
  const name = String(set);
  const same = Array.from({ length: 12 }, (_, by) =>
    String(sorted(set.map((pc) => mod(pc + by, 12)))),
  ).filter((it) => it === name).length;
  return {
    vector: intervalVector(set),
    transpositions: 12 / same,
    prime: primeForm(set),
    forte: forteOf(set),
  };
}
