import { writeAbc } from './abc/write.ts';
import { type Music, type Written } from './format.ts';
import { writeMidiFile } from './midi/write.ts';
import { writeMusicXml } from './musicxml/write.ts';
import { type FormatKind } from './named.ts';
import { writeText } from './text/write.ts';

export type { Music, Written };

/** What writes each format: without the readers, which are much larger. */
export const WRITERS: Readonly<Record<FormatKind, (music: Music) => Written>> = {
  text: writeText,
  musicxml: writeMusicXml,
  midi: writeMidiFile,
  abc: writeAbc,
};
