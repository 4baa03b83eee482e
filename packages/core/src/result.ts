/** Why something a person typed or chose could not be used. `code` is stable; `message` is for the player. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
}

/** A value, or a refusal. Core throws only on misuse by code, never on input that a person typed. */
export type Result<T, E = Refusal> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

export const refuse = (code: string, message: string): { readonly ok: false; readonly error: Refusal } => ({
  ok: false,
  error: { code, message },
});
