/** Control characters but line breaks and tabs, and halves of characters (lone surrogates). */
const ODD = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]|\p{Surrogate}/u;
/** Something that can be seen. */
const VISIBLE = /[\p{L}\p{N}\p{P}\p{S}]/u;
/** How deep what is sent may be nested: far beyond anything that Crow Ladder writes. */
const DEEPEST = 40;

/** Whether a text has anything in it that can be seen. */
export const isVisible = (text: string): boolean => VISIBLE.test(text);

/** A text as it is kept: line breaks of one kind, composed characters (NFC), no blanks around it. */
export const tidyText = (text: string): string => text.replace(/\r\n?/g, '\n').normalize('NFC').trim();

const isList = (data: unknown): data is readonly unknown[] => Array.isArray(data);
const isObject = (data: unknown): data is Readonly<Record<string, unknown>> =>
  typeof data === 'object' && data !== null;

function mapped(data: unknown, of: (text: string) => string): unknown {
  if (typeof data === 'string') return of(data);
  if (isList(data)) return data.map((it) => mapped(it, of));
  if (!isObject(data)) return data;
  return Object.fromEntries(Object.entries(data).map(([key, it]) => [key, mapped(it, of)]));
}

/** Data with every text in it as it is kept. */
export const tidied = (data: unknown): unknown => mapped(data, tidyText);
/** Data without the characters that no text may have: for what was kept before there was a rule, and for backups of it. */
export function withoutOdd(data: unknown): unknown {
  if (textTrouble(data)?.deep) return data;
  const odd = new RegExp(ODD, 'gu');
  return mapped(data, (text) => text.replace(odd, ''));
}

/** Where data has a text that cannot be kept, or is nested too deep; null where all of it can be kept. */
export function textTrouble(
  data: unknown,
  path = '',
  depth = 0,
): { readonly field: string; readonly message: string; readonly deep: boolean } | null {
  if (depth > DEEPEST)
    return { field: '', message: 'This is nested too deep to be anything of Crow Ladder.', deep: true };
  if (typeof data === 'string')
    return ODD.test(data)
      ? {
          field: path,
          message:
            'This text has a character that cannot be kept, such as half of one or a control character: type it again.',
          deep: false,
        }
      : null;
  if (!isObject(data)) return null;
  for (const [key, it] of Object.entries(data)) {
    const at = isList(data) ? `${path}[${key}]` : path ? `${path}.${key}` : key;
    const trouble = textTrouble(it, at, depth + 1);
    if (trouble) return trouble;
  }
  return null;
}

/** Made when it is needed first: a page that only begins is not to wait for it. */
let graphemes: Intl.Segmenter | null = null;
/** A text cut to at most `most` characters of its length, never in the middle of what is read as one. */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  graphemes ??= new Intl.Segmenter('en', { granularity: 'grapheme' });
  let cut = '';
  for (const { segment } of graphemes.segment(text)) {
    if (cut.length + segment.length > most) break;
    cut += segment;
  }
  return cut.trimEnd();
}

/** A text as words are looked for in it: in small letters, without accents. */
export const foldedText = (text: string): string =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
