/** A JSON object whose fields are not known yet. */
export type Fields = Readonly<Record<string, unknown>>;

export const isFields = (json: unknown): json is Fields =>
  typeof json === 'object' && json !== null && !Array.isArray(json);
