import { type Degree, degree, degreeHalfSteps, degreeName, MAJOR, parseDegree } from './degree.ts';
import { scalesWithOffsets } from './naming.ts';
import { parseNote, pitchClass, pretty, LETTERS } from './note.ts';
import { list, ordinal, plural } from './words.ts';
import { mod } from './arithmetic.ts';
import { ok, refuse, type Result } from './result.ts';
import { makeScale, type Scale, type ScaleFamily, stepName } from './scale.ts';
import { scaleById } from './scaleCatalogue.ts';

export type FormulaKind = 'steps' | 'degrees' | 'notes';

/** A formula as typed, understood: the half steps above the root, spelled. */
export interface Formula {
  readonly kind: FormulaKind;
  readonly degrees: readonly Degree[];
  readonly offsets: readonly number[];
}

/** Degree names for half steps above the root where nothing better is known. */
const USUAL = ['1', 'b2', '2', 'b3', '3', '4', 'b5', '5', 'b6', '6', 'b7', '7'];

/**
 * Spells half steps above the root. Catalogue scales keep their spelling; seven notes use each letter once
 * where no degree needs more than two accidentals; anything else is spelled note by note.
 *
 * @example spellOffsets([0, 3, 7]).map(degreeName) // ["1","b3","5"]
 */
export function spellOffsets(offsets: readonly number[]): readonly Degree[] {
  const known = scalesWithOffsets(offsets)[0];
  if (known) return known.degrees;
  if (offsets.length === 7) {
    const letters = offsets.map((o, i) => ({ number: i + 1, alteration: o - MAJOR[i]! }));
    if (letters.every((d) => Math.abs(d.alteration) <= 2)) return letters;
  }
  return offsets.map((o) => {
    const sharpFour = o === 6 && offsets.includes(7) && !offsets.includes(5);
    return degree(sharpFour ? '#4' : USUAL[o]!);
  });
}

/** One step: W, H, W+H, T, S or half steps as a number. */
function parseStep(token: string): number | null {
  const t = token.toUpperCase();
  if (/^\d{1,2}$/.test(t)) return Number(t) >= 1 ? Number(t) : null;
  return ({ W: 2, T: 2, H: 1, S: 1, 'W+H': 3, WH: 3, 'W+W': 4 } as Record<string, number>)[t] ?? null;
}

const MIN_NOTES = 3;
const size = (offsets: readonly number[]): Result<readonly number[]> =>
  offsets.length < MIN_NOTES
    ? refuse('formula.short', `A scale needs at least three different notes; this one has ${offsets.length}.`)
    : ok(offsets);

/** One step that could be mended so that the steps make a catalogue scale. */
export interface Mend {
  /** 0-based place of the step. */
  readonly step: number;
  readonly halfSteps: number;
  readonly scale: Scale;
}

/** Families so common that a slip in one of them is likelier than a rare scale. */
const COMMON: readonly ScaleFamily[] = ['major modes', 'pentatonic', 'blues'];

/**
 * Every single step whose change would turn the steps into a scale that the catalogue knows.
 *
 * @example mends([2, 2, 1, 2, 2, 2]).length > 0 // true
 */
export function mends(steps: readonly number[]): readonly Mend[] {
  const short = 12 - steps.reduce((a, b) => a + b, 0);
  return steps.flatMap((s, i) => {
    const mended = s + short;
    if (short === 0 || mended < 1 || mended > 4) return [];
    let at = 0;
    const offsets = steps.map((step, j) => {
      const before = at;
      at += j === i ? mended : step;
      return before;
    });
    const scale = scalesWithOffsets(offsets)[0];
    return scale ? [{ step: i, halfSteps: mended, scale }] : [];
  });
}

/**
 * Adds steps up. Refused with code `formula.octave` where they do not make 12 half steps; which step is wrong is
 * said only where a single mended step gives a scale of the catalogue, and every such step is named, the scales of the commonest families before all others.
 *
 * @example offsetsFromSteps([2, 2, 1, 2, 2, 2, 1]) // {"ok":true,"value":[0,2,4,5,7,9,11]}
 */
