/** Every error of the API has this form. `code` is stable; `message` is for the player; `field` names what to change. */
export interface ApiError {
  readonly code: string;
  readonly message: string;
  readonly field?: string;
}

export type Checked<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: ApiError };
