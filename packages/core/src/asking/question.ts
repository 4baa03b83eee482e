import { type Place, placeId } from '../place.ts';
import { list, plural } from '../words.ts';
import { type Ground } from './card.ts';

/** Something that can be chosen. */
export interface Offered {
  readonly id: string;
  readonly name: string;
}
/** What is right: spots that are ticked, `one` of them alone where it stands there; or one of several choices. */
export type Right =
  | { readonly by: 'ticks'; readonly places: readonly Place[]; readonly one?: true }
  | { readonly by: 'choice'; readonly id: string; readonly choices: readonly Offered[] };
export type Answer =
  | { readonly by: 'ticks'; readonly places: readonly Place[] }
  | { readonly by: 'choice'; readonly id: string };

/** What is asked. */
export interface Question {
  /** "Place the Dorian position: its lowest root is on string 6 fret 2." */
  readonly says: string;
  /** Spots that are shown from the beginning. */
  readonly given: readonly Place[];
  /** The lowest and highest fret that it is about. */
  readonly frets: readonly [number, number];
  readonly right: Right;
  /** What is to be looked at and heard once it was answered, in order. */
  readonly look: readonly Place[];
  /** What is right in words. */
  readonly told: string;
}

/** What an answer is worth. */
export interface Verdict {
  readonly right: boolean;
  /** What was missing, and what was too much. */
  readonly missing: readonly Place[];
  readonly extra: readonly Place[];
  /** "2 are missing, 1 is too much." */
  readonly said: string;
}

/** A kind of card. */
export interface CardKind {
  readonly kind: string;
  readonly name: string;
  /** What it is good for, in a sentence. */
  readonly goodFor: string;
  /** What it can ask of a position, by what `of` says. */
  readonly asks: (ground: Omit<Ground, 'of'>) => readonly string[];
  /** Null where there is nothing to ask. */
  readonly ask: (ground: Ground) => Question | null;
  readonly judge: (question: Question, answer: Answer) => Verdict;
}

/** The strings that a question is about, by number; none where it is about no string of its own. */
export function stringsAsked({ right, look }: Pick<Question, 'right' | 'look'>): readonly number[] {
  const places = right.by === 'ticks' ? right.places : look.length === 1 ? look : [];
  return [...new Set(places.map(({ string }) => string))].sort((a, b) => a - b);
}
/**
 * The strings on which an answer was not right, by number.
 */
export function stringsMissed(question: Question, { right, missing, extra }: Verdict): readonly number[] {
  if (right) return [];
  if (question.right.by === 'choice') return stringsAsked(question);
  return [...new Set([...missing, ...extra].map(({ string }) => string))].sort((a, b) => a - b);
}

const isOrAre = (n: number): string => `${n} ${n === 1 ? 'is' : 'are'}`;

/**
 * Judges spots that were ticked, in any order.
 *
 * @example judgeTicks(question, { by: 'ticks', places: [] }).right // false
 */
export function judgeTicks({ right }: Question, answer: Answer): Verdict {
  const asked = right.by === 'ticks' ? right.places : [];
  const given = answer.by === 'ticks' ? answer.places : [];
  const [wanted, ticked] = [new Set(asked.map(placeId)), new Set(given.map(placeId))];
  const extra = [...new Map(given.map((it) => [placeId(it), it])).values()].filter(
    (it) => !wanted.has(placeId(it)),
  );
  const one = right.by === 'ticks' && right.one === true;
  const found = asked.some((it) => ticked.has(placeId(it)));
  const missing = one && found ? [] : asked.filter((it) => !ticked.has(placeId(it)));
  const wrong = missing.length + extra.length;
  const said = [
    ...(missing.length ? [one ? 'it is missing' : `${isOrAre(missing.length)} missing`] : []),
    ...(extra.length ? [`${isOrAre(extra.length)} too much`] : []),
  ];
  return {
    right: wrong === 0,
    missing,
    extra,
    said: wrong ? `Not yet: ${list(said)}.` : `Right, ${one ? 'that is it' : plural(asked.length, 'spot')}.`,
  };
}

/**
 * Judges what was chosen.
 *
 * @example judgeChoice(question, { by: 'choice', id: 'x' }).right // false
 */
export function judgeChoice({ right }: Pick<Question, 'right'>, answer: Answer): Verdict {
  const chosen = answer.by === 'choice' ? answer.id : null;
  const isRight = right.by === 'choice' && right.id === chosen;
  const name = right.by === 'choice' && right.choices.find(({ id }) => id === chosen)?.name;
  return {
    right: isRight,
    missing: [],
    extra: [],
    said: isRight ? `Right, ${name}.` : `It is not ${name || 'that'}.`,
  };
}
