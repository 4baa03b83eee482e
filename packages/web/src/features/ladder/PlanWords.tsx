import { WAYS, endFrom, endWord, type PlanAsked } from '@crow-ladder/contract';
import { list, refOf, spotSaid } from '@crow-ladder/core';
import { type LimitName, type Limits, type PlanEnd } from '@crow-ladder/core/plan';
import { type PanelProps } from '../../task/task.ts';
import { type Model } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { type Pickable } from '../../ui/Picks.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Word } from '../../ui/Word.tsx';
import { type LadderParams } from './params.ts';
import { limitsOf } from '../../model/planTask.ts';
import { LIMIT_SAID } from './planning.ts';

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
const PLACE = 'place';

/** Where a climb begins or ends: a note that can be named, a position of the ladder, or a place by string and fret. */
function End({
  name,
  then,
  model,
  ends,
  end,
  root,
  said,
  onEnd,
}: {
  name: string;
  then?: string;
  model: Model;
  ends: readonly Pickable[];
  end: PlanEnd;
  /** What the root is called here. */
  root: string;
  /** How the sentence says what is chosen. */
  said: (chosen: Pickable) => string;
  onEnd: (end: PlanEnd) => void;
}) {
  const { neck, positions, state } = model;
  const all = positions.ok ? positions.value : [];
  const names = model.names();
  const place = end.at === 'place' ? end.place : state.at;
  const options: readonly Pickable[] = [
    { id: 'root', name: root },
    ...ends,
    { id: PLACE, name: end.at === 'place' ? spotSaid(place) : 'a place on the neck' },
    ...all.map((p, i) => ({ id: endWord({ at: 'position', ref: refOf(all, p) }), name: names[i]! })),
  ];
  const word = end.at === 'place' ? PLACE : endWord(end);
  const chosen = options.find((o) => o.id === word);
  const put = (part: Partial<typeof place>): void => onEnd({ at: 'place', place: { ...place, ...part } });
  return (
    <Picked
      name={name}
      {...(then !== undefined && { then })}
      said={chosen ? said(chosen) : 'a position that is gone'}
      value={chosen?.id ?? null}
      options={options}
      asksMore={(id) => id === PLACE}
      onPick={(id) => (id === PLACE ? put({}) : onEnd(endFrom(id)!))}
    >
      {end.at === 'place' && (
        <div className="grid grid-cols-2 gap-2">
          <Field label={`${name}: string`}>
            <Whole
              value={place.string}
              min={1}
              max={neck.open.length}
              onChange={(string) => put({ string })}
            />
          </Field>
          <Field label={`${name}: fret`}>
            <Whole value={place.fret} min={0} max={neck.frets} onChange={(fret) => put({ fret })} />
          </Field>
        </div>
      )}
    </Picked>
  );
}

const isOctaves = (id: string): boolean => OCTAVES.some((o) => o.id === id);

/** What a climb is planned for. */
export function PlanWords({ model, params, onParams }: PanelProps<LadderParams>) {
  const { plan } = params;
  const put = (part: Partial<PlanAsked>): void =>
    onParams({ ...params, plan: { ...plan, ...part }, pick: 0, step: 0 });
  const many = model.neck.open.length;
  const strings = plan.strings ?? [1, many];
  const onStrings = (a: number, b: number): void => put({ strings: [Math.min(a, b), Math.max(a, b)] });
  const limited = limitsSaid(limitsOf(model, plan));
  return (
    <>
      {' '}
      from{' '}
      <End
        name="From"
        model={model}
        ends={NOTES}
        end={plan.from}
        root={`the root, ${spotSaid(model.state.at)}`}
        said={({ id, name }) => (id === 'root' ? 'the root' : name)}
        onEnd={(from) => put({ from })}
      />{' '}
      <End
        name="To"
        then=","
        model={model}
        ends={[...OCTAVES, ...NOTES]}
        end={plan.to}
        root="the root"
        said={({ id, name }) => (isOctaves(id) ? name : `to ${name}`)}
        onEnd={(to) => put({ to })}
      />{' '}
      <Picked
        name="Direction"
        then=", at"
        value={plan.back ? 'back' : 'one'}
        options={THERE}
        onPick={(v) => put({ back: v === 'back' })}
      />{' '}
      <NumberWord
        name="Tempo"
        label="Tempo, played in eighths"
        then="."
        value={plan.tempo}
        min={30}
        max={300}
        onValue={(tempo) => put({ tempo })}
      />{' '}
      <Word
        name="Limits"
        weight="seldom"
        body={
          <div className="flex flex-col gap-3">
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
                <Whole
                  value={plan.shifts}
                  none={-1}
                  min={0}
                  max={99}
                  onChange={(shifts) => put({ shifts })}
                />
              </Field>
            </div>
            <Switch on={plan.closed ?? false} onChange={(on) => put({ closed: on || undefined })}>
              No open strings
            </Switch>
            <div role="group" aria-label="Shifts allowed" className="flex flex-col gap-1">
              <p className="text-sm font-semibold">Shifts allowed</p>
              {WAYS.map(({ id, name }) => (
                <Switch
                  key={id}
                  on={plan.ways.includes(id)}
                  onChange={(on) =>
                    put({
                      ways: WAYS.map((w) => w.id).filter((w) => (w === id ? on : plan.ways.includes(w))),
                    })
                  }
                >
                  {name}
                </Switch>
              ))}
            </div>
          </div>
        }
      >
        {limited}
      </Word>
    </>
  );
}

/** What limits there are, in a few words. */
function limitsSaid(limits: Limits): string {
  const said = (Object.keys(limits) as LimitName[]).map((name) => LIMIT_SAID[name]);
  return said.length ? `limits: ${list(said)}` : 'no limits';
}
