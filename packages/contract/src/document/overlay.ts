import { type Part } from './run.ts';

/** A second scale laid over the chart's. */
export interface ScaleLaid {
  readonly type: 'scale';
  /** Id of a catalogue scale, or `own:` and degrees. */
  readonly scale: string;
  /** How far its root lies above the chart's, in half steps, 0 to 11: it goes with the key. */
  readonly above: number;
}
export type Overlay = ScaleLaid | Part;

export const isScaleLaid = (overlay: Overlay): overlay is ScaleLaid => overlay.type === 'scale';

/** What is laid over a chart in one word of an address. */
export const overlayWord = (overlay: Overlay): string =>
  isScaleLaid(overlay)
    ? ['scale', overlay.above, overlay.scale].join(';')
    : `part;${JSON.stringify(overlay)}`;
/** What such a word says. */
export function overlayFrom(word: string): unknown {
  const [type, above, scale] = word.split(';');
  if (type === 'scale') return { type, scale, above: Number(above) };
  try {
    return JSON.parse(word.slice('part;'.length)) as unknown;
  } catch {
    return null;
  }
}
