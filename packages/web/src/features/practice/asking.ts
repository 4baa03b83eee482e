import { degreeIndex, type Spot, triadOn } from '@crow-ladder/core';
import { type Model, pitchName } from '../../model/model.ts';
import { type IdOf, type SAYINGS } from './params.ts';

export type Saying = Exclude<IdOf<typeof SAYINGS>, 'no'>;
/** The drill whose notes are roots of chords: what is said of them is the chord. */
const ROOTS = 'roots';

/** What is to be said of a note: its name or its degree, and in the drill of roots the chord on it. */
export function answerOf(model: Model, say: Saying, drill: string, { midi }: Pick<Spot, 'midi'>): string {
  const degree = degreeIndex(model.key, midi);
  const name = say === 'degree' ? model.degrees[degree] : model.notes[degree];
  const triad = drill === ROOTS && degree >= 0 ? triadOn(model.scale, degree) : null;
  return `${name ?? pitchName(model, midi)}${triad ? ` ${triad}` : ''}`;
}

/** Everything that can be answered to a drill, in the order of the scale, what lies outside it last. */
export function answersOf(
  model: Model,
  say: Saying,
  drill: string,
  spots: readonly Spot[],
): readonly string[] {
  const all = new Map(spots.map((s) => [answerOf(model, say, drill, s), degreeIndex(model.key, s.midi)]));
  const inScale = drill === ROOTS ? [] : say === 'degree' ? model.degrees : model.notes;
  const place = (degree: number): number => (degree < 0 ? Infinity : degree);
  const asked = [...all].sort(([, a], [, b]) => place(a) - place(b)).map(([answer]) => answer);
  return [...new Set([...inScale, ...asked])];
}
