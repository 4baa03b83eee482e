import { type Settings } from '@crow-ladder/contract';
import {
  finger, type Fingering, type LayoutSpec, layOut, type Move, parseFormula, pitchAt, type PlacedSpot, plural, type Position, spotsOf, stepName, stepsOf,
  stepText,
} from '@crow-ladder/core'; // prettier-ignore
import { type NeckLink, type Place } from '../../ui/neck/Links.tsx';
import { type NeckMark } from '../../ui/neck/Mark.ts';
import { colourOf, labelOf, type Model, pitchName, type Shown } from './model.ts';

/** Where a formula is laid out, in the order in which players learn it. */
export const STAGES = [
  { id: 'single', name: 'on one string' },
  { id: 'pair', name: 'on two strings' },
  { id: 'inPosition', name: 'in position' },
] as const;
export type Stage = (typeof STAGES)[number]['id'];

/** What the player looks at on the way from formula to neck. */
export interface Lesson {
  readonly stage: Stage;
  /** Degree index of the first note. */
  readonly start: number;
  readonly down: boolean;
  /** A formula being typed, while the chart has the scale that it was typed over. */
  readonly typed: { readonly text: string; readonly scale: string } | null;
}

export const FIRST_LESSON: Lesson = { stage: 'single', start: 0, down: false, typed: null };

/** The formula as it stands in its field. */
export const formulaOf = ({ scale }: Model, { typed }: Lesson): string =>
  typed?.scale === scale.id ? typed.text : stepText(scale);

/** Typed steps, in half steps, that miss the octave: on one string they are shown instead of the scale. */
export function miscounted(model: Model, lesson: Lesson): readonly number[] | null {
  if (!lesson.typed || lesson.stage !== 'single') return null;
  const text = formulaOf(model, lesson);
  const read = parseFormula(text);
  return !read.ok && read.error.code === 'formula.octave' ? stepsOf(text) : null;
}

/** A formula laid out on the neck. */
export interface Taught {
  /** Rising; the first octave comes first. */
  readonly rising: readonly PlacedSpot[];
  /** In the order of play. */
  readonly run: readonly PlacedSpot[];
  readonly hand: Fingering;
  /** Spots of the place that the run leaves out: below its first note. */
  readonly rest: readonly PlacedSpot[];
  /** Where the notes of the one-string run have gone, note by note. */
  readonly moved: readonly { readonly from: Place; readonly to: PlacedSpot }[];
  readonly problem: string | null;
}

const NO_ROOM = 'There is no room for an octave from this note; choose a lower fret.';

/** The place of a stage that lies nearest to the root spot, or why there is none. */
function placeOf({ neck, key, state }: Model, stage: Stage, start: number): Position | string {
  const specs: Readonly<Record<Stage, LayoutSpec>> = {
    single: { kind: 'single', string: state.string },
    pair: { kind: 'pair', lower: Math.max(state.string, 2) },
    inPosition: { kind: 'inPosition', school: 'index', every: true },
  };
  const found = layOut(neck, key, specs[stage]);
  if (!found.ok) return found.error.message;
  // A position is found by its hand, where a stretch weighs as much as two frets; the others by their first note.
  const far = (p: Position): number =>
    Math.abs((p.indexFret ?? p.spots[0]!.fret) - state.fret) + 2 * (p.stretches ?? 0);
  return (
    found.value
      .filter((p) => p.indexFret !== undefined || p.start === start)
      .sort((a, b) => far(a) - far(b) || a.index - b.index)[0] ?? NO_ROOM
  );
}

/** On one string the run goes on downward below its first note, to the open string. */
function below(model: Model, stage: Stage, first: PlacedSpot | undefined): readonly PlacedSpot[] {
  if (stage !== 'single' || !first) return [];
  return spotsOf({ ...model.neck, rising: [first.string] }, model.key).filter((s) => s.fret < first.fret);
}

/** Lays a formula out for a lesson. */
export function teach(model: Model, lesson: Lesson, settings: Settings): Taught {
  const { neck, scale, state } = model;
  const start = Math.min(lesson.start, scale.degrees.length - 1);
  const place = placeOf(model, lesson.stage, start);
  const spots = typeof place === 'string' ? [] : place.spots;
  const first = spots.findIndex((s) => s.degree === start);
  const rising = spots.slice(Math.max(0, first));
  const run = lesson.down ? [...below(model, lesson.stage, rising[0]), ...rising].reverse() : rising;
  const open = neck.open[state.string - 1]!;
  const octave = rising.slice(0, scale.degrees.length + 1);
  return {
    rising,
    run,
    hand: finger(neck, run, { school: settings.fingering, spanMm: settings.spanMm }),
    rest: spots.slice(0, Math.max(0, first)),
    moved: octave.flatMap((to) => {
      const fret = to.midi - open;
      return to.string === state.string || fret < 0 || fret > neck.frets
        ? []
        : [{ from: { string: state.string, fret }, to }];
    }),
    problem: typeof place === 'string' ? place : null,
  };
}

