import { type Settings } from '@crow-ladder/contract';
import {
  comparePositions, describeComparison, finger, fingerings, FINGERING_SCHOOLS, type FingeringSchool, fretText, halfStepLaw, jogsIn, list, namesOfPosition, plural,
  type NumberingSchool, type Position, pretty, repeatedGroups, repeatLaw, rootsIn, sharedSpots, stepSignature, wideStepLaw,
} from '@crow-ladder/core'; // prettier-ignore
import { Check } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { type NeckLink } from '../../ui/neck/Links.tsx';
import { type NeckMark } from '../../ui/neck/Mark.ts';
import { toggled } from '../../app/settings.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { moveWord } from './lesson.ts';
import { known, knownId, marksOf, type Model } from './model.ts';

interface CloseUpProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly change: (part: Partial<Settings>) => Promise<void>;
  readonly look: NeckLook;
}

/** How many relations to other positions are told. */
const RELATIONS = 3;
/** How many fingerings that really differ are offered. */
const WAYS = 3;

const inside = (m: NeckMark): boolean => m.kind !== 'outside' && m.kind !== 'outsideRoot';

/** What other schools call the position. */
function otherNames(titles: Readonly<Record<NumberingSchool, string>>, shown: string): readonly string[] {
  const said = [
    `${titles.minorRoot} from the minor root`,
    `${titles.majorRoot} from the major root`,
    titles.degree,
    titles.mode,
    titles.roman,
  ];
  return said.map(pretty).filter((t) => t !== shown);
}

/** How the position in front relates to others, those that lie nearest first. */
function relations({ front, names, neck }: Model, others: readonly Position[]): readonly string[] {
  if (!front) return [];
  const far = (p: Position): number => Math.abs(p.lowFret - front.lowFret);
  return [...others]
    .filter((p) => p !== front)
    .sort((a, b) => far(a) - far(b))
    .map((p) => {
      const name = names()[p.index]!;
      const alike = describeComparison(comparePositions(p, front), name, neck.open.length);
      const shared = sharedSpots(front, p).length;
      return alike || (shared ? `${plural(shared, 'note')} of it lie in ${name} too.` : '');
    })
    .filter((text) => text !== '')
    .slice(0, RELATIONS);
}

