/** Why something a person typed or chose could not be used. `code` is stable; `message` is for the player. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
}

/** A value, or a refusal. Core throws only on misuse by code, never on input that a person typed. */
export type Result<T, E = Refusal> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

/**
 * A value as a result.
 *
 * @example ok(1) // {"ok":true,"value":1}
 */
export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

/**
 * A refusal as a result: a stable code, and a sentence for the player.
 *
 * @example refuse('plan.end', 'Choose another end.').error.code // "plan.end"
 */
export const refuse = (code: string, message: string): { readonly ok: false; readonly error: Refusal } => ({
  ok: false,
  error: { code, message },
});
