import { type Settings } from '@crow-ladder/contract';

/** What the marks on the neck can say. */
export const LABEL_NAMES: Readonly<Record<Settings['labels'], string>> = {
  degree: 'degrees',
  note: 'note names',
  finger: 'fingers',
  fret: 'fret numbers',
  solfa: 'sol-fa',
  order: 'order of play',
  none: 'nothing',
};
