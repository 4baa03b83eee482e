/** What hangs together along the neck: seams, roots, the positions at hand. */
export * from './seam.ts';
export * from './anchors.ts';
export * from './atHand.ts';
export * from './places.ts';
