import { namedScales } from '@crow-ladder/contract';
import {
  CATALOGUE,
  note,
  noteName,
  pitchClass,
  pretty,
  ROOTS,
  scaleSaid,
  resolveScale,
} from '@crow-ladder/core';
import { MODE_WAYS } from '@crow-ladder/core/phrases';
import { useMemo } from 'react';
import { readOf } from '../../model/way.ts';
import { fingeringOf, freeName, withPhrase } from '../../model/phrases.ts';
import { SmallNeck } from '../../task/SmallNeck.tsx';
import { heardOf } from '../../hearing/heardNotes.ts';
import { type PanelProps } from '../../task/task.ts';
import { keyAbove } from '../../model/laid.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { Tablature } from '../../ui/Tablature.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Word } from '../../ui/Word.tsx';
import { type Work } from '../../workers/useWork.ts';
import { keptThere, type Moved, type Place, type phraseNow, spotsOfWay } from './moved.ts';
import { BOTH_KEY } from './keys.ts';
import { OCTAVES, type PhraseParams, TURNS } from './params.ts';
import { WrittenPhrase } from './WrittenPhrase.tsx';

type Props = PanelProps<PhraseParams>;

/** Something else asked for: what is found is looked at from its first place and note on. */
const asking =
  (part: Partial<PhraseParams>) =>
  (now: PhraseParams): PhraseParams => ({ ...now, ...part, pick: 0, step: 0 });

/** What a move of a phrase asks for, in its sentence. */
export function MovedWords(props: Props) {
  switch (props.params.view) {
    case 'place':
      return <PlaceWords {...props} />;
    case 'key':
      return <KeyWord {...props} />;
    case 'mode':
      return <ModeWords {...props} />;
    case 'turned':
      return <TurnWord {...props} />;
    default:
      return <>, at</>;
  }
}

/** Numbers of a range, typed; null is any. */
function Between({
  label,
  value,
  min,
  max,
  onValue,
}: {
  readonly label: string;
  readonly value: readonly [number, number] | null;
  readonly min: number;
  readonly max: number;
  readonly onValue: (value: readonly [number, number] | null) => void;
}) {
  const [low, high] = value ?? [min, max];
  const set = (a: number, b: number): void => onValue([Math.min(a, b), Math.max(a, b)]);
  return (
    <div role="group" aria-label={label} className="flex flex-col gap-2">
      <Switch on={value !== null} onChange={(on) => onValue(on ? [min, max] : null)}>
        {`only some ${label}`}
      </Switch>
      {value && (
        <div className="grid grid-cols-2 gap-3">
          <Field label="From">
            <Whole value={low} min={min} max={max} onChange={(n) => set(n, high)} />
          </Field>
          <Field label="To">
            <Whole value={high} min={min} max={max} onChange={(n) => set(low, n)} />
          </Field>
        </div>
      )}
    </div>
  );
}

function PlaceWords({ model: { neck }, params: { octave, frets, strings }, onParams }: Props) {
  const said = [
    ...(frets ? [`frets ${frets.join(' to ')}`] : []),
    ...(strings ? [`strings ${strings.join(' to ')}`] : []),
  ];
  return (
    <>
      ,{' '}
      <Picked
        name="Octave"
        then=","
        value={octave}
        options={OCTAVES}
        onPick={(id) => onParams(asking({ octave: id }))}
      />{' '}
      <Word
        name="Only within"
        then=", at"
        body={
          <div className="flex flex-col gap-4">
            <Between
              label="frets"
              value={frets}
              min={0}
              max={neck.frets}
              onValue={(to) => onParams(asking({ frets: to }))}
            />
            <Between
              label="strings"
              value={strings}
              min={1}
              max={neck.open.length}
              onValue={(to) => onParams(asking({ strings: to }))}
            />
          </div>
        }
      >
        {said.join(', ') || 'anywhere'}
      </Word>
    </>
  );
}

function KeyWord({ model, params, onParams }: Props) {
  const roots = ROOTS.map((_, up) => {
    const name = noteName(keyAbove(model.key, model.scale, up).root);
    return { id: name, name: up ? pretty(name) : `${pretty(name)}, as it is` };
  });
  const root = params.root ?? model.state.key.root;
  const value = roots.find(({ id }) => pitchClassOf(id) === pitchClassOf(root))?.id ?? null;
  return (
    <>
      :{' '}
      <Picked
        name="Key"
        then=", at"
        value={value}
        options={roots}
        onPick={(id) => onParams(asking({ root: id }))}
      />
    </>
  );
}
const pitchClassOf = (name: string): number => pitchClass(note(name));

function ModeWords({ model, params, settings, onParams }: Props) {
  const options = useMemo(
    () =>
      [...namedScales(settings.ownScales), ...CATALOGUE].map((scale) => ({
        id: scale.id,
        name: pretty(scale.name),
      })),
    [settings.ownScales],
  );
  const scale = params.scale ?? model.scale.id;
  const read = resolveScale(scale);
  return (
    <>
      :{' '}
      <Picked
        name="Mode"
        then=","
        value={scale}
        said={read.ok ? scaleSaid(read.value) : scale}
        options={options}
        onPick={(id) => onParams(asking({ scale: id }))}
      />{' '}
      <Picked
        name="How its notes go"
        then=", at"
        value={params.way}
        options={MODE_WAYS}
        onPick={(way) => onParams(asking({ way }))}
      />
    </>
  );
}

