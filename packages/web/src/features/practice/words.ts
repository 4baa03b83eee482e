import { specWords } from '@crow-ladder/contract';
import { DRILLS } from '@crow-ladder/core/drills';

export const { word: drillWord, from: drillFrom } = specWords(DRILLS);
