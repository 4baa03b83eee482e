import { namesOfPosition, type NumberingSchool, pretty } from '@crow-ladder/core';
import { FINGERING_SCHOOLS, moveTo, type Fingering, tablature } from '@crow-ladder/core/run';
import { positionSource } from '@crow-ladder/core/sources';
import { layersOf, type Link, type Mark, type NeckLook } from '@crow-ladder/picture';
import { memo, useMemo } from 'react';
import { useKnown } from '../../app/known.ts';
import { type PanelProps } from '../../task/task.ts';
import { figureOf } from '../../model/figure.ts';
import { knownId, knownPositions } from '../../model/known.ts';
import { marksOf } from '../../model/marks.ts';
import { type Model, played } from '../../model/model.ts';
import { moveWord } from '../../model/wording.ts';
import { Drawing } from '../../ui/neck/Drawing.tsx';
import { still } from '../../ui/neck/source.ts';
import { DIRECTIONS } from '../../ui/labels.ts';
import { Picked } from '../../ui/Picked.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { Hands } from './Hands.tsx';
import { type ShapeParams, WAYS } from './params.ts';
import { ShapeFacts } from './ShapeFacts.tsx';
import { NOTHING, risingFingering, shownFingering } from './shown.ts';

const inside = (m: Mark): boolean => m.kind !== 'outside' && m.kind !== 'outsideRoot';
/** Length of a close-up in user units, on a wide and on a narrow screen, and the fewest frets that it shows. */
const LONG = { wide: 620, narrow: 400 } as const;
const FEWEST_FRETS = 6;

/** A repeat is told by the name above; what other schools call the position need not say it again. */
const OCTAVE = /, (an octave|\w+ octaves) up$/;

/** What other schools call the position. */
function otherNames(titles: Readonly<Record<NumberingSchool, string>>, shown: string): readonly string[] {
  const bare = (title: string): string => title.replace(OCTAVE, '');
  const said = [
    `${bare(titles.minorRoot)} from the minor root`,
    `${bare(titles.majorRoot)} from the major root`,
    bare(titles.degree),
    bare(titles.mode),
    titles.roman,
  ];
  return [...new Set(said.map(pretty).filter((t) => !t.startsWith(bare(shown))))];
}

/** The frets of a position and one on either side, with room for words between the strings. */
function closeLook({ front, neck }: Model, look: NeckLook): NeckLook {
  const { lowFret, highFret } = front!.position;
  const low = Math.max(0, lowFret - 1);
  const high = Math.min(neck.frets, Math.max(highFret + 1, low + FEWEST_FRETS));
  return {
    ...look,
    vertical: false,
    zoom: [Math.max(0, Math.min(low, high - FEWEST_FRETS)), high],
    even: true,
    roomy: true,
    long: look.vertical ? LONG.narrow : LONG.wide,
  };
}

/** Along a string the hand's moves are drawn; what it does at a string change shows in the fingers. */
const moveLinks = ({ steps }: Fingering): readonly Link[] =>
  steps.flatMap(({ spot }, i): Link[] => {
    const from = steps[i - 1]?.spot;
    const word = moveWord(moveTo(steps, i));
    return word && from?.string === spot.string ? [{ from, to: spot, kind: 'move', label: word }] : [];
  });

/** The school of basses is compared where the scale is as long as theirs, in mm, or where it is the player's own. */
const BASS_SCHOOL = 'oneTwoFour';
const LONG_MM = 720;

const STRUCK = [
  { id: 'picked', name: 'every note picked' },
  { id: 'slurred', name: 'with hammer-ons and pull-offs' },
] as const;
const FINGERINGS = Array.from({ length: WAYS }, (_, i) => ({
  id: String(i),
  name: `${['easiest', 'second', 'third'][i]!} way`,
}));

/** The chosen position large, with its fingers and everything that can be said about its shape. */
export const CloseUp = memo(function CloseUp({
  model,
  settings,
  look,
  params,
  onParams,
}: PanelProps<ShapeParams>) {
  const { front, neck, key, state, positions } = model;
  const { down, way, slurred } = params;
  const [known, sayKnown] = useKnown();
  const asked = params.school ?? model.hand.school;
  const schools = useMemo(
    () =>
      FINGERING_SCHOOLS.filter(
        ({ id }) => id !== BASS_SCHOOL || asked === id || neck.scaleLength > LONG_MM,
      ).map((s) => {
        const source = front && positionSource(neck, front.position, { ...model.hand, school: s.id });
        return { ...s, result: source ? (down ? source.down() : source.up) : NOTHING };
      }),
    [front, down, neck, model.hand, asked],
  );
  const shown = shownFingering(model, params);
  const source = useMemo(() => {
    if (!front) return null;
    const asLabels = { labels: 'finger', rootsOnly: false, colours: settings.colours } as const;
    return still({
      figure: figureOf(state.instrument, model.accidentals, closeLook(model, look)),
      layers: layersOf({
        marks: marksOf(model, asLabels, () => risingFingering(model, params)).filter(inside),
        links: moveLinks(shown),
      }),
    });
  }, [model, front, state, look, shown, params, settings.colours]);
  if (!front || !source || !positions.ok) return null;
  const { position } = front;
  const name = model.names()[position.index]!;
  const titles = namesOfPosition(positions.value, key, position.index, state.layout);
  const isKnown = knownPositions(model, known).includes(position);
  const put = (part: Partial<ShapeParams>): void => onParams({ ...params, ...part });
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence
        acts={
          <Switch on={isKnown} onChange={(on) => sayKnown(knownId(model, position), on)}>
            You know this shape
          </Switch>
        }
      >
        Play it with{' '}
        <Picked
          name="Fingers"
          weight="first"
          then=","
          value={asked}
          options={schools}
          onPick={(school) => put({ school })}
        />{' '}
        <Picked
          name="Direction"
          then=","
          value={down ? 'down' : 'up'}
          options={DIRECTIONS}
          onPick={(to) => put({ down: to === 'down' })}
        />{' '}
        <Picked
          name="How the notes are struck"
          then=","
          value={slurred ? 'slurred' : 'picked'}
          options={STRUCK}
          onPick={(to) => put({ slurred: to === 'slurred' })}
        />{' '}
        the{' '}
        <Picked
          name="Which fingering"
          then="."
          value={String(way)}
          options={FINGERINGS}
          onPick={(to) => put({ way: Number(to) })}
        />
      </TaskSentence>
      <div className="grid *:min-w-0 gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,7fr)_minmax(0,6fr)]">
        <div className="flex flex-col gap-3">
          <Drawing source={source} name={`${name} close up, with fingers`} />
          <Hands
            schools={schools.map((s) => (s.id === asked ? { ...s, result: shown } : s))}
            chosen={asked}
          />
          <Tablature
            name={`Tablature of ${name}`}
            text={tablature(played(shown, slurred ? 'slurred' : 'picked'), neck, {
              accidentals: model.accidentals,
            })}
          />
        </div>
        <ShapeFacts
          model={model}
          settings={settings}
          known={known}
          position={position}
          positions={positions.value}
          fingering={shown}
          otherwise={otherNames(titles, name)}
        />
      </div>
    </div>
  );
});
