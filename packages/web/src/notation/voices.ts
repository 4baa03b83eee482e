import { accidental } from '@crow-ladder/core';
import { type Bar, type ScoreItem } from '@crow-ladder/core/notation';
import { type Arrive, type Run } from '@crow-ladder/core/run';
import {
  Accidental,
  Beam,
  Dot,
  GhostNote,
  type Note,
  StaveNote,
  TabNote,
  Tuplet,
  Voice,
} from 'vexflow/bravura';

export type Clef = 'treble' | 'bass';

/** A bar as the notation library has it: every item of it on the staff, and in the tablature. */
export interface BarNotes {
  readonly staff: readonly StaveNote[];
  /** Rests, and notes that are tied to the one before, are not written in tablature. */
  readonly tab: readonly (TabNote | GhostNote)[];
  readonly beams: readonly Beam[];
  readonly tuplets: readonly Tuplet[];
}

/** Where rests stand: on the middle line. */
const REST: Readonly<Record<Clef, string>> = { treble: 'b/4', bass: 'd/3' };

function staffNote({ pitch, value, dotted }: ScoreItem, clef: Clef): StaveNote {
  const key = pitch ? `${pitch.note.letter}${accidental(pitch.note.alteration)}/${pitch.octave}` : REST[clef];
  const note = new StaveNote({
    keys: [key],
    duration: `${value}${dotted ? 'd' : ''}${pitch ? '' : 'r'}`,
    clef,
    auto_stem: true,
  });
  if (dotted) Dot.buildAndAttach([note]);
  return note;
}

function tabNote({ step, first, value, dotted }: ScoreItem, run: Run): TabNote | GhostNote {
  const duration = `${value}${dotted ? 'd' : ''}`;
  if (step === null || !first) return new GhostNote({ duration });
  const { string, fret } = run[step]!.spot;
  return new TabNote({ positions: [{ str: string, fret }], duration });
}

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
      });
    });
  const tuplets = tupled(staff);
  tupled(tab);
  Accidental.applyAccidentals([voiceOf(staff, beats)], signature);
  return { staff, tab, beams, tuplets };
}

/** Notes as one voice of so many beats; throws where they do not fill it. */
export const voiceOf = (notes: readonly Note[], beats: number): Voice =>
  new Voice({ num_beats: beats, beat_value: 4 }).addTickables([...notes]);

/** The sign over what joins two notes of the tablature, as in the plain one. */
export const SLURS: Readonly<Partial<Record<Arrive, string>>> = { hammer: 'h', pull: 'p', slide: 's' };