const TurnWord = ({ params: { turn }, onParams }: Props) => (
  <>
    :{' '}
    <Picked
      name="How it is turned"
      then=", at"
      value={turn}
      options={TURNS}
      onPick={(id) => onParams(asking({ turn: id }))}
    />
  </>
);

interface PlacesProps extends Props {
  readonly now: NonNullable<ReturnType<typeof phraseNow>>;
  readonly moved: Moved;
  /** Null while they are looked for. */
  readonly places: readonly Place[] | null;
  readonly place: Place | null;
  readonly state: Work<unknown>;
  /** Plays it as it was made and then as it was moved; null where there is nothing to hear, or it sounds. */
  readonly onBoth: (() => void) | null;
  readonly onCancel: () => void;
  readonly onAgain: () => void;
}

/** Where a phrase can be taken, each with what it asks of the hand, and the one that is looked at, as it is written. */
export function Places(props: PlacesProps) {
  const { model, params, onParams, onChange, onOpen, now, moved, places, place, state } = props;
  const { here } = now;
  const { phrase } = here;
  const step = Math.min(params.step, (place?.way.run.length ?? 1) - 1);
  if (!here.way.run.length) return <p>This phrase has no note yet: write it first, as it was made.</p>;
  if (!places)
    return (
      <div className="flex flex-wrap items-center gap-3">
        <p role="status">
          {state.is === 'failed'
            ? 'The places could not be looked for.'
            : state.is === 'calledOff'
              ? 'The search was called off.'
              : 'Looking for places…'}
        </p>
        {state.is === 'working' ? (
          <button type="button" className="button" onClick={props.onCancel}>
            Cancel
          </button>
        ) : (
          state.is !== 'done' && (
            <button type="button" className="button" onClick={props.onAgain}>
              Look again
            </button>
          )
        )}
      </div>
    );
  if (!place)
    return (
      <p role="status" className="error">
        It has no place there on this neck: allow more frets or strings, or take it in another octave.
      </p>
    );
  const keep = (): void => {
    // The chart goes along, where the phrase went into another key or mode.
    onChange((s) =>
      withPhrase(
        moved.instead ? { ...moved.model.state, phrases: s.phrases } : s,
        now.at,
        keptThere(moved, phrase, place),
      ),
    );
    onParams(asking({ view: 'made', cursor: -1 }));
  };
  const beside = (): void => {
    const name = freeName(model.state, phrase.name);
    onChange((s) => withPhrase(s, null, keptThere(moved, phrase, place, name)));
    onParams(asking({ phrase: name, view: 'made', cursor: -1 }));
  };
  const read = readOf(moved.model, fingeringOf(place.way), place.way.run);
  const was = readOf(model, fingeringOf(here.way), here.way.run);
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="button"
          aria-keyshortcuts={BOTH_KEY}
          disabled={!props.onBoth}
          onClick={() => props.onBoth?.()}
        >
          Hear both
        </button>
        <button type="button" className="button" onClick={keep}>
          {moved.instead ? `Keep it so, the chart in ${moved.instead}` : 'Keep it so'}
        </button>
        {params.view !== 'key' && (
          <button type="button" className="button" onClick={beside}>
            Keep it beside
          </button>
        )}
        <button
          type="button"
          className="button button-quiet"
          onClick={() =>
            onOpen('practice', { on: `phrase.${phrase.name}`, drill: 'straight', part: '', answer: '' })
          }
        >
          Practise it as it was made
        </button>
      </div>
      <ol
        aria-label="Places"
        className="grid grid-cols-[repeat(auto-fill,minmax(min(17rem,100%),1fr))] gap-x-6 gap-y-3"
      >
        {places.map((it, i) => (
          <li key={i} className="flex flex-col gap-1">
            <SmallNeck
              model={moved.model}
              settings={props.settings}
              spots={spotsOfWay(it.way)}
              name={`${it.name}, drawn`}
            />
            <button
              type="button"
              className="button w-full text-left"
              aria-pressed={it === place}
              onClick={() => onParams((p) => ({ ...p, pick: i, step: 0 }))}
            >
              <span>
                <span className="font-semibold">{it.name}</span>
                {`: ${it.effort}.`}
                {it.said.length > 0 && <span className="text-soft"> {it.said.join(' ')}</span>}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className="flex flex-col gap-3"></div>
      <div className="flex flex-col gap-3">
        <p>
          Where it was is <MarkKind kind="was">faint</MarkKind>.
        </p>
        <WrittenPhrase
          model={moved.model}
          way={place.way}
          beats={phrase.beats}
          read={read}
          step={step}
          onStep={(to) => onParams((it) => ({ ...it, step: to }))}
          name={`${phrase.name}, moved`}
          heard={heardOf(params.heard, place.way.run)}
        />
        <details>
          <summary className="cursor-pointer text-sm font-semibold text-soft">As it was made</summary>
          <Tablature name={`Tablature of ${phrase.name}, as it was made`} text={was.tablature} />
        </details>
      </div>
    </div>
  );
}
