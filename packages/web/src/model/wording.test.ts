import { called } from '@crow-ladder/contract';
import { ownScale, parseFormula, scaleById, scaleSaid, spotSaid, tuningSaid } from '@crow-ladder/core';

test('a tuning is said without octaves where its letters are enough', () => {
  expect(tuningSaid([38, 45, 50, 55, 57, 62], 'sharps')).toBe('D A D G A D');
  expect(tuningSaid([37, 44, 49, 54, 58, 63], 'sharps')).toBe('C♯ G♯ C♯ F♯ A♯ D♯');
  expect(tuningSaid([39, 44, 49, 54, 58, 63], 'flats')).toBe('E♭ A♭ D♭ G♭ B♭ E♭');
  expect(tuningSaid([52, 57, 62, 67, 71, 76], 'sharps')).toBe('E3 A3 D4 G4 B4 E5');
});

test('a scale is said by its name, or as what it is made of while it has none', () => {
  const read = parseFormula('1 2 4 b5 b7');
  if (!read.ok) throw new Error(read.error.message);
  const own = ownScale(read.value.degrees);
  expect(scaleSaid(own)).toBe('scale of 1 2 4 ♭5 ♭7');
  expect(scaleSaid(called(own, [{ id: own.id, name: 'Fog signal' }]))).toBe('Fog signal');
  expect(scaleSaid(scaleById('mixolydian-b6')!)).toBe('Mixolydian ♭6');
});

test('fret 0 is said as the open string', () => {
  expect([spotSaid({ string: 5, fret: 0 }), spotSaid({ string: 5, fret: 7 })]).toEqual([
    'open string 5',
    'string 5 fret 7',
  ]);
});
