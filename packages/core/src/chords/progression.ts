import { mod } from '../arithmetic.ts';
import { MAJOR } from '../degree.ts';
import { alterationOf } from '../note.ts';
import { ok, refuse, type Result } from '../result.ts';
import { NUMERALS } from './roman.ts';

/** A scale that a player chose, its root so many half steps above the key's. */
export interface ScaleAbove {
  /** Id of a catalogue scale, or `own:` and degrees. */
  readonly scale: string;
  /** 0 to 11. */
  readonly above: number;
}

/** A chord of a progression, counted from the root of the key, so that it goes with it. */
export interface ProgressionChord {
  /** How far its root lies above the key's, in half steps, 0 to 11. */
  readonly above: number;
  /** What is written after its root, as it was typed. */
  readonly suffix: string;
  /** Degrees above its own root: "1", "b3", "5". */
  readonly degrees: readonly string[];
  /** How far its bass note lies above its root where that is another one, in half steps; null where it is the root. */
  readonly bass: number | null;
}

/** What a chord symbol says. */
export interface SymbolRead {
  /** Half steps of its root above C, 0 to 11. */
  readonly root: number;
  readonly suffix: string;
  readonly degrees: readonly string[];
  readonly bass: number | null;
}

/** The most bars of a progression, and chords of one bar. */
export const PROGRESSION_LIMITS = { bars: 64, chords: 8, beats: [2, 12] } as const;

const NUMERAL = /^([#♯b♭]?)(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)(.*)$/;
/** Half steps of the natural minor scale. */
const MINOR = [0, 2, 3, 5, 7, 8, 10];

/** Whether numerals without a sign are counted in the major scale, or within minor. */
export type CountedIn = 'major' | 'minor';

/**
 * A chord as a Roman numeral tells it: how far above the key, and what would be written after its root; null where it is none.
 *
 * @example numeralRead('viiø7', 'major') // {"above":11,"suffix":"m7b5"}
 */
export function numeralRead(
  text: string,
  within: CountedIn,
): { readonly above: number; readonly suffix: string } | null {
  const [, sign, numeral, rest = ''] = NUMERAL.exec(text) ?? [];
  if (!numeral) return null;
  const at = NUMERALS.findIndex((it) => it === numeral.toUpperCase());
  const steps = sign || within === 'major' ? MAJOR : MINOR;
  const above = mod(steps[at]! + alterationOf(sign ?? ''), 12);
  if (/^[ø]7?/.test(rest)) return { above, suffix: rest.replace(/^ø7?/, 'm7b5') };
  if (/^[°o](?!m)/.test(rest)) return { above, suffix: rest.replace(/^[°o]/, 'dim') };
  if (rest.startsWith('+')) return { above, suffix: `aug${rest.slice(1)}` };
  const isMinor = numeral === numeral.toLowerCase();
  const plain = isMinor && !/^(m(?!aj)|dim|sus)/.test(rest);
  return { above, suffix: plain ? (rest.startsWith('maj') ? `m(${rest})` : `m${rest}`) : rest };
}

/** Bars of chords. */
export type Bars = readonly (readonly ProgressionChord[])[];

/**
 * A progression as it is typed: bars between upright lines, chords of one bar sharing it evenly, `%` for the bar before once more, chords by symbol or
 * by Roman numeral. `root` is the pitch class of the key; `read` reads a chord symbol. Codes: `chord.unknown`, which names the bar and what is
 * not understood, `chord.repeat`, `chord.many`, `chord.none`.
 *
 * @example readBars('I | %', 9, 'major', () => ({ root: 0, suffix: '', degrees: ['1', '3', '5'], bass: null })).value?.length // 2
 */
export function readBars(
  text: string,
  root: number,
  within: CountedIn,
  read: (symbol: string) => SymbolRead | null,
): Result<Bars> {
  const written = text
    .split(/[|\n]+/)
    .map((bar) => bar.trim())
    .filter((bar) => bar !== '');
  if (!written.length) return refuse('chord.none', 'Type at least one chord, such as A7 | D7 A7 | E7 | A7.');
  const bars: (readonly ProgressionChord[])[] = [];
  for (const [i, bar] of written.entries()) {
    const chords: ProgressionChord[] = [];
    for (const symbol of bar.split(/\s+/)) {
      if (symbol === '%') {
        const before = chords.length ? [chords.at(-1)!] : bars.at(-1);
        if (!before)
          return refuse('chord.repeat', 'Bar 1 begins with %: there is no bar before it to play again.');
        chords.push(...before);
        continue;
      }
      const numeral = numeralRead(symbol, within);
      const said = read(numeral ? `C${numeral.suffix}` : symbol);
      if (!said)
        return refuse(
          'chord.unknown',
          `Bar ${i + 1}: “${symbol}” is not understood. Write a chord such as E♭m7 or B7, or a numeral such as IV7.`,
        );
      const { suffix, degrees, bass } = said;
      chords.push({ above: numeral ? numeral.above : mod(said.root - root, 12), suffix, degrees, bass });
    }
    if (chords.length > PROGRESSION_LIMITS.chords)
      return refuse(
        'chord.many',
        `Bar ${i + 1} has more than ${PROGRESSION_LIMITS.chords} chords: put some into a bar of their own.`,
      );
    bars.push(chords);
  }
  if (bars.length > PROGRESSION_LIMITS.bars)
    return refuse('chord.many', `This has ${bars.length} bars; at most ${PROGRESSION_LIMITS.bars} are kept.`);
  return ok(bars);
}

/** A chord of a progression at its time. */
export interface Slot {
  /** Beats from the beginning, and how many it lasts; parts of a beat where a bar is not shared evenly. */
  readonly at: number;
  readonly beats: number;
  readonly chord: ProgressionChord;
}

/**
 * The chords of a progression in the order of play; one that goes on is one.
 *
 * @example slotsOf([[chord], [chord, { ...chord, above: 5 }]], 4).map((s) => s.beats) // [6,2]
 */
export function slotsOf(bars: Bars, beats: number): readonly Slot[] {
  const all = bars.flatMap((bar, i) =>
    bar.map((chord, k): Slot => ({
      at: i * beats + (k * beats) / bar.length,
      beats: beats / bar.length,
      chord,
    })),
  );
  const out: Slot[] = [];
  for (const slot of all) {
    const last = out.at(-1);
    if (last && chordId(last.chord) === chordId(slot.chord))
      out[out.length - 1] = { ...last, beats: last.beats + slot.beats };
    else out.push(slot);
  }
  return out;
}

/**
 * What tells a chord of a progression from others: the same chord on the same root has it again.
 *
 * @example chordId(chord) // "0 7"
 */
export const chordId = ({ above, suffix, bass }: ProgressionChord): string =>
  `${above} ${suffix}${bass === null ? '' : `/${bass}`}`;
