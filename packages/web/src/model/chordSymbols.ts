import { mod, parseDegree, degreeHalfSteps, parseNote, pitchClass } from '@crow-ladder/core';
import { type SymbolRead } from '@crow-ladder/core/chords';

/** What players write otherwise than the library reads it. */
const plain = (symbol: string): string =>
  symbol
    .replaceAll('♭', 'b')
    .replaceAll('♯', '#')
    .replace(/[Δ△]7?/, 'maj7');

/** A reader of chord symbols; its library is fetched when it is first asked for. */
export async function symbolReader(): Promise<(symbol: string) => SymbolRead | null> {
  const { chordParserFactory } = await import('chord-symbol/lib/chord-symbol-esm.js');
  const parse = chordParserFactory({ notationSystems: ['english'] });
  return (symbol) => {
    const text = plain(symbol);
    // A note by its syllable: the library takes "Do7" for D diminished.
    if (/^(Do|Re|Mi|Fa|Sol|La|Si)/.test(text)) return null;
    const read = parse(text);
    if ('error' in read && read.error.length) return null;
    const { normalized, input } = read as Exclude<typeof read, { error: unknown }>;
    const root = parseNote(normalized.rootNote);
    const bass = normalized.bassNote ? parseNote(normalized.bassNote) : null;
    if (!root.ok || (bass && !bass.ok)) return null;
    const suffix = input.descriptor ?? '';
    const names = [...normalized.intervals] as string[];
    // The library leaves the fifth out where the thirteenth is lowered.
    if (!names.some((n) => /^[b#]?5$/.test(n)) && !/no5|omit5/.test(suffix)) names.splice(2, 0, '5');
    const sounding = names.map((name) => {
      const degree = parseDegree(name);
      return degree.ok ? degreeHalfSteps(degree.value) : null;
    });
    if (sounding.includes(null)) return null;
    const from = pitchClass(root.value);
    const above = bass ? mod(pitchClass(bass.value) - from, 12) : 0;
    return {
      root: from,
      suffix,
      degrees: names.filter((_, i) => sounding.indexOf(sounding[i]!) === i),
      bass: above || null,
    };
  };
}
