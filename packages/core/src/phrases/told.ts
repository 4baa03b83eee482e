import { list, plural } from '../words.ts';
import { pretty } from '../note.ts';

/** What a move could not keep of a phrase, by the places of its notes from 0: nothing is cut without a word. */
export type Told =
  /** A slur, a slide that becomes picked. */
  | { readonly kind: 'picked'; readonly note: number }
  /** A note that lies nowhere on the neck: `low` below it, else above. */
  | { readonly kind: 'off'; readonly note: number; readonly low: boolean }
  /** A note outside the frets that were asked for. */
  | { readonly kind: 'beyond'; readonly note: number }
  /** All of it an octave up or down. */
  | { readonly kind: 'octave'; readonly note: number; readonly up: boolean }
  /** A bend or a vibrato that its place does not allow. */
  | { readonly kind: 'straight'; readonly note: number }
  /** A finger of the player's own that cannot be used there. */
  | { readonly kind: 'finger'; readonly note: number }
  /** A degree whose number the new mode lacks. */
  | { readonly kind: 'lacks'; readonly note: number; readonly degree: string }
  /** A note outside the scale that stayed as it was. */
  | { readonly kind: 'outside'; readonly note: number };
export type ToldKind = Told['kind'];

const numbers = (notes: readonly Told[]): string =>
  `${notes.length > 1 ? 'Notes' : 'Note'} ${list(notes.map(({ note }) => String(note + 1)))}`;
const are = (notes: readonly Told[], one: string, many: string): string => (notes.length > 1 ? many : one);

/** In the order in which they are said. */
const SAID: { readonly [K in ToldKind]: (told: readonly Extract<Told, { kind: K }>[]) => string } = {
  octave: ([first]) => `An octave ${first!.up ? 'up' : 'down'}.`,
  picked: (t) =>
    `${numbers(t)} ${are(t, 'was', 'were')} slurred or slid to and ${are(t, 'is', 'are')} picked here.`,
  off: (t) => {
    const ways = [
      ...(t.some(({ low }) => low) ? ['below the lowest string'] : []),
      ...(t.some(({ low }) => !low) ? ['above the last fret'] : []),
    ];
    return `${numbers(t)} ${are(t, 'lies', 'lie')} ${list(ways)}: ${are(t, 'a rest stands for it', 'rests stand for them')}.`;
  },
  beyond: (t) => `${numbers(t)} ${are(t, 'lies', 'lie')} outside this position.`,
  straight: (t) =>
    `${numbers(t)} ${are(t, 'lies', 'lie')} on an open string or ${are(t, 'is', 'are')} tapped here, and cannot be bent or held with vibrato.`,
  finger: (t) => `${numbers(t)} cannot be taken with the finger that you chose here: ours is shown.`,
  lacks: (t) =>
    `The new scale has no ${list([...new Set(t.map(({ degree }) => pretty(degree)))])}: ${plural(t.length, 'note')} of ${are(t, 'it stays', 'them stay')} as ${are(t, 'it was', 'they were')}.`,
  outside: (t) =>
    `${numbers(t)} ${are(t, 'lies', 'lie')} outside the scale and ${are(t, 'stays', 'stay')} as ${are(t, 'it was', 'they were')}.`,
};

/**
 * What could not be kept, in sentences, one for each kind.
 *
 * @example toldSaid([{ kind: 'picked', note: 2 }]) // ["Note 3 was slurred or slid to and is picked here."]
 */
export function toldSaid(told: readonly Told[]): readonly string[] {
  const kinds = Object.keys(SAID) as ToldKind[];
  return kinds.flatMap((kind) => {
    const some = told.filter((it) => it.kind === kind);
    return some.length ? [(SAID[kind] as (told: readonly Told[]) => string)(some)] : [];
  });
}
