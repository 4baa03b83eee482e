import {
  classesOf,
  degreeName,
  chromaticName,
  mod,
  parseDegree,
  pitchClass,
  placeId,
  pretty,
  spotsOf,
} from '@crow-ladder/core';
import { underPosition } from '@crow-ladder/core/sources';
import { type Mark, type MarkKind } from '@crow-ladder/picture';
import { labelOf, type Shown } from './marks.ts';
import { type Model, pitchName } from './model.ts';
import { type Over } from './progression.ts';
import { spotNamed } from './wording.ts';

/**
 * A chord of a progression on the neck: under the position in front its notes in full, its root and the chart's apart, and the notes of the scale
 * over it faded; degrees count from the chord's root.
 */
export function overMarks(
  model: Model,
  { classes, chord, name, over }: Over,
  { labels }: Shown,
): readonly Mark[] {
  const { neck, key, front } = model;
  if (!front) return [];
  const root = classes[0]!;
  const degrees = new Map(
    chord.degrees.flatMap((text) => {
      const read = parseDegree(text);
      return read.ok
        ? [[classes[chord.degrees.indexOf(text)]!, pretty(degreeName(read.value))] as const]
        : [];
    }),
  );
  const label = (midi: number, fret: number): string => {
    const pc = mod(midi, 12);
    if (labels === 'degree') return degrees.get(pc) ?? pretty(chromaticName(pc - root));
    return labels === 'note' ? pitchName(model, midi) : labelOf(model, labels, { degree: -1, fret, midi });
  };
  const scale = classesOf(over.key);
  const kindOf = (pc: number, isTone: boolean): MarkKind => {
    if (pc === pitchClass(key.root)) return isTone ? 'root' : 'outsideRoot';
    return pc === root ? 'shared' : isTone ? 'note' : 'outside';
  };
  const here = underPosition(neck, key, front.position).flatMap((spot): Mark[] => {
    const pc = mod(spot.midi, 12);
    const isTone = classes.includes(pc);
    if (!isTone && !scale.includes(pc)) return [];
    const said = isTone
      ? `${pc === root ? 'the root' : `the ${degrees.get(pc) ?? ''}`} of ${name}`
      : 'of the scale over it';
    return [
      {
        string: spot.string,
        fret: spot.fret,
        kind: kindOf(pc, isTone),
        label: label(spot.midi, spot.fret),
        name: () => `${spotNamed(spot)}: ${pitchName(model, spot.midi)}, ${said}`,
      },
    ];
  });
  const set = new Set(here.map(placeId));
  const roots = spotsOf(neck, key).flatMap((spot): Mark[] =>
    spot.degree !== 0 || set.has(placeId(spot))
      ? []
      : [
          {
            string: spot.string,
            fret: spot.fret,
            kind: 'outsideRoot',
            label: labelOf(model, labels, spot),
            name: () => `${spotNamed(spot)}: ${pitchName(model, spot.midi)}, the root`,
          },
        ],
  );
  return [...here, ...roots];
}
