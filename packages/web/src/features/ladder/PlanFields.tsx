import { WAYS, endFrom, endWord, type PlanAsked } from '@crow-ladder/contract';
import { useState } from 'react';
import { refOf, spotSaid } from '@crow-ladder/core';
import { type PlanEnd } from '@crow-ladder/core/plan';
import { type PanelProps } from '../../task/task.ts';
import { type Model } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { type LadderParams } from './params.ts';
import { limitsOf } from '../../model/planTask.ts';

const THERE = [
  { id: 'one', name: 'one way' },
  { id: 'back', name: 'there and back' },
] as const;
const REACHES = [
  { id: '0', name: 'as it comes' },
  { id: '3', name: 'one finger per fret' },
  { id: '4', name: 'with stretches' },
];

/** The ends that need no more said, by their words. */
const NOTES = [
  { id: 'lowest', name: 'the lowest note of the neck' },
  { id: 'highest', name: 'the highest note of the neck' },
];
const OCTAVES = [
  { id: 'o1', name: 'one octave up' },
  { id: 'o2', name: 'two octaves up' },
  { id: 'o3', name: 'three octaves up' },
  { id: 'o-1', name: 'one octave down' },
  { id: 'o-2', name: 'two octaves down' },
  { id: 'o-3', name: 'three octaves down' },
];
const FROM = NOTES;
const TO = [...OCTAVES, ...NOTES];
const PLACE = 'place';

/** Where a climb begins or ends: a note that can be named, a position of the ladder, or a place by string and fret. */
function End({
  label,
  model,
  ends,
  end,
  root,
  onEnd,
}: {
  label: string;
  model: Model;
  ends: typeof NOTES;
  end: PlanEnd;
  /** What the root is called here. */
  root: string;
  onEnd: (end: PlanEnd) => void;
}) {
  const { neck, positions, state } = model;
  const all = positions.ok ? positions.value : [];
  const names = model.names();
  const place = end.at === 'place' ? end.place : state.at;
  const options = [
    { id: 'root', name: root },
    ...ends,
    { id: PLACE, name: 'a place on the neck' },
    ...all.map((p, i) => ({ id: endWord({ at: 'position', ref: refOf(all, p) }), name: names[i]! })),
  ];
  const word = endWord(end);
  const gone = end.at === 'position' && !options.some((o) => o.id === word);
  const put = (part: Partial<typeof place>): void => onEnd({ at: 'place', place: { ...place, ...part } });
  return (
    <div className="flex flex-col gap-2">
      <Field label={label}>
        <Choice
          value={end.at === 'place' ? PLACE : word}
          options={gone ? [...options, { id: word, name: 'a position that is gone' }] : options}
          onChange={(v) => (v === PLACE ? put({}) : onEnd(endFrom(v)!))}
        />
      </Field>
      {end.at === 'place' && (
        <div className="grid grid-cols-2 gap-2">
          <Field label={`${label} string`}>
            <Whole
              value={place.string}
              min={1}
              max={neck.open.length}
              onChange={(string) => put({ string })}
            />
          </Field>
          <Field label={`${label} fret`}>
            <Whole value={place.fret} min={0} max={neck.frets} onChange={(fret) => put({ fret })} />
          </Field>
        </div>
      )}
    </div>
  );
}

/** What a climb is planned for, as fields. */
export function PlanFields({ model, params, onParams }: PanelProps<LadderParams>) {
  const { plan } = params;
  const put = (part: Partial<PlanAsked>): void =>
    onParams({ ...params, plan: { ...plan, ...part }, pick: 0, step: 0 });
  const many = model.neck.open.length;
  // Open at first where there is one, then as the player leaves it.
  const [limited] = useState(() => Object.keys(limitsOf(model, plan)).length > 0);
  const strings = plan.strings ?? [1, many];
  const onStrings = (a: number, b: number): void => put({ strings: [Math.min(a, b), Math.max(a, b)] });
  return (
    <div className="flex flex-col gap-3">
      <div className="grid grid-cols-2 items-start gap-3">
        <End
          label="From"
          model={model}
          ends={FROM}
          end={plan.from}
          root={`the root, ${spotSaid(model.state.at)}`}
          onEnd={(from) => put({ from })}
        />
        <End label="To" model={model} ends={TO} end={plan.to} root="the root" onEnd={(to) => put({ to })} />
        <Field label="Direction">
          <Choice
            value={plan.back ? 'back' : 'one'}
            options={THERE}
            onChange={(v) => put({ back: v === 'back' })}
          />
        </Field>
        <Field label="Tempo, played in eighths">
          <Whole value={plan.tempo} min={30} max={300} onChange={(tempo) => put({ tempo })} />
        </Field>
      </div>
      <details open={limited} className="flex flex-col gap-3">
        <summary className="mb-3 cursor-pointer text-sm font-semibold">Limits</summary>
        <div className="grid grid-cols-2 items-start gap-3">
          <Field label="Hand">
            <Choice
              value={String(plan.reach)}
              options={REACHES}
              onChange={(v) => put({ reach: Number(v) })}
            />
          </Field>
          <Field label="Widest place of the hand in mm">
            <Whole value={plan.mm} none={0} min={1} max={200} onChange={(mm) => put({ mm })} />
          </Field>
          <Field label="Lowest string">
            <Whole
              value={Math.min(strings[1], many)}
              min={1}
              max={many}
              onChange={(n) => onStrings(strings[0], n)}
            />
          </Field>
          <Field label="Highest string">
            <Whole value={strings[0]} min={1} max={many} onChange={(n) => onStrings(n, strings[1])} />
          </Field>
          <Field label="Fewest notes on a string">
            <Whole value={plan.least} min={1} max={12} onChange={(least) => put({ least })} />
          </Field>
          <Field label="Most notes on a string">
            <Whole value={plan.most} none={0} min={1} max={12} onChange={(most) => put({ most })} />
          </Field>
          <Field label="Most shifts">
            <Whole value={plan.shifts} none={-1} min={0} max={99} onChange={(shifts) => put({ shifts })} />
          </Field>
        </div>
        <label className="mt-3 flex gap-2 text-sm">
          <input
            type="checkbox"
            checked={plan.closed ?? false}
            onChange={(e) => put({ closed: e.target.checked || undefined })}
          />
          No open strings
        </label>
        <fieldset className="mt-3">
          <legend className="text-sm font-semibold">Shifts allowed</legend>
          {WAYS.map(({ id, name }) => (
            <label key={id} className="mr-4 inline-flex gap-2 text-sm">
              <input
                type="checkbox"
                checked={plan.ways.includes(id)}
                onChange={(e) =>
                  put({
                    ways: WAYS.map((w) => w.id).filter((w) =>
                      w === id ? e.target.checked : plan.ways.includes(w),
                    ),
                  })
                }
              />
              {name}
            </label>
          ))}
        </fieldset>
      </details>
    </div>
  );
}