/** The chosen position large, with its fingers and everything that can be said about its shape. */
export const CloseUp = memo(function CloseUp({ model, settings, change, look }: CloseUpProps) {
  const [school, setSchool] = useState<FingeringSchool | null>(null);
  const [down, setDown] = useState(false);
  const [way, setWay] = useState(0);
  const { front, neck, key, scale, state } = model;
  const closeLook = useMemo((): NeckLook | null => {
    if (!front) return null;
    const low = Math.max(0, front.lowFret - 1);
    const high = Math.min(neck.frets, Math.max(front.highFret + 1, low + 6));
    return {
      ...look,
      vertical: false,
      zoom: [Math.max(0, Math.min(low, high - 6)), high],
      even: true,
      long: 620,
    };
  }, [front, look, neck]);
  const run = useMemo(
    () => (down ? [...(front?.spots ?? [])].reverse() : (front?.spots ?? [])),
    [front, down],
  );
  const schools = useMemo(
    () =>
      FINGERING_SCHOOLS.map((s) => ({
        ...s,
        result: finger(neck, run, { school: s.id, spanMm: settings.spanMm }),
      })),
    [run, neck, settings.spanMm],
  );
  if (!front || !closeLook || !model.positions.ok) return null;
  const asked = school ?? settings.fingering;
  const ways = way ? fingerings(neck, run, { school: asked, spanMm: settings.spanMm }, WAYS) : [];
  const shown = ways[way % ways.length] ?? schools.find((s) => s.id === asked)!.result;
  const notes = down ? [...shown.notes].reverse() : shown.notes;
  const marks = marksOf(
    { ...model, fingering: () => ({ ...shown, notes }) },
    { labels: 'finger', rootsOnly: false, colours: settings.colours },
  ).filter(inside);
  const roots = rootsIn(front).map((s) => {
    const at = front.spots.indexOf(s);
    const f = notes[at]?.finger;
    return `string ${s.string} fret ${s.fret}${f ? ` (finger ${f})` : ' (open)'}`;
  });
  const jogs = jogsIn(neck, front);
  const repeats = repeatedGroups(front);
  const widest = [...front.groups].sort((a, b) => b.reachMm - a.reachMm)[0]!;
  const strained = widest.reachMm > settings.spanMm || front.reach > 4;
  const laws = [wideStepLaw(scale), halfStepLaw(scale), repeatLaw(scale, state.layout)].filter(
    (l) => l !== null,
  );
  const titles = namesOfPosition(model.positions.value, key, front.index);
  const knows = known(model, settings);
  const isKnown = knows.includes(front);
  const knownOthers = relations(model, knows);
  const related = knownOthers.length
    ? knownOthers
    : relations(
        model,
        model.positions.value.filter((p) => p.index < front.index),
      );
  // Along a string the hand's moves are drawn; what it does at a string change shows in the fingers.
  const moves = run.slice(1).flatMap((to, i): NeckLink[] => {
    const word = moveWord(shown.notes[i + 1]!.move);
    return word && run[i]!.string === to.string ? [{ from: run[i]!, to, kind: 'move', label: word }] : [];
  });
  return (
    <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,7fr)_minmax(0,6fr)]">
      <div>
        <div className="flex flex-wrap items-center justify-between gap-x-4">
          <h2 className="text-xl font-semibold">{model.names()[front.index]}</h2>
          <button
            type="button"
            className="button"
            aria-pressed={isKnown}
            onClick={() => void change({ known: toggled(settings.known, knownId(model, front)) })}
          >
            <Check size={16} aria-hidden /> {isKnown ? 'You know this shape' : 'I know this shape'}
          </button>
        </div>
        <p className="text-sm text-soft">{otherNames(titles, model.names()[front.index]!).join(' · ')}</p>
        <Neck
          instrument={state.instrument}
          look={closeLook}
          marks={marks}
          links={moves}
          accidentals={model.accidentals}
          name={`${model.names()[front.index]} close up, with fingers`}
        />
        <div className="mt-2 flex flex-wrap gap-1.5" role="group" aria-label="Fingering">
          {schools.map((s) => (
            <button
              key={s.id}
              type="button"
              className="button"
              aria-pressed={s.id === asked}
              onClick={() => setSchool(s.id)}
            >
              {s.name}
              <span className="text-sm opacity-80">
                {plural(s.result.shifts, 'move')}, {s.result.stretches}{' '}
                {s.result.stretches === 1 ? 'stretch' : 'stretches'}
              </span>
            </button>
          ))}
          <button type="button" className="button" aria-pressed={down} onClick={() => setDown(!down)}>
            Going down
          </button>
          <button type="button" className="button" onClick={() => setWay((way + 1) % WAYS)}>
            {way ? `Way ${way + 1} of ${WAYS}` : 'Another way'}
          </button>
        </div>
      </div>
      <dl className="grid content-start gap-3 [&_dd]:ml-0 [&_dt]:text-sm [&_dt]:font-semibold [&_dt]:text-soft">
        <div>
          <dt>Frets, string by string from the lowest</dt>
          <dd className="font-reading text-lg" data-testid="frets">
            {fretText(front).replace(/\//g, ' / ')}
          </dd>
        </div>
        <div>
          <dt>Signature: fingers, then steps</dt>
          <dd>{front.signature}</dd>
          <dd className="text-soft">{stepSignature(front)}</dd>
        </div>
        <div>
          <dt>Roots</dt>
          <dd>
            {roots.length
              ? `${roots[0]![0]!.toUpperCase()}${list(roots).slice(1)}.`
              : 'This position holds no root.'}
          </dd>
        </div>
        {repeats.length > 0 && (
          <div>
            <dt>The pattern repeats</dt>
            <dd>{repeats.map((r) => `${r.fingers} on strings ${list(r.strings)}`).join('; ')}.</dd>
          </div>
        )}
        {jogs.length > 0 && (
          <div>
            <dt>Jogs</dt>
            {jogs.map((j) => (
              <dd key={j.from}>{j.why}</dd>
            ))}
          </div>
        )}
        {laws.length > 0 && (
          <div>
            <dt>The law of it</dt>
            {laws.map((l) => (
              <dd key={l}>{pretty(l)}</dd>
            ))}
          </div>
        )}
        {related.length > 0 && (
          <div>
            <dt>{knownOthers.length ? 'Beside the positions you know' : 'Beside those below it'}</dt>
            {related.map((l) => (
              <dd key={l}>{l}</dd>
            ))}
          </div>
        )}
        <div>
          <dt>Reach</dt>
          <dd>
            {front.reach} frets at most; widest on string {widest.string}: {Math.round(widest.reachMm)} mm
            against your {settings.spanMm} mm.
          </dd>
          {strained && (
            <dd className="mt-1 border-l-4 border-accent pl-2 text-sm">
              A wide stretch: begin it higher up the neck and keep the wrist straight. Stop at pain, numbness
              or tingling; if it stays, see a physician or hand therapist.
            </dd>
          )}
        </div>
      </dl>
    </div>
  );
});
