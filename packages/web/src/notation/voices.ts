import { accidental } from '@crow-ladder/core';
import { type Bar, type Clef, type ScoreItem } from '@crow-ladder/core/notation';
import { type Arrive, bendSign, type Run, type Step } from '@crow-ladder/core/run';
import {
  Accidental,
  Beam,
  Bend,
  Dot,
  GhostNote,
  Note,
  type Stave,
  type StemmableNote,
  StaveNote,
  TabNote,
  Tuplet,
  Vibrato,
  Voice,
} from 'vexflow/bravura';

/** A bar as the notation library has it: every item of it on the staff, and in the tablature. */
export interface BarNotes {
  readonly staff: readonly StaveNote[];
  /** Rests, and notes that are tied to the one before, are not written in tablature. */
  readonly tab: readonly (TabNote | GhostNote)[];
  readonly beams: readonly Beam[];
  readonly tuplets: readonly Tuplet[];
}

/** Where rests stand: on the middle line, the third one from below. */
const MIDDLE = 3;
const REST: Readonly<Record<Clef, string>> = { treble: 'b/4', bass: 'd/3' };

function staffNote({ pitch, shift, value, dotted }: ScoreItem, clef: Clef): StaveNote {
  const key = pitch
    ? `${pitch.note.letter}${accidental(pitch.note.alteration)}/${pitch.octave - shift}`
    : REST[clef];
  const note = new StaveNote({
    keys: [key],
    duration: `${value}${dotted ? 'd' : ''}${pitch ? '' : 'r'}`,
    clef,
    auto_stem: true,
  });
  if (dotted) Dot.buildAndAttach([note]);
  return note;
}

/** The face of fret numbers, and how wide one of their digits is in it, in px. */
const FRET = { font: '600 10.5pt Marks', digit: 8.5 } as const;
export const fretWidth = (fret: number): number => FRET.digit * String(fret).length;

/** A fret number on its string, as wide as its digits are: nothing is measured on the page, which would be laid out anew each time. */
class FretNote extends TabNote {
  override updateWidth(): void {
    super.updateWidth();
    this.render_options.font = FRET.font;
    for (const [i, glyph] of this.glyphPropsArr.entries())
      glyph.getWidth = () => fretWidth(Number(this.positions[i]!.fret));
    this.width = Math.max(...this.glyphPropsArr.map((glyph) => glyph.getWidth()));
  }
  override setStave(stave: Stave): this {
    Note.prototype.setStave.call(this, stave);
    this.setYs(this.positions.map(({ str }) => stave.getYForLine(Number(str) - 1)));
    return this;
  }
}

/** How a fret is bent and held, over the strings. */
function holding(note: TabNote, { bend, vibrato }: Step): TabNote {
  if (bend) {
    const { UP, DOWN } = Bend;
    const text = `${bendSign(bend)}${bend.how === 'slowly' ? ' slow' : ''}`;
    const way = [{ type: UP, text }, ...(bend.released ? [{ type: DOWN, text: '' }] : [])];
    note.addModifier(new Bend('', false, way));
  }
  return vibrato ? note.addModifier(new Vibrato()) : note;
}

function tabNote({ step, first, value, dotted }: ScoreItem, run: Run): TabNote | GhostNote {
  const duration = `${value}${dotted ? 'd' : ''}`;
  if (step === null || !first) return new GhostNote({ duration });
  const { string, fret } = run[step]!.spot;
  return holding(new FretNote({ positions: [{ str: string, fret }], duration }), run[step]!);
}

/** Whether the number of a tuplet stands above: by the stems, as slurs are on the other side. */
export const isAbove = (notes: readonly Note[]): boolean =>
  (notes.find((n) => !n.isRest()) as StemmableNote | undefined)?.getStemDirection() !== -1;

/** The notes of a bar, with their beams and tuplets, and the accidentals that they need under a signature. */
export function barNotes(bar: Bar, run: Run, clef: Clef, beats: number, signature: string): BarNotes {
  const staff = bar.items.map((item) => staffNote(item, clef));
  const tab = bar.items.map((item) => tabNote(item, run));
  const beams = bar.beams.map(
    (places) =>
      new Beam(
        places.map((i) => staff[i]!),
        true,
      ),
  );
  const tupled = (notes: readonly Note[]): readonly Tuplet[] =>
    bar.tuplets.map(({ from, to, actual, normal }) => {
      const whole = bar.beams.some((b) => b[0] === from && b.at(-1) === to);
      return new Tuplet(notes.slice(from, to + 1), {
        num_notes: actual,
        notes_occupied: normal,
        bracketed: !whole,
        ratioed: false,
        location: isAbove(notes.slice(from, to + 1)) ? Tuplet.LOCATION_TOP : Tuplet.LOCATION_BOTTOM,
      });
    });
  const tuplets = tupled(staff);
  // Tuplets bring rests to the height of the notes beside them.
  for (const note of staff) if (note.isRest()) note.setKeyLine(0, MIDDLE);
  tupled(tab);
  Accidental.applyAccidentals([voiceOf(staff, beats)], signature);
  return { staff, tab, beams, tuplets };
}

/** Notes as one voice of so many beats; throws where they do not fill it. */
export const voiceOf = (notes: readonly Note[], beats: number): Voice =>
  new Voice({ num_beats: beats, beat_value: 4 }).addTickables([...notes]);

/** The sign over what joins two notes of the tablature, as in the plain one. */
export const SLURS: Readonly<Partial<Record<Arrive, string>>> = { hammer: 'h', pull: 'p', slide: 's' };
