import { type Option, type OptionValue } from './option.ts';

/** A kind with its options, as a chart, an address or a log keeps it. */
export interface Spec {
  readonly kind: string;
  readonly [option: string]: OptionValue;
}

/** What every layout, climb, drill and move is: a kind that is found by its word, with options as data. */
export interface KindOf<O> {
  readonly kind: string;
  readonly name: string;
  readonly options: { readonly [K in keyof O]: Option };
}
/** One whose options are known by its own file alone. */
export type Kind = KindOf<Spec>;

/**
 * A kind with the options that are usual where it is used.
 *
 * @example usualOf(LAYOUTS.of('count'), { scale: A.scale, string: 6, strings: 6 }) // {"counts":[2],"kind":"count"}
 */
export const usualOf = <Where>(
  it: Kind & { readonly usual: (where: Where) => Spec },
  where: Where,
): Spec => ({
  ...it.usual(where),
  kind: it.kind,
});
