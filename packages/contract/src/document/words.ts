import { type Instrument, parseTuning, tuningText } from '@crow-ladder/core';
import {
  type Kind,
  type Registry,
  type Spec,
  type Alteration,
  type Option,
  type OptionValue,
} from '@crow-ladder/core/kinds';
import { type LayoutSpec, LAYOUTS } from '@crow-ladder/core/layouts';

/** A point within a word, as points stand between words. */
const POINT = '~';

/** An option's value in the words of an address. */
function wordsOf(option: Option, value: OptionValue): readonly string[] {
  switch (option.type) {
    case 'wholes':
      return (value as readonly number[]).map(String);
    case 'switch':
      return [option.words[value ? 1 : 0]];
    case 'word':
      return [(value as string).replaceAll('.', POINT)];
    case 'altered':
      return (value as readonly Alteration[]).map(
        (a) => `${a.degree}${a.by > 0 ? 'u' : 'd'}${a.string ?? ''}`,
      );
    default:
      return [String(value as string | number)];
  }
}

/** What words of an address say for an option; lists take all that are left. What cannot be read is left to the schema. */
function valueFrom(option: Option, words: string[]): unknown {
  switch (option.type) {
    case 'wholes':
      return words.splice(0).map(Number);
    case 'altered':
      return words.splice(0).map((w) => {
        const [, degree, way, string] = /^(\d+)([ud])(\d*)$/.exec(w) ?? [];
        return {
          degree: Number(degree),
          by: way === 'u' ? 1 : -1,
          ...(string && { string: Number(string) }),
        };
      });
    case 'whole':
      return Number(words.shift());
    case 'word':
      return words.shift()?.replaceAll(POINT, '.');
    case 'switch':
      return words.shift() === option.words[1];
    case 'choice': {
      const word = words.shift();
      return option.values.find((v) => String(v.id) === word)?.id;
    }
  }
}

/** A kind with its options in one word of the address: "count.3", "skip.3.1.2d". */
export function specWord(options: Readonly<Record<string, Option>>, spec: LayoutSpec): string {
  const words = Object.entries(options).flatMap(([name, option]) => wordsOf(option, spec[name]!));
  return [spec.kind, ...words].join('.');
}
/** What such a word says; with the kind alone where there is none of it. */
export function specFrom(
  word: string,
  optionsOf: (kind: string) => Readonly<Record<string, Option>> | undefined,
): unknown {
  const [kind = '', ...words] = word.split('.');
  const options = Object.entries(optionsOf(kind) ?? {});
  return { kind, ...Object.fromEntries(options.map(([name, option]) => [name, valueFrom(option, words)])) };
}

/** The words of one sort of kinds, and what is read from them. */
export const specWords = ({ of, checked }: Pick<Registry<Kind>, 'of' | 'checked'>) => {
  /** Whether a value from outside is one of them with options within their bounds. */
  const is = (value: unknown): value is Spec => {
    const spec = value as Spec | null | undefined;
    return typeof spec?.kind === 'string' && checked(spec).ok;
  };
  return {
    is,
    word: (spec: Spec): string => specWord(of(spec.kind)!.options, spec),
    /** What a word names, or null where there is none of that kind or its options are out of bounds. */
    from: (word: string): Spec | null => {
      const spec = specFrom(word, (kind) => of(kind)?.options);
      return is(spec) ? { ...spec, kind: of(spec.kind)!.kind } : null;
    },
  };
};

export const layoutWord = (spec: LayoutSpec): string => specWord(LAYOUTS.for(spec).options, spec);
export const layoutFrom = (word: string): unknown => specFrom(word, (kind) => LAYOUTS.of(kind)?.options);

/** The strings of an instrument, the lowest first: "E2.A2.D3.G3.B3.E4". */
export const stringsWord = ({ tuning }: Pick<Instrument, 'tuning'>): string =>
  tuningText(tuning).replace(/ /g, '.');
/** What such a word says; why not where it cannot be read. */
export const stringsFrom = (word: string) => parseTuning(word.replace(/\./g, ' '));
/** The neck of an instrument: frets, scale length in mm, capo, wound strings, hand. */
export const neckWord = (it: Instrument): string =>
  [it.frets, it.scaleLength, it.capo, it.wound, it.handed].join('.');
/** What such a word says; nothing where it is cut short. */
export function neckFrom(word: string): Partial<Instrument> {
  const parts = word.split('.');
  if (parts.length < 5) return {};
  // A scale length may itself hold a point, so the last three parts are read from the end.
  const [capo, wound, handed] = parts.slice(-3);
  return {
    frets: Number(parts[0]),
    scaleLength: Number(parts.slice(1, -3).join('.')),
    capo: Number(capo),
    wound: Number(wound),
    handed: handed as Instrument['handed'],
  };
}
/** A whole instrument in one word, its name last. */
export const instrumentWord = (it: Instrument): string => [stringsWord(it), neckWord(it), it.name].join(';');
export function instrumentFrom(word: string): unknown {
  const [strings = '', neck = '', ...name] = word.split(';');
  const read = stringsFrom(strings);
  return { name: name.join(';'), tuning: read.ok ? read.value.tuning : [], ...neckFrom(neck) };
}

/** A place: "6.5". */
export const placeWord = ({ string, fret }: { readonly string: number; readonly fret: number }): string =>
  `${string}.${fret}`;
export function placeFrom(word: string): unknown {
  const [string, fret] = word.split('.').map(Number);
  return { string, fret };
}
