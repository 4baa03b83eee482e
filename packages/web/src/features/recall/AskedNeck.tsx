import { type Settings } from '@crow-ladder/contract';
import { degreeIndex, midiName, pitchAt, type Place, placeId, pretty, unisons } from '@crow-ladder/core';
import { type Card, type Ground, type Question, type Verdict } from '@crow-ladder/core/asking';
import { layersOf, type Mark } from '@crow-ladder/picture';
import { useMemo } from 'react';
import { figureOf, lookOf } from '../../model/figure.ts';
import { spotNamed } from '../../model/wording.ts';
import { useSceneSource } from '../../ui/neck/live.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';

interface AskedNeckProps {
  readonly card: Card;
  readonly ground: Ground;
  readonly question: Question;
  readonly ticked: readonly Place[];
  /** What the answer was worth, once it was judged for good. */
  readonly verdict: Verdict | null;
  readonly settings: Settings;
  readonly onTick: (place: Place) => void;
}

/** The marks of a question: what is given, what was ticked, and, once it was judged, what was missing and what was too much. */
function marksFor({
  ground: { neck, key, degrees },
  question,
  ticked,
  verdict,
}: Pick<AskedNeckProps, 'ground' | 'question' | 'ticked' | 'verdict'>) {
  const marks = new Map<number, Mark>();
  const put = (place: Place, kind: Mark['kind'], label: string, said: string): void => {
    const { string, fret } = place;
    marks.set(placeId(place), { string, fret, kind, label, name: () => `${spotNamed(place)}: ${said}` });
  };
  for (const place of ticked) put(place, 'note', '✓', 'ticked');
  // One that is given is where it begins; of several, all are another shape to look at.
  const isShape = question.given.length > 1;
  const degreeAt = ({ string, fret }: Place): string =>
    degrees[degreeIndex(key, pitchAt(neck, string, fret))] ?? '';
  if (isShape)
    for (const place of question.given)
      if (!marks.has(placeId(place))) put(place, 'outside', degreeAt(place), 'of the shape');
  for (const place of isShape ? [] : question.given)
    put(place, 'root', marks.has(placeId(place)) ? '✓' : '', 'given');
  if (verdict) {
    const { right } = question;
    for (const place of right.by === 'ticks' ? right.places : question.look)
      put(place, 'shared', '✓', 'right');
    for (const place of verdict.missing) put(place, 'was', '+', 'missing');
    for (const place of verdict.extra) put(place, 'altered', '×', 'too much');
  }
  return [...marks.values()];
}

/** The neck that a question is asked and answered on: it shows nothing but what it is told. */
export function AskedNeck({ card, ground, question, ticked, verdict, settings, onTick }: AskedNeckProps) {
  const narrow = useNarrow();
  const { neck, accidentals } = ground;
  const marks = useMemo(
    () => marksFor({ ground, question, ticked, verdict }),
    [ground, question, ticked, verdict],
  );
  const [from, to] = question.frets;
  const scene = useMemo(
    () => ({
      figure: figureOf(card.instrument, accidentals, lookOf(card.instrument, settings, [from, to], narrow)),
      layers: layersOf({ marks }),
    }),
    [card, accidentals, settings, from, to, narrow, marks],
  );
  const source = useSceneSource(scene);
  const named = (place: Place): string => {
    const mark = marks.find((it) => placeId(it) === placeId(place));
    return mark ? mark.name() : `${spotNamed(place)}: empty`;
  };
  const asks = question.right.by === 'ticks' && !verdict;
  return (
    <Neck
      source={source}
      name={`Neck, ${neck.open.length} strings, frets ${from} to ${to}`}
      root={question.given[0] ?? { string: neck.rising[0]!, fret: from }}
      onPick={(place) => asks && onTick(place)}
      picks={
        asks
          ? { word: 'Tick it', said: 'A click or Enter ticks a spot, and unticks it.', atOnce: true }
          : { word: 'Look' }
      }
      say={(place) => ({
        head: named(place),
        more: () => (verdict ? pretty(midiName(pitchAt(neck, place.string, place.fret))) : ''),
      })}
      echoes={(place) => (verdict ? unisons(neck, place.string, place.fret) : [])}
    />
  );
}