/** What the hand does between two notes, in a word; empty where it stays. */
export const moveWord = (move: Move): string => (move === 'slide' ? 'slide' : move === 'stay' ? '' : 'shift');

/** The frets that steps lead over, from the root spot up its string. */
export function counted(model: Model, steps: readonly number[]): readonly number[] {
  return steps.reduce<number[]>((so, step) => [...so, so.at(-1)! + step], [model.state.fret]);
}

export interface Picture {
  readonly marks: readonly NeckMark[];
  readonly links: readonly NeckLink[];
}

/** Steps that miss the octave, from the root along its string, with the octave where it should have landed. */
function pictureOfMiscount(model: Model, steps: readonly number[]): Picture {
  const { neck, state } = model;
  const { string } = state;
  const frets = counted(model, steps);
  const landed = frets.at(-1)!;
  const octave = state.fret + 12;
  const at = (fret: number): Place => ({ string, fret });
  const mark = (fret: number, kind: NeckMark['kind'], told: string): NeckMark => {
    const name = pitchName(model, pitchAt(neck, string, fret));
    return { string, fret, kind, label: name, name: () => `String ${string} fret ${fret}, ${name}, ${told}` };
  };
  const by = landed - octave;
  const kindOf = (i: number): NeckMark['kind'] =>
    i === 0 ? 'root' : i === frets.length - 1 ? 'altered' : 'note';
  return {
    marks: [
      ...frets.map((fret, i) =>
        mark(fret, kindOf(i), i === steps.length ? 'where the steps land' : `note ${i + 1}`),
      ),
      ...(frets.includes(octave) ? [] : [mark(octave, 'outsideRoot', 'the octave')]),
    ].filter((m) => m.fret <= neck.frets),
    links: [
      ...steps.map((step, i): NeckLink => ({
        from: at(frets[i]!),
        to: at(frets[i + 1]!),
        kind: 'step',
        label: stepName(step),
      })),
      {
        from: at(landed),
        to: at(octave),
        kind: 'miss',
        label: `${plural(Math.abs(by), 'fret')} ${by < 0 ? 'short' : 'over'}`,
      },
    ],
  };
}

/** The marks and links of a lesson on the neck. */
export function picture(model: Model, lesson: Lesson, taught: Taught, shown: Shown): Picture {
  const whole = pictureOf(model, lesson, taught, shown);
  if (!shown.rootsOnly) return whole;
  return { marks: whole.marks.filter((m) => m.kind === 'root' || m.kind === 'outsideRoot'), links: [] };
}

function pictureOf(model: Model, lesson: Lesson, taught: Taught, shown: Shown): Picture {
  const miscount = miscounted(model, lesson);
  if (miscount) return pictureOfMiscount(model, miscount);
  const { notes, degrees, state } = model;
  const { run, rising, rest, moved, hand } = taught;
  const ghost = (spot: Place & Pick<PlacedSpot, 'degree' | 'midi'>, told: string): NeckMark => ({
    ...spot,
    kind: spot.degree === 0 ? 'outsideRoot' : 'outside',
    label: labelOf(model, shown.labels, spot),
    name: () => `String ${spot.string} fret ${spot.fret}, ${notes[spot.degree]}, ${told}`,
  });
  const marks = run.map((s, i): NeckMark => {
    const note = rising.indexOf(s);
    return {
      string: s.string,
      fret: s.fret,
      kind: s.degree === 0 ? 'root' : 'note',
      label: labelOf(model, shown.labels, { ...s, order: i, finger: hand.notes[i]!.finger }),
      name: () =>
        `String ${s.string} fret ${s.fret}, note ${i + 1}, ${notes[s.degree]}, degree ${degrees[s.degree]}`,
      ...colourOf(model, shown, s.degree),
      // From stage to stage the same note is followed; another key or scale is another run.
      ...(note < 0
        ? {}
        : { follows: `${state.root} ${state.scale} ${state.string} ${rising[0]!.midi} ${note}` }),
    };
  });
  const taken = new Set(marks.map((m) => m.string * 100 + m.fret));
  const free = (p: Place): boolean => !taken.has(p.string * 100 + p.fret);
  return {
    marks: [
      ...marks,
      ...rest.filter(free).map((s) => ghost(s, 'below the first note')),
      ...moved
        .filter((m) => free(m.from))
        .map(({ from, to }) =>
          ghost(
            { ...from, degree: to.degree, midi: to.midi },
            `moved to string ${to.string} fret ${to.fret}`,
          ),
        ),
    ],
    links: [
      ...moved.map(({ from, to }): NeckLink => ({ from, to, kind: 'travel', label: '' })),
      ...run.slice(1).flatMap((to, i): NeckLink[] => {
        const from = run[i]!;
        if (from.string !== to.string) return [];
        const word = moveWord(hand.notes[i + 1]!.move);
        const step = stepName(Math.abs(to.midi - from.midi));
        return [{ from, to, kind: word ? 'move' : 'step', label: word ? `${step} ${word}` : step }];
      }),
    ],
  };
}
