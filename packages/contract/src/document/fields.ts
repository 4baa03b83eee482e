/** A JSON object whose fields are not known yet. */
export type Fields = Readonly<Record<string, unknown>>;

export const isFields = (json: unknown): json is Fields =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

/** The same, for a schema that looks at what it holds by itself. */
export const isFieldsOf = isFields as <T>(json: unknown) => json is T;
