import { type FormatOf } from '../format.ts';
import { NAMED } from '../named.ts';
import { readMusicXml } from './read.ts';
import { writeMusicXml } from './write.ts';

/** MusicXML 4.0. */
export const musicXmlFormat = {
  ...NAMED.musicxml,
  write: writeMusicXml,
  read: readMusicXml,
} satisfies FormatOf;
