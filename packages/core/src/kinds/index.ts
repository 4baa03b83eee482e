/** What layouts, climbs, drills and moves have in common: options as data, and registries with aliases. */
export * from './option.ts';
export * from './spec.ts';
export * from './registry.ts';
