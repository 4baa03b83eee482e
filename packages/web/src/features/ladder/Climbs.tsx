import { usualOf } from '@crow-ladder/core/kinds';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { type Direction, STRIKES } from '@crow-ladder/core/run';
import { geometryOf } from '@crow-ladder/picture';
import { type PanelProps } from '../../task/task.ts';
import { readOf } from '../../model/way.ts';
import { Way } from '../../ui/Way.tsx';
import { figureOf } from '../../model/figure.ts';
import { KindPicked } from '../../ui/KindPicked.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { climbingOf } from '../../model/climbing.ts';
import { alteredSaid } from '../../model/altered.ts';
import { climbed, turned } from './climbed.ts';
import { type LadderParams } from './params.ts';
import { Stairs } from './Stairs.tsx';

const DIRECTIONS: readonly { readonly id: Direction; readonly name: string }[] = [
  { id: 'up', name: 'up' },
  { id: 'down', name: 'down' },
  { id: 'both', name: 'up and back' },
];

/** Which climb, which way, and how its notes are struck. */
export function ClimbWords({ model, params, onParams }: PanelProps<LadderParams>) {
  const climbing = climbingOf(model);
  const now = climbed(model, params);
  if (!climbing || !now) return '.';
  const { climb, spec, played } = now;
  const put = (part: Partial<LadderParams>): void => onParams({ ...params, step: 0, ...part });
  const allPicked =
    played.ok && params.touch !== 'picked' && played.value.run.every((s) => s.arrive === 'pick');
  return (
    <>
      {' '}
      <KindPicked
        name="Way along the neck"
        then=","
        said={climb.said(spec)}
        kinds={CLIMBS.all()}
        now={climb}
        spec={spec}
        strings={model.neck.open.length}
        degrees={model.degrees}
        onKind={(it) => put({ climb: usualOf(it, climbing) })}
        onSpec={(next) => put({ climb: next })}
      />{' '}
      <Picked
        name="Direction"
        then=","
        value={params.direction}
        options={DIRECTIONS}
        asksMore={(direction) => direction === 'both'}
        onPick={(direction) => put({ direction })}
      >
        {params.direction === 'both' && (
          <Switch on={params.topTwice} onChange={(topTwice) => put({ topTwice })}>
            Strike the top note twice
          </Switch>
        )}
      </Picked>{' '}
      <Picked
        name="How the notes are struck"
        then="."
        value={params.touch}
        options={STRIKES}
        onPick={(touch) => put({ touch })}
      />
      {allPicked && (
        <span className="font-marks text-sm text-soft">
          {' '}
          No string has two notes in a row here, so every note is picked.
        </span>
      )}
    </>
  );
}

/** The climbs: ways along the neck from the position in front, shown, read and stepped through. */
export function Climbs({ model, params, onParams, look }: PanelProps<LadderParams>) {
  const now = climbed(model, params);
  if (!now) return null;
  const { climb, spec, played } = now;
  if (!played.ok) return <p className="error">{played.error.message}</p>;
  const geometry = geometryOf(figureOf(model.state.instrument, model.accidentals, look));
  return (
    <>
      {!geometry.vertical && (
        <Stairs steps={played.value.fingering.steps} geometry={geometry} step={params.step} />
      )}
      {alteredSaid(model, spec).map((text) => (
        <p key={text}>{text}</p>
      ))}
      <Way
        read={readOf(model, played.value.fingering, played.value.run)}
        step={params.step}
        onStep={(step) => onParams({ ...params, step })}
        name={climb.name}
        otherwise={params.direction === 'both' ? null : turned(model, spec, params)}
      />
    </>
  );
}
