import { drillTitle } from '@crow-ladder/core/drills';
import { type NotesPerBeat, TEMPO } from '@crow-ladder/core/run';
import { memo, type ReactNode } from 'react';
import { KindPicked } from '../../ui/KindPicked.tsx';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { type RunRead } from '../../ui/Way.tsx';
import { CHANGES } from '../../model/progression.ts';
import { asUsual, type Drilling, drillsOn } from './drilled.ts';
import { materialsOf, phraseOf } from './material.ts';
import { More } from './Options.tsx';
import { NOTE_LENGTHS } from '../../ui/labels.ts';
import { ANEW, type PartProps } from './parts.ts';
import { type DroneState } from './useDrone.ts';
import { LadderOfTempos, useTaps } from './Tempos.tsx';

interface SentenceProps extends PartProps {
  readonly drilling: Drilling;
  readonly drone: DroneState;
  /** The drill in words; null where it cannot be played. */
  readonly read: RunRead | null;
  /** What the page listens to, in a word or two, and what chooses it. */
  readonly hears: string | null;
  readonly hearing: ReactNode;
  /** Keeps what is played as a phrase of the chart. */
  readonly onKeep: () => void;
}

/** What is practised, in a sentence whose parts are chosen; drawn anew only where something of it changes. */
export const Sentence = memo(function Sentence(props: SentenceProps) {
  const {
    model,
    params,
    put,
    tempo,
    onTempo,
    drilling: { drill, spec },
  } = props;
  const materials = materialsOf(model, params.on);
  const on = materials.some((m) => m.id === params.on) ? params.on : materials[0]!.id;
  const tap = useTaps(onTempo);
  return (
    <>
      Play{' '}
      <KindPicked
        name="Drill"
        weight="first"
        said={drillTitle(drill, spec)}
        kinds={drillsOn(on, phraseOf(model, on) !== null)}
        now={drill}
        spec={spec}
        strings={model.neck.open.length}
        degrees={model.degrees}
        onKind={(it) => put({ ...ANEW, tempo, drill: asUsual(model, on, it, params.perBeat) })}
        onSpec={(next) => put({ ...ANEW, tempo, drill: next })}
      />{' '}
      on{' '}
      <Picked
        name="Practised on"
        then=", in"
        value={on}
        options={materials}
        // What a line through chords is played by alone is not kept for other things.
        onPick={(to) => {
          const asMade = phraseOf(model, to) ?? phraseOf(model, on);
          put({ ...ANEW, tempo, on: to, drill: on === CHANGES ? params.drill : asMade ? null : spec });
        }}
      />{' '}
      <Picked
        name="Notes a beat"
        value={String(params.perBeat) as (typeof NOTE_LENGTHS)[number]['id']}
        options={NOTE_LENGTHS}
        onPick={(id) => put({ ...ANEW, part: params.part, tempo, perBeat: Number(id) as NotesPerBeat })}
      />{' '}
      at{' '}
      <NumberWord
        name="Tempo"
        label="Quarter notes a minute"
        then="."
        value={tempo}
        min={TEMPO.least}
        max={TEMPO.most}
        onValue={onTempo}
        said={params.ladder && params.ladder.to > tempo ? `${tempo}, up to ${params.ladder.to}` : tempo}
      >
        <button type="button" className="button self-start" onClick={tap}>
          Tap it
        </button>
        <LadderOfTempos params={params} put={put} />
      </NumberWord>{' '}
      <More {...props} />
    </>
  );
});
