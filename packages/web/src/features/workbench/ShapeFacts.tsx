import { type Settings } from '@crow-ladder/contract';
import {
  comparePositions, describeComparison, type Fingering, fretText, halfStepLaw, jogsIn, list, plural, type Position, pretty, repeatedGroups,
  repeatLaw, rootsIn, shapeOf, sharedSpots, stepSignature, wideStepLaw,
} from '@crow-ladder/core'; // prettier-ignore
import { type ReactNode } from 'react';
import { known, type Model } from './model.ts';

/** How many relations to other positions are told. */
const RELATIONS = 3;

/** How the position in front relates to others of another shape, those that lie nearest first. */
function relations({ front, names, neck }: Model, others: readonly Position[]): readonly string[] {
  if (!front) return [];
  const far = (p: Position): number => Math.abs(p.lowFret - front.lowFret);
  return [...others]
    .filter((p) => shapeOf(p) !== shapeOf(front))
    .sort((a, b) => far(a) - far(b))
    .map((p) => {
      const name = names()[p.index]!;
      const alike = describeComparison(comparePositions(p, front), name, neck.open.length);
      const shared = sharedSpots(front, p).length;
      return (
        alike ||
        (shared ? `${plural(shared, 'note')} of it ${shared === 1 ? 'lies' : 'lie'} in ${name} too.` : '')
      );
    })
    .filter((text) => text !== '')
    .slice(0, RELATIONS);
}

interface ShapeFactsProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly front: Position;
  readonly positions: readonly Position[];
  /** The fingering shown, in the order of the position's spots. */
  readonly notes: Fingering['notes'];
}

/** A subject and what is said about it; left out where there is nothing to say. */
function Fact({ name, said, children }: { name: string; said: readonly string[]; children?: ReactNode }) {
  if (!said.length) return null;
  return (
    <div>
      <dt className="text-sm font-semibold text-soft">{name}</dt>
      {said.map((line) => (
        <dd key={line}>{line}</dd>
      ))}
      {children}
    </div>
  );
}

const sentence = (words: readonly string[]): string => {
  const text = list(words);
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
};

/** Everything that can be said about the shape of a position. */
export function ShapeFacts({ model, settings, front, positions, notes }: ShapeFactsProps) {
  const { neck, scale, state } = model;
  const roots = rootsIn(front).map((s) => {
    const finger = notes[front.spots.indexOf(s)]?.finger;
    return `string ${s.string} fret ${s.fret} ${finger ? `(finger ${finger})` : '(open)'}`;
  });
  const repeats = repeatedGroups(front).map((r) => `${r.fingers} on strings ${list(r.strings)}`);
  const laws = [wideStepLaw(scale), halfStepLaw(scale), repeatLaw(scale, state.layout)];
  const besideKnown = relations(model, known(model, settings));
  const below = besideKnown.length ? [] : positions.filter((p) => p.index < front.index);
  const widest = [...front.groups].sort((a, b) => b.reachMm - a.reachMm)[0]!;
  return (
    <dl className="grid content-start gap-3">
      <div>
        <dt className="text-sm font-semibold text-soft">Frets, string by string from the lowest</dt>
        <dd className="font-reading text-lg" data-testid="frets">
          {fretText(front).replace(/\//g, ' / ')}
        </dd>
      </div>
      <Fact name="Signature: fingers, then steps" said={[front.signature]}>
        <dd className="text-soft">{stepSignature(front)}</dd>
      </Fact>
      <Fact name="Roots" said={[roots.length ? sentence(roots) : 'This position holds no root.']} />
      <Fact name="The pattern repeats" said={repeats.length ? [`${repeats.join('; ')}.`] : []} />
      <Fact name="Jogs" said={jogsIn(neck, front).map((j) => j.why)} />
      <Fact name="The law of it" said={laws.flatMap((l) => (l === null ? [] : pretty(l)))} />
      <Fact name="Beside the positions you know" said={besideKnown} />
      <Fact name="Beside those below it" said={relations(model, below)} />
      <Fact
        name="Reach"
        said={[
          `${plural(front.reach, 'fret')} at most; widest on string ${widest.string}: ${Math.round(widest.reachMm)} mm against your ${settings.spanMm} mm.`,
        ]}
      >
        {(widest.reachMm > settings.spanMm || front.reach > 4) && (
          <dd className="mt-1 border-l-4 border-accent pl-2 text-sm">
            A wide stretch: begin it higher up the neck and keep the wrist straight. Stop at pain, numbness or
            tingling; if it stays, see a physician or hand therapist.
          </dd>
        )}
      </Fact>
    </dl>
  );
}
