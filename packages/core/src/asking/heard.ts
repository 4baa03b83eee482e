import { pitchAt } from '../neck.ts';
import { type Place, placeId } from '../place.ts';
import { type Ground } from './card.ts';
import { type Question } from './question.ts';

/**
 * The spot that a note on the guitar answers, where spots are asked for: a microphone hears the pitch, MIDI number, and not the string, so
 * that it is the asked one of that pitch that is not there yet, else one that was not asked. Null where it changes nothing: struck again,
 * far away, or asked for in words.
 *
 * @example heardPlace({ neck }, question, [], 60) // {"string":3,"fret":5}
 */
export function heardPlace(
  { neck }: Pick<Ground, 'neck'>,
  { right, frets: [from, to] }: Pick<Question, 'right' | 'frets'>,
  ticked: readonly Place[],
  midi: number,
): Place | null {
  if (right.by !== 'ticks') return null;
  const there = new Set(ticked.map(placeId));
  const sounds = ({ string, fret }: Place): boolean => pitchAt(neck, string, fret) === midi;
  const asked = right.places.filter(sounds);
  const open = asked.find((place) => !there.has(placeId(place)));
  if (open) return { string: open.string, fret: open.fret };
  if (asked.length || ticked.some(sounds)) return null;
  const fits = (place: Place): boolean => place.fret >= from && place.fret <= to;
  return neck.open.map((pitch, i) => ({ string: i + 1, fret: midi - pitch })).find(fits) ?? null;
}
