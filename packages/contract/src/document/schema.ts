import { parseNote, pitchClass } from '@crow-ladder/core';
import { array, number, object, string } from 'yup';
import {
  frontSchema,
  instrumentSchema,
  placeSchema,
  rootSchema,
  type SchemaOf,
  scaleSchema,
  sound,
  wrongAt,
} from '../fields.ts';
import { MOST_OTHERS, MOST_PARTS } from '../limits.ts';
import { chordPart } from './parts/progression.ts';
import { instrumentPart } from './parts/instrument.ts';
import { layoutPart } from './parts/layout.ts';
import { overlayPart } from './parts/overlay.ts';
import { phrasePart } from './parts/phrase.ts';
import { runPart } from './parts/run.ts';
import { type ChartState, DOCUMENT_VERSION } from './state.ts';

export const stateSchema: SchemaOf<ChartState> = object({
  v: number<typeof DOCUMENT_VERSION>().oneOf([DOCUMENT_VERSION]).required(),
  key: object({
    root: rootSchema,
    scale: scaleSchema('The scale', 'This scale is not known: pick one by name, or type its formula.'),
  })
    .noUnknown()
    .required(),
  at: placeSchema,
  layout: layoutPart.schema,
  front: frontSchema(),
  instrument: instrumentSchema.required(),
  instrumentId: string().nullable().defined(),
  others: array(instrumentPart.schema)
    .max(MOST_OTHERS, `A chart has at most ${MOST_OTHERS} other instruments.`)
    .required(),
  overlays: array(overlayPart.schema)
    .max(MOST_PARTS, `A chart has at most ${MOST_PARTS} overlays.`)
    .required(),
  chords: array(chordPart.schema)
    .max(MOST_PARTS, `A chart has at most ${MOST_PARTS} progressions.`)
    .required(),
  phrases: array(phrasePart.schema).max(MOST_PARTS, `A chart has at most ${MOST_PARTS} phrases.`).required(),
  runs: array(runPart.schema).max(MOST_PARTS, `A chart has at most ${MOST_PARTS} kept climbs.`).required(),
})
  .noUnknown()
  .test('spot', 'The root lies off the neck.', (value, context) => {
    // What is wrong by itself is told by its own field; this is about what does not go together.
    if (!sound(instrumentSchema, value.instrument) || !sound(placeSchema, value.at)) return true;
    const { tuning, frets, capo } = value.instrument;
    const { string, fret } = value.at;
    const fail = (field: string, message: string) => wrongAt(context, `at.${field}`, message);
    if (string > tuning.length) return fail('string', `This instrument has ${tuning.length} strings.`);
    if (fret > frets - capo) return fail('fret', `The last fret is ${frets - capo}.`);
    const named: unknown = value.key?.root;
    const root = typeof named === 'string' ? parseNote(named) : null;
    const sounds = (tuning[tuning.length - string]! + capo + fret) % 12;
    return (
      !root?.ok ||
      pitchClass(root.value) === sounds ||
      fail('fret', `String ${string} fret ${fret} does not sound ${value.key.root}.`)
    );
  });
