import { addedKind, type AddedNote } from '@crow-ladder/core/overlays';
import { type Part } from './run.ts';

/** A second scale laid over the chart's. */
export interface ScaleLaid {
  readonly type: 'scale';
  /** Id of a catalogue scale, or `own:` and degrees. */
  readonly scale: string;
  /** How far its root lies above the chart's, in half steps, 0 to 11: it goes with the key. */
  readonly above: number;
}
/** A note that is played beside the chart's scale. */
export interface NoteAdded extends AddedNote {
  readonly type: 'added';
}
export type Overlay = ScaleLaid | NoteAdded | Part;

export const isScaleLaid = (overlay: Overlay): overlay is ScaleLaid => overlay.type === 'scale';

export const isNoteAdded = (overlay: Overlay): overlay is NoteAdded => overlay.type === 'added';

/** What is laid over a chart in one word of an address. */
export function overlayWord(overlay: Overlay): string {
  if (isScaleLaid(overlay)) return ['scale', overlay.above, overlay.scale].join(';');
  if (isNoteAdded(overlay)) {
    const { above, moved = [] } = overlay;
    const places = moved.map((pair) => pair.join('.')).join('-');
    return ['added', above, addedKind(overlay), ...(places ? [places] : [])].join(';');
  }
  return `part;${JSON.stringify(overlay)}`;
}
/** What such a word says. */
export function overlayFrom(word: string): unknown {
  const [type, above, scale, places] = word.split(';');
  if (type === 'scale') return { type, scale, above: Number(above) };
  if (type === 'added')
    return {
      type,
      above: Number(above),
      passing: scale === 'passing',
      ...(scale === 'slid' && { slid: true }),
      ...(places && { moved: places.split('-').map((pair) => pair.split('.').map(Number)) }),
    };
  try {
    return JSON.parse(word.slice('part;'.length)) as unknown;
  } catch {
    return null;
  }
}
