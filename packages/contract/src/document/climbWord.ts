import { CLIMBS } from '@crow-ladder/core/climbs';
import { specWords } from './words.ts';

export const { word: climbWord, from: climbFrom, is: isClimb } = specWords(CLIMBS);
