import { chartFileText, type ChartDraft } from '@crow-ladder/contract';
import { type Result } from '@crow-ladder/core';
import { FORMAT_KINDS, type FormatKind, NAMED } from '@crow-ladder/formats/named';
import { type Model } from '../model/model.ts';
import { writables } from '../model/music.ts';
import { type SceneSource } from '../ui/neck/source.ts';

/** How something of a chart is written down. */
export interface Kind {
  readonly id: string;
  readonly name: string;
  readonly extension: string;
  /** What it is for, or what it cannot carry. */
  readonly told: string;
}
/** A file that is ready, with what its format leaves out of what is in it. */
export interface Made {
  readonly file: Blob;
  readonly lost: readonly string[];
}
/** Something of a chart that can be saved as a file, in one of its kinds. */
export interface Savable {
  readonly id: string;
  readonly name: string;
  readonly kinds: readonly Kind[];
  readonly make: (kind: string) => Promise<Result<Made>>;
}

const MUSIC: readonly Kind[] = FORMAT_KINDS.map((id) => ({
  id,
  name: NAMED[id].name,
  extension: NAMED[id].extensions[0],
  told: `It cannot carry ${NAMED[id].lacks}.`,
}));
const PICTURES: readonly Kind[] = [
  { id: 'svg', name: 'SVG', extension: 'svg', told: 'For print, and to be edited: its text stays text.' },
  { id: 'png', name: 'PNG', extension: 'png', told: 'For a message or a page.' },
];
const WHOLE: readonly Kind[] = [
  {
    id: 'json',
    name: 'JSON',
    extension: 'json',
    told: 'All that the chart holds. Open a file brings it into another library.',
  },
];
const done = (file: Blob, lost: readonly string[] = []): Result<Made> => ({
  ok: true,
  value: { file, lost },
});

/** All that can be saved of a chart: what sounds, the neck as it is shown, and the chart itself. */
export const savables = (model: Model, draft: ChartDraft, source: SceneSource): readonly Savable[] => [
  ...writables(model).map(({ id, name, music }): Savable => ({
    id,
    name,
    kinds: MUSIC,
    make: async (kind) => {
      const it = music();
      if (!it.ok) return it;
      const { WRITERS } = await import('@crow-ladder/formats/write');
      const { bytes, lost } = WRITERS[kind as FormatKind](it.value);
      return done(new Blob([bytes], { type: NAMED[kind as FormatKind].mime }), lost);
    },
  })),
  {
    id: 'neck',
    name: 'the neck as it is shown',
    kinds: PICTURES,
    make: async (kind) => {
      const { pictureFile } = await import('./pictureFile.ts');
      return done(await pictureFile(kind === 'png' ? 'png' : 'svg', source.get(), draft.name));
    },
  },
  {
    id: 'chart',
    name: 'the whole chart',
    kinds: WHOLE,
    make: () => {
      const file = new Blob([chartFileText(draft)], { type: 'application/json' });
      return Promise.resolve(done(file));
    },
  },
];
