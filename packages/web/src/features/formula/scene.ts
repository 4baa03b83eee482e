import { pitchAt, type Place, placeId, plural, type Spot, stepName, spotSaid } from '@crow-ladder/core';
import { moveTo } from '@crow-ladder/core/run';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { colourOf, labelOf, type Shown } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { FINGERS, moveWord, spotNamed } from '../../model/wording.ts';
import { counted, type LaidOut, laidOut, miscounted } from './laidOut.ts';
import { type FormulaParams } from './params.ts';

type Drawn = Pick<Layers, 'marks' | 'links'>;

/** Steps that miss the octave, from the root along its string, with the octave where it should have landed. */
function miscountLayers(model: Model, steps: readonly number[]): Drawn {
  const { neck, state } = model;
  const { string } = state.at;
  const frets = counted(model, steps);
  const landed = frets.at(-1)!;
  const octave = state.at.fret + 12;
  const at = (fret: number): Place => ({ string, fret });
  const mark = (fret: number, kind: Mark['kind'], told: string): Mark => {
    const name = pitchName(model, pitchAt(neck, string, fret));
    return {
      string,
      fret,
      kind,
      label: name,
      name: () => `${spotNamed({ string, fret })}: ${name}, ${told}`,
    };
  };
  const by = landed - octave;
  const kindOf = (i: number): Mark['kind'] =>
    i === 0 ? 'root' : i === frets.length - 1 ? 'altered' : 'note';
  return {
    marks: [
      ...frets.map((fret, i) =>
        mark(fret, kindOf(i), i === steps.length ? 'where the steps land' : `note ${i + 1}`),
      ),
      ...(frets.includes(octave) ? [] : [mark(octave, 'outsideRoot', 'the octave')]),
    ].filter((m) => m.fret <= neck.frets),
    links: [
      ...steps.map((step, i): Link => ({
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

/** The marks and links of a formula that was laid out. */
export function laidOutLayers(model: Model, laid: LaidOut, shown: Shown): Drawn {
  const { notes, degrees, state } = model;
  const { rising, rest, moved, fingering } = laid;
  const { steps } = fingering;
  const ghost = (spot: Spot, told: string): Mark => ({
    ...spot,
    kind: spot.degree === 0 ? 'outsideRoot' : 'outside',
    label: labelOf(model, shown.labels, spot),
    name: () => `${spotNamed(spot)}: ${notes[spot.degree]}, ${told}`,
  });
  const marks = steps.map(({ spot: s, finger }, i): Mark => {
    const note = rising.indexOf(s);
    return {
      string: s.string,
      fret: s.fret,
      kind: s.degree === 0 ? 'root' : 'note',
      label: labelOf(model, shown.labels, { ...s, order: i, finger }),
      name: () =>
        `${spotNamed(s)}: ${notes[s.degree]}, note ${i + 1}, ${s.degree ? `degree ${degrees[s.degree]}` : 'the root'}, ${FINGERS[finger]}`,
      ...colourOf(model, shown, s.degree),
      // From stage to stage the same note is followed; another key or scale is another run.
      ...(note < 0
        ? {}
        : { follows: `${state.key.root} ${state.key.scale} ${state.at.string} ${rising[0]!.midi} ${note}` }),
    };
  });
  const taken = new Set(marks.map(placeId));
  const free = (p: Place): boolean => !taken.has(placeId(p));
  return {
    marks: [
      ...marks,
      ...rest.filter(free).map((s) => ghost(s, 'below the first note')),
      ...moved
        .filter((m) => free(m.from))
        .map(({ from, to }) =>
          ghost({ ...from, degree: to.degree, midi: to.midi }, `moved to ${spotSaid(to)}`),
        ),
    ],
    links: [
      ...moved.map(({ from, to }): Link => ({ from, to, kind: 'travel', label: '' })),
      ...steps.flatMap(({ spot: to }, i): Link[] => {
        const from = steps[i - 1]?.spot;
        if (from?.string !== to.string) return [];
        const word = moveWord(moveTo(steps, i));
        const step = stepName(Math.abs(to.midi - from.midi));
        return [{ from, to, kind: word ? 'move' : 'step', label: word ? `${step} ${word}` : step }];
      }),
    ],
  };
}

/** What the neck shows of a formula: where it is laid out, or where its steps miss the octave. */
export function scene(model: Model, params: FormulaParams, shown: Shown): Drawn {
  const miscount = miscounted(model, params);
  const drawn = miscount
    ? miscountLayers(model, miscount)
    : laidOutLayers(model, laidOut(model, params), shown);
  if (!shown.rootsOnly) return drawn;
  return { marks: drawn.marks.filter((m) => m.kind === 'root' || m.kind === 'outsideRoot'), links: [] };
}
