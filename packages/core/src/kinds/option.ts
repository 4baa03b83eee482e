import { LIMITS } from '../instrument.ts';
import { ok, refuse, type Result } from '../result.ts';

/** One degree (by index) moved by a half step. */
export interface Alteration {
  readonly degree: number;
  readonly by: -1 | 1;
  /** The one string on which it is moved; wherever it lies where this is left out. */
  readonly string?: number;
}
/**
 * What an alteration does on a string; of several the one for this string alone.
 *
 * @example alteredOn([{ degree: 4, by: -1, string: 1 }], 4, 1)?.by // -1
 */
export const alteredOn = (
  altered: readonly Alteration[],
  degree: number,
  string: number,
): Alteration | undefined =>
  altered.find((a) => a.degree === degree && a.string === string) ??
  altered.find((a) => a.degree === degree && a.string === undefined);

/** What an option can hold. */
export type OptionValue = number | string | boolean | readonly number[] | readonly Alteration[];

interface Asked {
  /** What the player is asked for. */
  readonly label: string;
  readonly hint?: string;
  /** What a form may offer beside a plain field: half steps as keys, a mode of the key, another string, an instrument. */
  readonly picks?: 'key' | 'capoKey' | 'mode' | 'string' | 'instrument';
}
/** A whole number within bounds; `strings`: at most as many as the instrument has strings. */
export interface WholeOption extends Asked {
  readonly type: 'whole';
  readonly min: number;
  readonly max: number;
  readonly strings?: true;
}
/** Whole numbers, at least one and at most `most` of them. */
export interface WholesOption extends Asked {
  readonly type: 'wholes';
  readonly min: number;
  readonly max: number;
  readonly most: number;
}
export interface ChoiceOption extends Asked {
  readonly type: 'choice';
  /** Whether it may be missing, as in what was kept before there was this option; its first value is meant then. */
  readonly optional?: true;
  readonly values: readonly { readonly id: string | number; readonly name: string }[];
  /** All of them are shown beside each other, as there is none that is usual. */
  readonly apart?: true;
}
/** On or off; `words` are the two in an address, off first. */
export interface SwitchOption extends Asked {
  readonly type: 'switch';
  readonly words: readonly [off: string, on: string];
}
/** A word of letters, digits and a few signs, such as a form's picker gives; empty is none. */
export interface WordOption extends Asked {
  readonly type: 'word';
}
/** Degrees moved by a half step. */
export interface AlteredOption extends Asked {
  readonly type: 'altered';
}

/**
 * An option as data: from it come its schema, its word in an address and its field in the form. A list stands
 * last among the options, as it takes the rest of an address's words.
 */
export type Option = WholeOption | WholesOption | ChoiceOption | SwitchOption | WordOption | AlteredOption;

/**
 * The number of a string of the instrument.
 *
 * @example stringOption('The string').max // 12
 */
export const stringOption = (label: string): WholeOption => ({
  type: 'whole',
  min: 1,
  max: LIMITS.strings[1],
  strings: true,
  label,
});

/** Most degrees that a scale has. */
export const MOST_DEGREES = 12;

const isWhole = (n: unknown, min: number, max: number): boolean =>
  typeof n === 'number' && Number.isInteger(n) && n >= min && n <= max;

/** What a word may be. */
const WORD = /^[\w:♯#.-]{0,200}$/;

/**
 * Why a value is none for an option, in the player's terms; null where it is one.
 *
 * @example optionTrouble({ type: 'whole', min: 1, max: 5, label: 'Notes' }, 9) // "Notes: a whole number from 1 to 5."
 */
export function optionTrouble(option: Option, value: unknown): string | null {
  const { label } = option;
  switch (option.type) {
    case 'whole':
      return isWhole(value, option.min, option.max)
        ? null
        : `${label}: a whole number from ${option.min} to ${option.max}.`;
    case 'wholes': {
      const { min, max, most } = option;
      const fits = Array.isArray(value) && value.length > 0 && value.length <= most;
      return fits && value.every((n) => isWhole(n, min, max))
        ? null
        : `${label}: whole numbers from ${min} to ${max}, at most ${most} of them.`;
    }
    case 'choice':
      return option.values.some((v) => v.id === value) || (option.optional && value === undefined)
        ? null
        : `${label}: pick one from the list.`;
    case 'switch':
      return typeof value === 'boolean' ? null : `${label}: on or off.`;
    case 'word':
      return typeof value === 'string' && WORD.test(value)
        ? null
        : `${label}: letters, digits and . : ♯ # - _ alone.`;
    case 'altered': {
      const one = (a: Partial<Alteration> | null): boolean =>
        isWhole(a?.degree, 0, MOST_DEGREES - 1) &&
        (a!.by === 1 || a!.by === -1) &&
        (a!.string === undefined || isWhole(a!.string, 1, LIMITS.strings[1]));
      const fits = Array.isArray(value) && value.length <= MOST_DEGREES && value.every(one);
      return fits && new Set(value.map((a: Alteration) => `${a.degree} ${a.string}`)).size === value.length
        ? null
        : `${label}: each degree once, or once on a string, lowered or raised by a half step.`;
    }
  }
}

/**
 * Checks the options of a kind of some sort; code `layout.option`, `climb.option` and so on.
 *
 * @example checkOptions('layout', { notes: { type: 'whole', min: 1, max: 5, label: 'Notes' } }, { notes: 9 }).error?.code // "layout.option"
 */
export function checkOptions(
  sort: string,
  options: Readonly<Record<string, Option>>,
  given: Readonly<Record<string, unknown>>,
): Result<true> {
  for (const [name, option] of Object.entries(options)) {
    const trouble = optionTrouble(option, given[name]);
    if (trouble) return refuse(`${sort}.option`, trouble);
  }
  return ok(true);
}
