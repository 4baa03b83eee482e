/** Ways along the neck. */
export * from './climb.ts';
export * from './registry.ts';
