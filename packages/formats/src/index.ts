/** Open formats for music: what is written for other programs, and what is read of theirs. */
export * from './format.ts';
export * from './found.ts';
export * from './formats.ts';
export * from './named.ts';
export * from './take.ts';
export { tooBig } from './bytes.ts';
