/** Staff notation: signatures, and runs as notes and rests. */
export * from './keySignature.ts';
export * from './score.ts';
