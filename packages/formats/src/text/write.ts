import { keySignature } from '@crow-ladder/core/notation';
import { tablature } from '@crow-ladder/core/run';
import { type Accidentals, tuningText } from '@crow-ladder/core';
import { bytesOf } from '../bytes.ts';
import { type Music, type Written } from '../format.ts';
import { lengthWord, RHYTHM_SAID } from './rhythm.ts';

/** Characters a line. */
const WIDTH = 96;

/** Music as plain text tablature with its tuning, metre and tempo above it and the length of each note over the strings. */
export function writeText({ title, run, ticks, neck, capo, key, beats, tempo }: Music): Written {
  const accidentals: Accidentals = keySignature(key) < 0 ? 'flats' : 'sharps';
  // Strings are named as they are tuned; frets count from the capo.
  const open = neck.open.map((midi) => midi - capo);
  const head = [
    title,
    '',
    `Tuning: ${tuningText([...open].reverse(), accidentals)}${capo ? `, capo at fret ${capo}` : ''}`,
    `${beats}/4   Tempo: ${tempo}`,
    RHYTHM_SAID,
  ];
  const text = tablature(
    run,
    { ...neck, open },
    { beats, width: WIDTH, accidentals, lengths: lengthWord, until: ticks },
  );
  const depths = new Set(run.map(({ vibrato }) => vibrato && `${vibrato.cents} ${vibrato.waves}`));
  depths.delete(undefined);
  return {
    bytes: bytesOf(`${head.join('\n')}\n\n${text}\n`),
    lost: depths.size ? ['How deep and fast a vibrato is cannot be written in tablature: it is a wave.'] : [],
  };
}