export function offsetsFromSteps(steps: readonly number[]): Result<readonly number[]> {
  const sum = steps.reduce((a, b) => a + b, 0);
  if (sum === 12) {
    let at = 0;
    return size(steps.map((s) => (at += s) - s));
  }
  const by = sum < 12 ? 'short' : 'long';
  const found = mends(steps);
  const common = found.filter((m) => COMMON.includes(m.scale.family));
  const told = common.length ? common : found;
  const mend = (m: Mend): string =>
    `the ${ordinal(m.step + 1)} step may be ${by} by ${Math.abs(12 - sum)} (then it is ${pretty(m.scale.name)})`;
  const hint = told.length === 0 || told.length > 3 ? '' : `: ${list(told.map(mend), 'or')}`;
  return refuse(
    'formula.octave',
    `These steps add up to ${plural(sum, 'half step')}; an octave is 12${hint}.`,
  );
}

/** Steps, degrees or notes that were written together: `WWHWWWH`, `2212221`, `12b345b6b7`, `CDEbFG`. */
const TOGETHER = [/W\+[WH]|[WHTS]/gi, /[b#x]*\d/g, /[A-G][b#x]*/g];
function apart(token: string): readonly string[] {
  if (parseStep(token) !== null) return [token];
  const cuts = TOGETHER.map((one) => token.match(one) ?? []);
  return cuts.find((parts) => parts.join('') === token) ?? [token];
}

const tokens = (text: string): string[] =>
  text
    .trim()
    .replace(/[♭]/g, 'b')
    .replace(/[♯]/g, '#')
    .split(/[\s,–—-]+/)
    .filter(Boolean)
    .flatMap(apart);

/**
 * What a typed formula is made of: steps, degrees or notes. "1 2 …" reads as degrees when it begins with 1 and rises.
 *
 * @example formulaKind('1 b3 5') // "degrees"
 */
export function formulaKind(text: string): FormulaKind {
  const parts = tokens(text);
  if (parts.length && parts.every((p) => /^[whts](\+?[wh])?$/i.test(p))) return 'steps';
  if (parts.some((p) => /^[a-g]/i.test(p) && !/^b+\d/.test(p))) return 'notes';
  if (parts.some((p) => /^[b#x]/.test(p))) return 'degrees';
  const numbers = parts.map((p) => parseStep(p) ?? 99);
  const rising = numbers.every((n, i) => i === 0 || n > numbers[i - 1]!);
  return numbers[0] === 1 && rising && parts.length > 2 ? 'degrees' : 'steps';
}

/**
 * The steps of a formula typed as steps, in half steps; null where it holds anything else. They need not make an octave.
 *
 * @example stepsOf('W W H') // [2,2,1]
 */
export function stepsOf(text: string): readonly number[] | null {
  const steps = tokens(text).map(parseStep);
  return steps.length && formulaKind(text) === 'steps' && steps.every((s) => s !== null) ? steps : null;
}

/**
 * Reads a formula: steps (`W W H W W W H`, `2 2 1 2 2 2 1`), degrees (`1 2 b3 4 5 6 b7`) or notes, the root first
 * (`A B C D E`). Refusals name the token or the sum that is wrong: `formula.token`, `formula.octave`,
 * `formula.root`, `formula.twice`, `formula.short`, `formula.empty`.
 *
 * @example parseFormula('W W H W W W H').value?.kind // "steps"
 */
export function parseFormula(text: string, kind: FormulaKind = formulaKind(text)): Result<Formula> {
  const parts = tokens(text);
  if (!parts.length) return refuse('formula.empty', 'Type the steps, the degrees or the notes of the scale.');
  const bad = (token: string, want: string): Result<never> =>
    refuse('formula.token', `“${token}” is not ${want}.`);
  if (kind === 'steps') {
    const steps = parts.map(parseStep);
    const wrong = steps.indexOf(null);
    if (wrong >= 0) return bad(parts[wrong]!, 'a step: write W, H, W+H or a number of half steps');
    const offsets = offsetsFromSteps(steps as number[]);
    return offsets.ok ? ok({ kind, offsets: offsets.value, degrees: spellOffsets(offsets.value) }) : offsets;
  }
  const degrees: Degree[] = [];
  const root = parseNote(parts[0]!);
  for (const part of parts) {
    if (kind === 'degrees') {
      const parsed = parseDegree(part);
      if (!parsed.ok) return bad(part, 'a degree: write 1 to 7 with # or b before it, such as b3');
      degrees.push(parsed.value);
    } else {
      const parsed = parseNote(part);
      if (!parsed.ok || !root.ok) return bad(part, 'a note: write A to G, then # or b, such as F# or Bb');
      const number = mod(LETTERS.indexOf(parsed.value.letter) - LETTERS.indexOf(root.value.letter), 7) + 1;
      const offset = mod(pitchClass(parsed.value) - pitchClass(root.value), 12);
      degrees.push({ number, alteration: mod(offset - MAJOR[number - 1]! + 6, 12) - 6 });
    }
  }
  const isRoot = (d: Degree): boolean => d.number === 1 && d.alteration === 0;
  // A closing octave ("A … A", "1 … 8") belongs to the way of writing, not to the scale.
  if (degrees.findIndex(isRoot) < degrees.length - 1 && isRoot(degrees.at(-1)!)) degrees.pop();
  if (!degrees.some(isRoot)) return refuse('formula.root', 'The root is missing: begin with degree 1.');
  const sorted = [...degrees].sort(
    (a, b) => degreeHalfSteps(a) - degreeHalfSteps(b) || Number(isRoot(b)) - Number(isRoot(a)),
  );
  const again = sorted.findIndex((d, i) => i > 0 && degreeHalfSteps(d) === degreeHalfSteps(sorted[i - 1]!));
  if (again > 0) {
    const [was, twice] = [degreeName(sorted[again - 1]!), degreeName(sorted[again]!)];
    return refuse(
      'formula.twice',
      `The same note stands in it twice: ${was === twice ? `${twice} is already there` : `${twice} is the same note as ${was}`}.`,
    );
  }
  const offsets = size(sorted.map(degreeHalfSteps));
  return offsets.ok ? ok({ kind, degrees: sorted, offsets: offsets.value }) : offsets;
}

/**
 * A player's own scale from its degrees. The id spells its notes, in the one spelling that `spellOffsets` gives them,
 * however they were typed: equal sets of notes have equal ids.
 *
 * @example ownScale([{ number: 1, alteration: 0 }, { number: 5, alteration: 0 }]).id // "own:1,5"
 */
export function ownScale(degrees: readonly Degree[], name?: string): Scale {
  const offsets = [...new Set(degrees.map(degreeHalfSteps))].sort((a, b) => a - b);
  const names = spellOffsets(offsets).map(degreeName);
  return makeScale(names, { id: `own:${names.join(',')}`, name: name ?? names.join(' '), family: 'own' });
}

/**
 * Own scale of toggled half steps above the root (0 to 11, any order).
 *
 * @example scaleFromToggles([3, 7]).value?.id // "own:1,b3,5"
 */
export function scaleFromToggles(offsets: Iterable<number>): Result<Scale> {
  const checked = size([...new Set([0, ...offsets])].sort((a, b) => a - b));
  return checked.ok ? ok(ownScale(spellOffsets(checked.value))) : checked;
}

/**
 * Steps of a scale as typed text: "W W H W W W H".
 *
 * @example stepText(scaleById('major')) // "W W H W W W H"
 */
export const stepText = (scale: Scale): string => scale.steps.map(stepName).join(' ');

/**
 * The scale of an id: a catalogue scale, or an own one spelled in its id (`own:1,b3,5`). Code `scale.unknown`.
 *
 * @example resolveScale('dorian').value?.name // "Dorian"
 */
export function resolveScale(id: string): Result<Scale> {
  const known = scaleById(id);
  if (known) return ok(known);
  if (id.startsWith('own:')) {
    const formula = parseFormula(id.slice(4).replace(/,/g, ' '), 'degrees');
    if (formula.ok) return ok(ownScale(formula.value.degrees));
  }
  return refuse(
    'scale.unknown',
    `There is no scale “${id}” in the catalogue: pick one by name, or type its formula.`,
  );
}
