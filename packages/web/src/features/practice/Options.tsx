import { numberWord, plural } from '@crow-ladder/core';
import { type Drill } from '@crow-ladder/core/drills';
import { type Option } from '@crow-ladder/core/kinds';
import {
  accentHome,
  betterStart,
  crossingsOf,
  PICKING_SCHOOLS,
  type Strike,
  STRIKES,
  type Stroke,
  STROKES,
  SWING,
} from '@crow-ladder/core/run';
import { type Model } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { BEATS, type Drilling, type PlayedDrill, strokesFor } from './drilled.ts';
import { type PracticeParams, READINGS, SAYINGS, SIZES, usualSize } from './params.ts';
import { ANEW, type PartProps } from './Sentence.tsx';

/** When the first note of a group comes home to the beat and to the bar. */
function accentSaid(group: number, perBeat: number): string | null {
  const home = accentHome(group, perBeat, BEATS);
  return (
    home &&
    `Groups of ${numberWord(group)} against ${numberWord(perBeat)} notes a beat: the first note of a group falls on a beat again after ${home.onBeat} notes, and on the first beat of a bar after ${home.onBar}.`
  );
}

const strokeName = (stroke: Stroke): string => STROKES.find(({ id }) => id === stroke)!.name;

/** How the strokes cross the strings. */
function strokesSaid(
  { neck }: Model,
  { run }: PlayedDrill,
  { school, begins }: Pick<PracticeParams, 'school' | 'begins'>,
): string {
  const { outside, inside, equal } = crossingsOf(neck, run, strokesFor(run, school, begins));
  const better = betterStart(neck, run, school);
  return [
    `${plural(outside, 'outside crossing')}, ${inside} inside${equal ? `, ${equal} between two equal strokes` : ''}, beginning with ${strokeName(school === 'beat' ? 'down' : begins)}.`,
    ...(better && better !== begins
      ? [`Beginning with ${strokeName(better)} leaves fewer of them inside.`]
      : []),
  ].join(' ');
}

/** How many notes are played without the pick, where some are; where all are to be picked, the hand slides to them. */
function slursSaid({ run }: PlayedDrill, touch: Strike): string | null {
  const slurred = run.filter((s) => s.arrive !== 'pick').length;
  const why = touch === 'picked' ? ': a finger slides on its string to the next place of the hand' : '';
  return slurred ? `${slurred} of ${plural(run.length, 'note')} without the pick${why}.` : null;
}

/** The options of a drill that do not stand in its sentence. */
const beside = ({ options, joined }: Drill): Readonly<Record<string, Option>> =>
  Object.fromEntries(Object.entries(options).filter(([name]) => name !== joined?.option));

interface OptionsProps extends PartProps {
  readonly drilling: Drilling;
}

/** Everything that can be chosen of a drill beside its sentence, and what follows from it. */
export function Options({ model, params, put, tempo, drilling: { drill, spec, played } }: OptionsProps) {
  const { perBeat, swing, school, begins, touch, accents, answer, say, choosing, reading } = params;
  const narrow = useNarrow();
  const accent = played.ok ? accentSaid(played.value.group, perBeat) : null;
  const slurs = played.ok ? slursSaid(played.value, touch) : null;
  return (
    <div className="flex flex-col gap-3">
      <p>Good for {drill.goodFor}.</p>
      <div className="grid grid-cols-2 items-end gap-3">
        <OptionFields
          key={drill.kind}
          options={beside(drill)}
          spec={spec}
          strings={model.neck.open.length}
          degrees={model.degrees}
          onSpec={(next) => put({ ...ANEW, tempo, drill: next })}
        />
        <Field label="How the notes are struck">
          <Choice value={touch} options={STRIKES} onChange={(to) => put({ touch: to, step: 0 })} />
        </Field>
        <Field label="Strokes">
          <Choice value={school} options={PICKING_SCHOOLS} onChange={(to) => put({ school: to })} />
        </Field>
        {school === 'strict' && (
          <Field label="The first stroke">
            <Choice value={begins} options={STROKES} onChange={(to) => put({ begins: to })} />
          </Field>
        )}
        {perBeat === 2 && (
          <Field label="Swing in per cent" hint="50 is straight, 67 is triplets.">
            <Whole value={swing} min={SWING.least} max={SWING.most} onChange={(to) => put({ swing: to })} />
          </Field>
        )}
        <Field label="Say of each note">
          <Choice
            value={say}
            options={SAYINGS}
            onChange={(to) => put(to === 'no' ? { say: to } : { ...ANEW, say: to, perBeat: 1, tempo })}
          />
        </Field>
        {say !== 'no' && (
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={choosing}
              onChange={(e) => put({ choosing: e.target.checked, step: 0 })}
            />{' '}
            choose it, without the clock
          </label>
        )}
        {played.ok && played.value.group > 1 && (
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={accents} onChange={(e) => put({ accents: e.target.checked })} />{' '}
            an accent on the first note of a group
          </label>
        )}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={answer}
            onChange={(e) => put({ answer: e.target.checked, part: null, step: 0 })}
          />{' '}
          two bars sound, two are free for an answer
        </label>
        <Field label="Read it as">
          <Choice value={reading} options={READINGS} onChange={(to) => put({ reading: to })} />
        </Field>
        <Field label="Read it from">
          <Choice
            value={params.size ?? usualSize(narrow)}
            options={SIZES}
            onChange={(to) => put({ size: to })}
          />
        </Field>
      </div>
      {slurs && <p className="text-sm">{slurs}</p>}
      {played.ok && <p className="text-sm">{strokesSaid(model, played.value, params)}</p>}
      {accent && <p className="text-sm">{accent}</p>}
    </div>
  );
}
