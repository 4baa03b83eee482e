import {
  cutText,
  FIRST_STATE,
  foldedText,
  isVisible,
  textTrouble,
  tidied,
  withoutOdd,
} from '../src/index.ts';
import { readDraft } from '../src/schemas.ts';

describe('texts', () => {
  test('are kept composed, with line breaks of one kind and no blanks around them, wherever they stand', () => {
    expect(tidied({ a: ['  one\r\ntwo\rthree\n '], b: { c: 'e\u0301' }, d: 7, e: null })).toEqual({
      a: ['one\ntwo\nthree'],
      b: { c: '\u00e9' },
      d: 7,
      e: null,
    });
  });

  test('have no control characters and no halves of characters; line breaks and tabs may be', () => {
    for (const good of ['a\tb\nc\rd', 'e\u00a0f', '𝄫'])
      expect([good, textTrouble(good)]).toEqual([good, null]);
    for (const odd of [
      '\u0000',
      '\u0008',
      '\u000b',
      '\u000c',
      '\u000e',
      '\u001f',
      '\u007f',
      '\u0080',
      '\u009f',
      '\ud834',
      '\udd2b',
    ]) {
      expect(textTrouble({ tags: ['fine', `a${odd}b`] })).toMatchObject({ field: 'tags[1]', deep: false });
      expect(withoutOdd({ tags: [`a${odd}b${odd}`], n: 1 })).toEqual({ tags: ['ab'], n: 1 });
    }
    expect(textTrouble({ state: { key: { root: '\u0000' } } })).toMatchObject({ field: 'state.key.root' });
    const draft = readDraft({ name: 'a\u0000', tags: [], notes: '', state: FIRST_STATE });
    expect(draft.ok ? null : [draft.error.field, draft.error.message]).toEqual([
      'name',
      'This text has a character that cannot be kept, such as half of one or a control character: type it again.',
    ]);
  });

  test('what is nested too deep is refused, and left as it is', () => {
    const nested = (deep: number): unknown => (deep ? [nested(deep - 1)] : 'x');
    expect(textTrouble(nested(40))).toBeNull();
    expect(textTrouble(nested(41))).toMatchObject({ deep: true, field: '' });
    expect(textTrouble({ more: nested(60) })).toMatchObject({ deep: true });
    expect(withoutOdd({ more: nested(60), name: '\u0000' })).toEqual({ more: nested(60), name: '\u0000' });
  });

  test('a name can be seen', () => {
    for (const seen of ['a', '7', '♯', '!', ' x ']) expect([seen, isVisible(seen)]).toEqual([seen, true]);
    for (const blank of ['', ' ', '\u200b', '\u00a0\u2003', '\u0301'])
      expect([blank, isVisible(blank)]).toEqual([blank, false]);
  });

  test('are cut between what is read as one, and lose the blanks at the cut', () => {
    expect(cutText('night watch', 11)).toBe('night watch');
    expect(cutText('night watch', 6)).toBe('night');
    expect(cutText('night watch', 5)).toBe('night');
    expect(cutText('ab👩‍👧cd', 5)).toBe('ab');
    expect(cutText('ab👩‍👧cd', 7)).toBe('ab👩‍👧');
  });

  test('are looked for without accents and case', () => {
    expect([foldedText('Ébène'), foldedText('STRASSE ﬁn')]).toEqual(['ebene', 'strasse fin']);
  });
});
