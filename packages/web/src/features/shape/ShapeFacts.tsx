import { type Settings } from '@crow-ladder/contract';
import {
  capital,
  comparePositions,
  describeComparison,
  fretText,
  jogsIn,
  lawsOf,
  list,
  placeId,
  plural,
  type Position,
  pretty,
  rootsIn,
  shapeOf,
  stepSignature,
  spotSaid,
} from '@crow-ladder/core';
import { sharedSpots } from '@crow-ladder/core/ladder';
import { type Fingering, repeatedGroups, widestHand, signatureOf } from '@crow-ladder/core/run';
import { shapeSteps } from '@crow-ladder/core/sources';
import { type ReactNode } from 'react';
import { knownPositions } from '../../model/known.ts';
import { alteredSaid } from '../../model/altered.ts';
import { type Model } from '../../model/model.ts';
import { FINGERS, handSaid } from '../../model/wording.ts';
import { Explained } from '../../ui/Explained.tsx';
import { WORDS } from '../../ui/words.ts';

/** What of the words here is explained on asking. */
const TERMS = ['signature', 'steps', 'jog', 'seam', 'law', 'reach', 'relay'] as const;

/** How many relations to other positions are told. */
const RELATIONS = 3;

/** How the position in front relates to others of another shape, those that lie nearest first. */
function relations({ names, neck }: Model, front: Position, others: readonly Position[]): readonly string[] {
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

/** What the position in front shares with the ones beside it. */
function seamsOf({ names }: Model, front: Position, positions: readonly Position[]): readonly string[] {
  const beside = [
    [positions[front.index - 1], 'below'],
    [positions[front.index + 1], 'above'],
  ] as const;
  return beside.flatMap(([p, side]) => {
    const shared = p ? sharedSpots(front, p).length : 0;
    return p && shared ? [`${plural(shared, 'note')} shared with ${names()[p.index]} ${side}.`] : [];
  });
}

interface ShapeFactsProps {
  readonly model: Model;
  readonly settings: Settings;
  /** Names of the shapes that the player knows. */
  readonly known: readonly string[];
  readonly position: Position;
  readonly positions: readonly Position[];
  /** The fingering shown, in the order of play. */
  readonly fingering: Fingering;
  /** What other schools call it. */
  readonly otherwise: readonly string[];
}

/** A subject and what is said about it; left out where there is nothing to say. */
function Fact({ name, said, children }: { name: ReactNode; said: readonly string[]; children?: ReactNode }) {
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
  return `${capital(text)}.`;
};

/** Everything that can be said about the shape of a position. */
export function ShapeFacts({
  model,
  settings,
  known,
  position,
  positions,
  fingering,
  otherwise,
}: ShapeFactsProps) {
  const { neck, scale, state } = model;
  const steps = shapeSteps(neck, position, fingering.steps);
  const roots = [...new Map(rootsIn(position).map((s) => [placeId(s), s])).values()].map((s) => {
    const finger = steps.find(({ spot }) => spot === s)?.finger;
    return finger ? `${spotSaid(s)} (${FINGERS[finger]})` : spotSaid(s);
  });
  const repeats = repeatedGroups(steps).map((r) => `${r.fingers} on strings ${list(r.strings)}`);
  const besideKnown = relations(model, position, knownPositions(model, known));
  const below = besideKnown.length ? [] : positions.filter((p) => p.index < position.index);
  const widest = widestHand(neck, fingering.steps);
  return (
    <div className="flex flex-col gap-3">
      <dl className="grid content-start gap-2">
        <div>
          <dt className="text-sm font-semibold text-soft">
            {position.groups.some((g) => g.leg > 0)
              ? 'Frets, leg by leg of the relay'
              : 'Frets, string by string from the lowest'}
          </dt>
          <dd className="font-reading text-lg" data-testid="frets">
            {fretText(position).replace(/\//g, ' / ')}
          </dd>
        </div>
        <Fact name="Signature: fingers, then steps" said={[signatureOf(steps)]}>
          <dd className="text-soft">{stepSignature(position)}</dd>
        </Fact>
        <Fact name="Roots" said={[roots.length ? sentence(roots) : 'This position holds no root.']} />
        <Fact name="Altered notes" said={alteredSaid(model, state.layout)} />
        <Fact
          name="Reach"
          said={[
            widest
              ? sentence([`${handSaid(widest)}; your span is ${settings.spanMm} mm`])
              : 'Open strings alone: the hand presses nothing.',
          ]}
        >
          {widest && widest.mm > settings.spanMm && (
            <dd className="mt-1 border-l-4 border-line pl-2 text-sm">
              A wide stretch: begin it higher up the neck and keep the wrist straight. Stop at pain, numbness
              or tingling; if it stays, see a physician or hand therapist.
            </dd>
          )}
        </Fact>
      </dl>
      <details>
        <summary className="cursor-pointer text-sm font-semibold text-soft">More about this shape</summary>
        <dl className="mt-2 grid content-start gap-2">
          <Fact name="The pattern repeats" said={repeats.length ? [`${repeats.join('; ')}.`] : []} />
          <Fact name="Jogs" said={jogsIn(neck, position).map((j) => j.why)} />
          <Fact name="Seams" said={seamsOf(model, position, positions)} />
          <Fact name="Laws" said={lawsOf(scale, state.layout).map(pretty)} />
          <Fact name="Compared with the positions you know" said={besideKnown} />
          <Fact name="Compared with the positions below" said={relations(model, position, below)} />
          <Fact name="Called elsewhere" said={otherwise.length ? [otherwise.join(' · ')] : []} />
        </dl>
        <p className="mt-2 flex flex-wrap gap-x-3 text-sm">
          {TERMS.map((term) => (
            <Explained key={term} term={term}>
              {WORDS[term].word}
            </Explained>
          ))}
        </p>
      </details>
    </div>
  );
}
