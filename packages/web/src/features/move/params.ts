import { specWords } from '@crow-ladder/contract';
import { type KeyOrder, type MoveSpec, MOVES } from '@crow-ladder/core/moves';
import { type Params } from '../../task/task.ts';
import { type Drilled } from './drilled.ts';

/** What stands beside the moves. */
export const TOOLS = [
  { id: 'fourths', name: 'Fourths pattern', before: 'Lay it out by ', said: 'the fourths pattern' },
  { id: 'keys', name: 'All keys', before: 'Show it in ', said: 'all keys' },
  { id: 'find', name: 'Find a tuning', before: '', said: 'Find a tuning' },
  { id: 'tension', name: 'String tension', before: 'Look at ', said: 'the string tension' },
] as const;
export type Tool = (typeof TOOLS)[number]['id'];
/** A move by its kind, or a tool; and how the sentence begins then. */
export const views = (): readonly {
  readonly id: string;
  readonly name: string;
  readonly before: string;
  readonly said: string;
}[] => [
  ...MOVES.all().map(({ kind, name, to }) => ({ id: kind, name, before: 'Move it to ', said: to })),
  ...TOOLS,
];

export const ORDERS: readonly { readonly id: KeyOrder; readonly name: string }[] = [
  { id: 'halfSteps', name: 'half steps' },
  { id: 'fourths', name: 'fourths' },
  { id: 'fifths', name: 'fifths' },
];

export interface MoveParams {
  readonly view: string;
  /** What is asked of the move that is looked at; null is what it is set to at first. */
  readonly move: MoveSpec | null;
  /** How far the fourths pattern is shown: the anchor, the window, the jogs. */
  readonly step: 1 | 2 | 3;
  /** Frets of the window below the root. */
  readonly before: number;
  /** The drill of the pattern that is under way; not in the address. */
  readonly drill: Drilled | null;
  /** The tuning that strings go to: `t:` and the table's id, `i:` and the player's own, `s:` and strings; null is none. */
  readonly to: string | null;
  readonly order: KeyOrder;
  /** Whether tunings of any number of strings are tried. */
  readonly anyStrings: boolean;
  /** The tuning that the set was made for, as `to`; null is the usual one. */
  readonly madeFor: string | null;
}

export const AT_FIRST: MoveParams = {
  view: 'key',
  move: null,
  step: 1,
  before: 0,
  drill: null,
  to: null,
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

const words = specWords(MOVES);
/** The words of addresses before all moves had one form. */
function wordBefore(query: URLSearchParams): string | null {
  const at = (name: string, otherwise = ''): string => query.get(name) ?? otherwise;
  if (query.has('by')) return `key.${at('by')}.${query.has('octaves') ? 'octaves' : 'whole'}`;
  if (query.has('mode')) return `mode.${at('mode')}`;
  if (query.has('on')) return `strings.${at('on')}.${query.has('keepkey') ? 'keep' : 'move'}`;
  if (query.has('capoto')) return `capo.${at('mostcapo', '7')}.${at('capoto')}`;
  return query.get('look') === 'tuning' && query.has('to')
    ? `tuning.${at('to').replaceAll('.', '~')}.notes`
    : null;
}

export const params: Params<MoveParams> = {
  read: (query) => {
    const word = query.get('move') ?? wordBefore(query);
    const look = MOVES.of(query.get('look') ?? '')?.kind ?? query.get('look');
    const view = views().find((v) => v.id === look)?.id ?? AT_FIRST.view;
    const move = word === null ? null : words.from(word);
    return {
      view,
      move: move?.kind === view ? move : null,
      step: whole(query, 'step', 1, 3, 1) as MoveParams['step'],
      before: whole(query, 'before', 0, 4, 0),
      drill: null,
      to: target(query.get('strung') ?? (look === 'tension' ? query.get('to') : null)),
      order: ORDERS.find((o) => o.id === query.get('order'))?.id ?? AT_FIRST.order,
      anyStrings: query.has('any'),
      madeFor: target(query.get('madefor')),
    };
  },
  write: (p) => ({
    look: p.view === AT_FIRST.view ? null : p.view,
    move: p.move && words.word(p.move),
    step: p.step === 1 ? null : String(p.step),
    before: p.before ? String(p.before) : null,
    strung: p.to,
    order: p.order === AT_FIRST.order ? null : p.order,
    any: p.anyStrings ? '1' : null,
    madefor: p.madeFor,
  }),
};
