/** What a neck shows, as a value, and how it is drawn: no DOM here, so that screen, file and paper draw the same. */
export * from './scene.ts';
export * from './geometry.ts';
export * from './marks.ts';
export * from './shapes.ts';
export * from './svgText.ts';
export * from './printed.ts';
export * from './book.ts';
export * from './sheetSvg.ts';
