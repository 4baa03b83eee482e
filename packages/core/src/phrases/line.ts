import { mod, shorterWay } from '../arithmetic.ts';
import { degreeHalfSteps, degreeName, chromaticName, parseDegree } from '../degree.ts';
import { pitchClass, pretty } from '../note.ts';
import { ok, refuse, type Result } from '../result.ts';
import { degreeIndex, type Key } from '../scale.ts';
import { lengthOf, ticksIn, VALUES } from './lengths.ts';
import { PHRASE_LIMITS, type Tune, type TuneNote } from './phrase.ts';

/** How lengths are written in a line: as parts of a whole note. */
const PART = ['1', '2', '4', '8', '16', '32'] as const;
const WRITTEN = PART.map((part, i) => ({ part, id: VALUES[i]!.id }));

const WORD = /^(r|[#♯x𝄪b♭𝄫]*\d{1,2})([',]*)(?::(1|2|4|8|16|32)([.t]?))?$/u;

/** Half steps from one pitch to a pitch class by the shorter way; of two as short the one up. */
const nearest = (from: number, pc: number): number => from + shorterWay(from, pc);

/**
 * A line of degrees as it is typed: "1 b3 4 b5:8t 4 r:4 1'". A degree is taken nearest to the note before it, `'` an octave higher, `,` an octave
 * lower; `r` is a rest; a length after a colon (1 2 4 8 16 32, dotted with `.`, of a triplet with `t`) holds until another one is given. The first
 * note is taken nearest to `near`, a MIDI number; `length` in ticks holds at first. Bar lines are passed over. Codes `line.none`, `line.word` (with the word and its number) and `phrase.many`.
 *
 * @example readLine("1 b3:4 1'", A, 45, 480).value.map((n) => n.midi) // [45,48,57]
 */
export function readLine(text: string, key: Key, near: number, length: number): Result<Tune> {
  const words = text.split(/[\s|]+/).filter((word) => word !== '');
  if (!words.length) return refuse('line.none', 'Write at least one degree, such as 1 ♭3 4 ♭5 4 ♭3 1.');
  if (words.length > PHRASE_LIMITS.notes)
    return refuse(
      'phrase.many',
      `This has ${words.length} notes; a phrase has at most ${PHRASE_LIMITS.notes}.`,
    );
  const notes: TuneNote[] = [];
  let at = near;
  let ticks = length;
  for (const [i, word] of words.entries()) {
    const [, what, marks = '', part, as] = WORD.exec(word) ?? [];
    const degree = what && what !== 'r' ? parseDegree(what) : null;
    if (!what || (degree && !degree.ok))
      return refuse(
        'line.word',
        `Word ${i + 1}, “${word}”, is not understood: write a degree such as ♭3, or r for a rest; then ' or , for an octave; then a length such as :8, :8. or :8t.`,
      );
    const value = WRITTEN.find((it) => it.part === part)?.id;
    if (value) ticks = ticksIn({ value, as: as === '.' ? 'dotted' : as === 't' ? 'triplet' : 'plain' });
    if (!Number.isInteger(ticks) || ticks < PHRASE_LIMITS.length[0])
      return refuse('line.word', `Word ${i + 1}, “${word}”: this length is too short to be written.`);
    if (!degree?.ok) {
      notes.push({ midi: null, string: null, length: ticks });
      continue;
    }
    const pc = mod(pitchClass(key.root) + degreeHalfSteps(degree.value), 12);
    at = nearest(at, pc) + 12 * (marks.split("'").length - marks.split(',').length);
    notes.push({ midi: at, string: null, length: ticks });
  }
  return ok(notes);
}

/**
 * The degree of a pitch as it is written: that of the scale, else by half steps above the root.
 *
 * @example degreeSaid(A, 51) // "b5"
 */
export function degreeSaid({ root, scale }: Key, midi: number): string {
  const degree = degreeIndex({ root, scale }, midi);
  return degree >= 0 ? degreeName(scale.degrees[degree]!) : chromaticName(midi - pitchClass(root));
}

/**
 * A tune as a line of degrees, which `readLine` reads again from its first pitch; lengths that are tied cannot be written in it: null.
 *
 * @example lineOf([{ midi: 45, length: 480 }, { midi: 57, length: 960 }], A) // "1:8 1':4"
 */
export function lineOf(tune: Tune, key: Key): string | null {
  let at: number | null = null;
  let ticks = 0;
  const words: string[] = [];
  for (const { midi, length } of tune) {
    const it = lengthOf(length);
    if (!it) return null;
    const { part } = WRITTEN.find(({ id }) => id === it.value)!;
    const said =
      length === ticks ? '' : `:${part}${it.as === 'dotted' ? '.' : it.as === 'triplet' ? 't' : ''}`;
    ticks = length;
    if (midi === null) {
      words.push(`r${said}`);
      continue;
    }
    const octaves: number = at === null ? 0 : (midi - nearest(at, midi)) / 12;
    at = midi;
    words.push(
      `${pretty(degreeSaid(key, midi))}${(octaves > 0 ? "'" : ',').repeat(Math.abs(octaves))}${said}`,
    );
  }
  return words.join(' ');
}
