import { type Settings } from '@crow-ladder/contract';
import {
  finger, fingerings, FINGERING_SCHOOLS, type FingeringSchool, namesOfPosition, type NumberingSchool, pretty,
} from '@crow-ladder/core'; // prettier-ignore
import { Check } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { type NeckLink } from '../../ui/neck/Links.tsx';
import { type NeckMark } from '../../ui/neck/Mark.ts';
import { toggled } from '../../app/settings.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { Hands } from './Hands.tsx';
import { moveWord } from './lesson.ts';
import { known, knownId, marksOf, type Model } from './model.ts';
import { ShapeFacts } from './ShapeFacts.tsx';

interface CloseUpProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly change: (part: Partial<Settings>) => void;
  readonly look: NeckLook;
}

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
  return said.map(pretty).filter((t) => !t.startsWith(shown));
}

/** The chosen position large, with its fingers and everything that can be said about its shape. */
export const CloseUp = memo(function CloseUp({ model, settings, change, look }: CloseUpProps) {
  const [school, setSchool] = useState<FingeringSchool | null>(null);
  const [down, setDown] = useState(false);
  const [way, setWay] = useState(0);
  const { front, neck, key, state, positions } = model;
  const closeLook = useMemo((): NeckLook | null => {
    if (!front) return null;
    const low = Math.max(0, front.lowFret - 1);
    const high = Math.min(neck.frets, Math.max(front.highFret + 1, low + 6));
    return {
      ...look,
      vertical: false,
      zoom: [Math.max(0, Math.min(low, high - 6)), high],
      even: true,
      long: look.vertical ? 400 : 620,
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
  if (!front || !closeLook || !positions.ok) return null;
  const asked = school ?? settings.fingering;
  const ways = way ? fingerings(neck, run, { school: asked, spanMm: settings.spanMm }, WAYS) : [];
  const shown = ways[way % ways.length] ?? schools.find((s) => s.id === asked)!.result;
  const notes = down ? [...shown.notes].reverse() : shown.notes;
  const marks = marksOf(
    { ...model, fingering: () => ({ ...shown, notes }) },
    { labels: 'finger', rootsOnly: false, colours: settings.colours },
  ).filter(inside);
  const titles = namesOfPosition(positions.value, key, front.index);
  const isKnown = known(model, settings).includes(front);
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
            onClick={() => change({ known: toggled(settings.known, knownId(model, front)) })}
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
        <Hands schools={schools} chosen={asked} onChoose={setSchool} />
        <div className="mt-2 flex flex-wrap gap-1.5">
          <button type="button" className="button" aria-pressed={down} onClick={() => setDown(!down)}>
            Going down
          </button>
          <button type="button" className="button" onClick={() => setWay((way + 1) % WAYS)}>
            {way ? `Way ${way + 1} of ${WAYS}` : 'Another way'}
          </button>
        </div>
      </div>
      <ShapeFacts model={model} settings={settings} front={front} positions={positions.value} notes={notes} />
    </div>
  );
});
