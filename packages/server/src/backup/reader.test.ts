import fc from 'fast-check';
import { drawn } from '../../../../scripts/thorough.ts';
import { readerOf } from './reader.ts';

// Every backup comes in through a reader that takes it piece by piece. It is held against the language's own, which reads a text whole.

/** What is read of some bytes that come in pieces; undefined where they are refused, or are not all. */
function read(bytes: Uint8Array, sizes: readonly number[]): unknown {
  let is: unknown;
  const reader = readerOf(['$'], ({ value }) => (is = value));
  for (let at = 0, i = 0; at < bytes.length; i++) {
    const size = sizes[i % sizes.length]!;
    reader.write(bytes.subarray(at, at + size));
    at += size;
  }
  return reader.isEnded() ? is : undefined;
}
function whole(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    return undefined;
  }
}

const odd = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 12 }),
  fc.constantFrom(
    '\\',
    '"',
    '\\u0000',
    '\ud83c\udfb8',
    '\ud800',
    '\u2028',
    '\ufeff',
    'a\ufeffb',
    '__proto__',
    'é'.repeat(40),
  ),
);
const value = fc.letrec((tie) => ({
  any: fc.oneof(
    { maxDepth: 4 },
    odd,
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    fc.maxSafeInteger(),
    fc.constantFrom(null, true, false, [], {}, 1e300, -0, 5e-324),
    fc.array(tie('any'), { maxLength: 4 }),
    fc.dictionary(odd, tie('any'), { maxKeys: 4 }),
  ),
})).any;
const sizes = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 6 });
/** A text of lists and objects of a value, however it is spaced. */
const text = fc
  .tuple(value, fc.constantFrom(undefined, 1, '\t', '\r\n '))
  .map(([it, space]) => JSON.stringify({ it, more: [it] }, null, space));

test('what is JSON is read as it is, however it is cut', () => {
  fc.assert(
    fc.property(text, sizes, (json, cut) => {
      expect(read(Buffer.from(json), cut)).toEqual(whole(Buffer.from(json).toString()));
    }),
    { numRuns: drawn(5000) },
  );
});

test('what is altered or cut short is refused, or read as it is', () => {
  let refused = 0;
  const signs = fc.constantFrom(...'{}[]",:\\0123456789.eE+-tfn \n\t\u0000\u0007x', 'nul', 'NaN', '//', "'");
  fc.assert(
    fc.property(text, fc.nat(), fc.nat(3), signs, fc.boolean(), sizes, (json, at, gone, by, ends, cut) => {
      const i = at % (json.length + 1);
      const other = ends ? json.slice(0, i) : json.slice(0, i) + by + json.slice(i + gone);
      const bytes = Buffer.from(other);
      const expected = whole(bytes.toString());
      if (expected === undefined) refused++;
      expect([other, read(bytes, cut)]).toEqual([other, expected]);
    }),
    { numRuns: drawn(10_000) },
  );
  expect(refused).toBeGreaterThan(drawn(3000));
});
