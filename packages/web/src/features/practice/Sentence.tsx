import { DRILLS } from '@crow-ladder/core/drills';
import { type NotesPerBeat, TEMPO } from '@crow-ladder/core/run';
import { type PanelProps } from '../../task/task.ts';
import { Choice, Whole } from '../../ui/fields.tsx';
import { asUsual, type Drilling } from './drilled.ts';
import { materialsOf } from './material.ts';
import { NOTE_LENGTHS, type PracticeParams } from './params.ts';

export interface PartProps extends Pick<PanelProps<PracticeParams>, 'model' | 'params'> {
  /** Changes some of what is practised. */
  readonly put: (part: Partial<PracticeParams>) => void;
  /** The tempo that it is played at. */
  readonly tempo: number;
  readonly onTempo: (tempo: number) => void;
}

/** Another thing to practise: it begins at its first note, and at a tempo of its own. */
export const ANEW = { part: null, step: 0, setFor: null, rung: { clean: 0, best: null } } as const;

interface SentenceProps extends PartProps {
  readonly drilling: Drilling;
}

/** What is practised, in a sentence whose parts are chosen. */
export function Sentence({ model, params, put, tempo, onTempo, drilling: { drill, spec } }: SentenceProps) {
  const { joined, options } = drill;
  const option = joined && options[joined.option];
  const materials = materialsOf(model);
  const on = materials.some((m) => m.id === params.on) ? params.on : materials[0]!.id;
  return (
    <p className="flex flex-wrap items-center gap-x-2 gap-y-1 font-reading text-lg">
      <Choice
        aria-label="Drill"
        className="!w-auto font-semibold"
        value={drill.kind}
        options={DRILLS.all().map(({ kind, name }) => ({ id: kind, name }))}
        onChange={(kind) => put({ ...ANEW, tempo, drill: asUsual(model, on, DRILLS.of(kind)!) })}
      />
      {joined && option?.type === 'choice' && (
        <>
          <span>{joined.by}</span>
          <Choice
            aria-label={option.label}
            className="!w-auto max-w-56 font-semibold"
            value={String(spec[joined.option] as string | number)}
            options={option.values.map(({ id, name }) => ({ id: String(id), name }))}
            onChange={(id) =>
              put({
                ...ANEW,
                tempo,
                drill: { ...spec, [joined.option]: option.values.find((v) => String(v.id) === id)!.id },
              })
            }
          />
        </>
      )}
      <span>on</span>
      <Choice
        aria-label="Practised on"
        className="!w-auto max-w-72 font-semibold"
        value={on}
        options={materials}
        onChange={(to) => put({ ...ANEW, tempo, on: to, drill: spec })}
      />
      <span>in</span>
      <Choice
        aria-label="Notes a beat"
        className="!w-auto font-semibold"
        value={String(params.perBeat) as (typeof NOTE_LENGTHS)[number]['id']}
        options={NOTE_LENGTHS}
        onChange={(id) => put({ ...ANEW, part: params.part, tempo, perBeat: Number(id) as NotesPerBeat })}
      />
      <span>at</span>
      <Whole
        aria-label="Tempo in quarter notes a minute"
        className="!w-24 font-semibold"
        value={tempo}
        min={TEMPO.least}
        max={TEMPO.most}
        onChange={onTempo}
      />
    </p>
  );
}
