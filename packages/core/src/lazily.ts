/**
 * A value made when it is first asked for, and kept.
 *
 * @example lazily(() => 3)() // 3
 */
export function lazily<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}
