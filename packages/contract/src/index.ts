/** What server and interface agree on: the kept things, their schemas, and the form of errors. */
export * from './chart.ts';
export * from './library.ts';
export * from './validate.ts';
