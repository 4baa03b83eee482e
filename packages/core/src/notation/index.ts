/** Staff notation: signatures, and runs as notes and rests. */
export * from './keySignature.ts';
export * from './clef.ts';
export * from './score.ts';
