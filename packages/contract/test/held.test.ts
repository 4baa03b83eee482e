import { type Held } from '@crow-ladder/core/run';
import { object } from 'yup';
import { heldFields } from '../src/document/parts/held.ts';
import { validate } from '../src/validate.ts';

const heldSchema = object(heldFields).noUnknown();
const checked = (held: unknown): unknown => {
  const it = validate<Held>(heldSchema, held);
  return it.ok ? it.value : [it.error.field, it.error.message];
};
const vibrato = { cents: 30, waves: 5 };
const bend = { by: 1.5, how: 'slowly', released: true };

test('how a note is held is read as it was written, and what nobody can play is refused with its field', () => {
  for (const held of [{}, { bend }, { vibrato }, { bend, vibrato }]) expect(checked(held)).toEqual(held);
  for (const by of [0.3, 0, 3.5])
    expect(checked({ bend: { ...bend, by } })).toEqual([
      'bend.by',
      'A bend is 0.5 to 3 half steps, in quarter tones.',
    ]);
  expect(checked({ bend: { ...bend, how: 'later' } })).toEqual(['bend.how', expect.any(String)]);
  expect(checked({ bend: { by: 1, how: 'once' } })).toEqual([
    'bend.released',
    'Say whether the bend is released.',
  ]);
  expect(checked({ vibrato: { ...vibrato, cents: 101 } })).toEqual([
    'vibrato.cents',
    'The depth of the vibrato in cents is at most 100.',
  ]);
  expect(checked({ bend, tremolo: true })).toEqual([undefined, expect.stringContaining('tremolo')]);
});
