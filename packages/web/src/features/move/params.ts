import { type KeyOrder, LIMITS } from '@crow-ladder/core';
import { type Params } from '../../task/task.ts';
import { type Drilled } from './drilled.ts';

/** What is moved. */
export const VIEWS = [
  { id: 'key', name: 'Key' },
  { id: 'mode', name: 'Mode' },
  { id: 'strings', name: 'Other strings' },
  { id: 'fourths', name: 'Fourths pattern' },
  { id: 'tuning', name: 'Tuning or instrument' },
  { id: 'capo', name: 'Capo' },
  { id: 'keys', name: 'All keys' },
  { id: 'find', name: 'Find a tuning' },
  { id: 'tension', name: 'String tension' },
] as const;
export type View = (typeof VIEWS)[number]['id'];

export const ORDERS: readonly { readonly id: KeyOrder; readonly name: string }[] = [
  { id: 'halfSteps', name: 'half steps' },
  { id: 'fourths', name: 'fourths' },
  { id: 'fifths', name: 'fifths' },
];

export interface MoveParams {
  readonly view: View;
  /** Half steps that the key moves, −12 to 12; 0 is no move. */
  readonly by: number;
  /** Single notes that fall off are taken an octave away. */
  readonly octaves: boolean;
  /** Another mode: over the same notes or on the same root, and which in that list; null is none. */
  readonly mode: { readonly same: 'notes' | 'root'; readonly to: number } | null;
  /** The root's string afterwards; null is none. */
  readonly string: number | null;
  readonly keepKey: boolean;
  /** How far the fourths pattern is shown: the anchor, the window, the jogs. */
  readonly step: 1 | 2 | 3;
  /** Frets of the window below the root. */
  readonly before: number;
  /** The drill of the pattern that is under way; not in the address. */
  readonly drill: Drilled | null;
  /** Another tuning or instrument: `t:` and the table's id, `i:` and the player's own, `s:` and strings; null is none. */
  readonly to: string | null;
  /** Half steps up to the key that a capo is sought for. */
  readonly capoTo: number;
  readonly mostCapo: number;
  readonly order: KeyOrder;
  /** Whether tunings of any number of strings are tried. */
  readonly anyStrings: boolean;
  /** The tuning that the set was made for, as `to`; null is the usual one. */
  readonly madeFor: string | null;
}

export const AT_FIRST: MoveParams = {
  view: 'key',
  by: 0,
  octaves: false,
  mode: null,
  string: null,
  keepKey: false,
  step: 1,
  before: 0,
  drill: null,
  to: null,
  capoTo: 3,
  mostCapo: 7,
  order: 'halfSteps',
  anyStrings: false,
  madeFor: null,
};

/** A whole number of the address within bounds, else what is meant without it. */
function whole(query: URLSearchParams, name: string, low: number, high: number, otherwise: number): number {
  const text = query.get(name);
  const n = Number(text);
  return text !== null && Number.isInteger(n) && n >= low && n <= high ? n : otherwise;
}
const target = (text: string | null): string | null => (text && /^[tis]:[\w♯#.-]+$/.test(text) ? text : null);

export const params: Params<MoveParams> = {
  read: (query) => {
    const mode = /^([nr])(\d{1,2})$/.exec(query.get('mode') ?? '');
    const string = whole(query, 'on', 1, LIMITS.strings[1], 0);
    return {
      view: VIEWS.find((v) => v.id === query.get('look'))?.id ?? AT_FIRST.view,
      by: whole(query, 'by', -12, 12, 0),
      octaves: query.has('octaves'),
      mode: mode && { same: mode[1] === 'n' ? 'notes' : 'root', to: Number(mode[2]) },
      string: string || null,
      keepKey: query.has('keepkey'),
      step: whole(query, 'step', 1, 3, 1) as MoveParams['step'],
      before: whole(query, 'before', 0, 4, 0),
      drill: null,
      to: target(query.get('to')),
      capoTo: whole(query, 'capoto', 0, 11, AT_FIRST.capoTo),
      mostCapo: whole(query, 'mostcapo', 0, LIMITS.frets[1], AT_FIRST.mostCapo),
      order: ORDERS.find((o) => o.id === query.get('order'))?.id ?? AT_FIRST.order,
      anyStrings: query.has('any'),
      madeFor: target(query.get('madefor')),
    };
  },
  write: (p) => ({
    look: p.view === AT_FIRST.view ? null : p.view,
    by: p.by ? String(p.by) : null,
    octaves: p.octaves ? '1' : null,
    mode: p.mode && `${p.mode.same === 'notes' ? 'n' : 'r'}${p.mode.to}`,
    on: p.string === null ? null : String(p.string),
    keepkey: p.keepKey ? '1' : null,
    step: p.step === 1 ? null : String(p.step),
    before: p.before ? String(p.before) : null,
    to: p.to,
    capoto: p.capoTo === AT_FIRST.capoTo ? null : String(p.capoTo),
    mostcapo: p.mostCapo === AT_FIRST.mostCapo ? null : String(p.mostCapo),
    order: p.order === AT_FIRST.order ? null : p.order,
    any: p.anyStrings ? '1' : null,
    madefor: p.madeFor,
  }),
};
