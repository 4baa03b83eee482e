import { type Progression } from '@crow-ladder/contract';
import { keySaid, list, numberWord, pitchClass, plural } from '@crow-ladder/core';
import {
  BLUES_WAYS,
  chordId,
  chordSaid,
  type CountedIn,
  isBlues,
  PROGRESSION_LIMITS,
  readBars,
  type ScaleOver,
} from '@crow-ladder/core/chords';
import { useState } from 'react';
import { chordsOf } from '../../model/chords.ts';
import { symbolReader } from '../../model/chordSymbols.ts';
import { pitchName } from '../../model/model.ts';
import {
  aboveOf,
  CHANGES,
  fitting,
  playedOver,
  type Over,
  type PlayedOver,
  progressionText,
  withProgression,
} from '../../model/progression.ts';
import { type PanelProps } from '../../task/task.ts';
import { Field } from '../../ui/fields.tsx';
import { MarkKind } from '../../ui/MarkKind.tsx';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { Picks } from '../../ui/Picks.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { Word } from '../../ui/Word.tsx';
import { type ChordParams } from './params.ts';

type Props = PanelProps<ChordParams>;

/** Progressions to begin with (common practice, no source). */
const STARTERS = [
  { name: 'Twelve bars of blues', text: 'I7 | IV7 | I7 | % | IV7 | % | I7 | % | V7 | IV7 | I7 | V7' },
  { name: 'Two, five, one', text: 'iim7 | V7 | Imaj7 | %' },
  { name: 'Minor, falling', text: 'i | ♭VII | ♭VI | V7' },
] as const;
const BEATS = 4;
const SEVENTHS = 4;
/** How many scales are offered over a chord. */
const OFFERED = 8;

/** The progression, typed or taken from a list, and how many beats a bar has. */
export function ChangesWords({ model, onChange }: Props) {
  const now = playedOver(model);
  const shown = now ? progressionText(model, now.part) : '';
  const [typed, setTyped] = useState<string | null>(null);
  const [within, setWithin] = useState<CountedIn>('major');
  const [error, setError] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const text = typed ?? shown;
  const named = chordsOf(model, SEVENTHS).filter(({ chord }) => chord.suffix !== null);
  const take = async (from: string): Promise<void> => {
    try {
      const read = await symbolReader();
      const bars = readBars(from, pitchClass(model.key.root), within, read);
      if (!bars.ok) {
        setTyped(from);
        setError(bars.error.message);
        return;
      }
      setError(null);
      setTyped(null);
      setOpen(false);
      onChange((s) =>
        withProgression(s, {
          beats: now?.part.beats ?? BEATS,
          bars: bars.value,
          scales: now?.part.scales ?? {},
        }),
      );
    } catch {
      setError('The chords cannot be read just now: try again in a moment. What you typed stays.');
    }
  };
  return (
    <>
      <Word
        name="Progression"
        then={now ? ',' : '.'}
        open={open}
        onOpenChange={setOpen}
        body={
          <form
            className="flex flex-col gap-3"
            onSubmit={(e) => {
              e.preventDefault();
              void take(text);
            }}
          >
            <Field
              label="Chords, bars between upright lines"
              error={error ?? undefined}
              hint="Such as A7 | D7 A7 | E7 % | A7 E7, or I7 | IV7. Chords of one bar share it; % is the bar before once more."
            >
              <textarea
                className="input min-h-24"
                value={text}
                spellCheck={false}
                onChange={(e) => setTyped(e.target.value)}
              />
            </Field>
            <div
              role="group"
              aria-label="Chords of the scale"
              className="flex flex-wrap gap-1.5 empty:hidden"
            >
              {named.map(({ chord, degree }) => (
                <button
                  key={degree}
                  type="button"
                  className="button"
                  onClick={() =>
                    setTyped(text.trim() ? `${text.trim()} | ${chordSaid(chord)}` : chordSaid(chord))
                  }
                >
                  {chordSaid(chord)}
                </button>
              ))}
            </div>
            <Switch on={within === 'minor'} onChange={(on) => setWithin(on ? 'minor' : 'major')}>
              Count numerals within minor
            </Switch>
            <div className="flex flex-wrap gap-1.5">
              <button type="submit" className="button button-strong">
                Play over it
              </button>
              {typed !== null && typed !== shown && (
                <button
                  type="button"
                  className="button button-quiet"
                  onClick={() => {
                    setTyped(null);
                    setError(null);
                  }}
                >
                  Leave it as it was
                </button>
              )}
            </div>
            <div
              role="group"
              aria-label="Progressions to begin with"
              className="flex flex-col items-start gap-1.5"
            >
              {STARTERS.map((it) => (
                <button key={it.name} type="button" className="button" onClick={() => void take(it.text)}>
                  {it.name}
                </button>
              ))}
            </div>
          </form>
        }
      >
        {now ? brief(shown) : 'a progression: choose'}
      </Word>{' '}
      {now && (
        <NumberWord
          name="Beats a bar"
          label="Quarter notes a bar"
          then="."
          value={now.part.beats}
          min={PROGRESSION_LIMITS.beats[0]}
          max={PROGRESSION_LIMITS.beats[1]}
          said={`${numberWord(now.part.beats)} beats a bar`}
          onValue={(beats) => onChange((s) => withProgression(s, { ...now.part, beats }))}
        />
      )}
    </>
  );
}
/** A long progression in a sentence. */
const LONG = 34;
const brief = (text: string): string => (text.length > LONG ? `${text.slice(0, LONG).trimEnd()} …` : text);

/** What is done about it. */
export function ChangesActs({ model, onChange, onOpen }: Props) {
  if (!playedOver(model)) return null;
  return (
    <>
      <button type="button" className="button" onClick={() => onOpen('practice', { on: CHANGES, part: '' })}>
        Practise a line
      </button>
      <button
        type="button"
        className="button button-quiet"
        onClick={() => onChange((s) => withProgression(s, null))}
      >
        Take it away
      </button>
    </>
  );
}

/** The chords in order with the scale over each; over the one that is looked at, which others there are and why. */
export function Changes({ model, params, onParams, onChange }: Props) {
  const now = playedOver(model);
  if (!now)
    return (
      <p>
        Type chords, or begin with one of those that are offered: each gets the scale that fits it best, the
        neck shows its notes, and a line through them is played in Practice.
      </p>
    );
  const at = Math.min(params.slot, now.slots.length - 1);
  const slot = now.slots[at]!;
  return (
    <div className="grid gap-x-10 gap-y-3 *:min-w-0 lg:grid-cols-2">
      <div className="flex flex-col gap-2">
        <Picks
          name="Chords in order"
          standing
          value={String(at)}
          options={now.slots.map((it, i) => ({
            id: String(i),
            name: it.name,
            tag: `${barsSaid(it, now)} · ${keySaid(it.over.key)}${it.chosen ? ', your choice' : ''}`,
          }))}
          onPick={(id) => onParams({ ...params, slot: Number(id) })}
        />
        {isBlues(now.part.bars) && <Ways now={now} onChange={onChange} />}
      </div>
      <Scales model={model} slot={slot} now={now} onChange={onChange} />
    </div>
  );
}

/** "bars 1 to 4". */
function barsSaid({ at, beats }: Over, { part }: PlayedOver): string {
  const [from, to] = [Math.floor(at / part.beats) + 1, Math.ceil((at + beats) / part.beats)];
  return from === to ? `bar ${from}` : `bars ${from} to ${to}`;
}

type Part = Pick<Props, 'model' | 'onChange'> & { readonly now: PlayedOver };

/** Common ways over a blues, each taken at a press. */
function Ways({ now: { part, slots }, onChange }: Omit<Part, 'model'>) {
  const scalesOf = (way: (typeof BLUES_WAYS)[number]): Progression['scales'] =>
    Object.fromEntries(slots.map(({ chord }) => [chordId(chord), way.over(chord.above)]));
  const chosen = BLUES_WAYS.find((way) => JSON.stringify(scalesOf(way)) === JSON.stringify(part.scales));
  return (
    <div>
      <p className="font-semibold">Common ways over a blues</p>
      <Picks
        name="Common ways over a blues"
        standing
        value={chosen?.id ?? null}
        options={BLUES_WAYS.map(({ id, name, why }) => ({ id, name, note: why }))}
        onPick={(id) => {
          const way = BLUES_WAYS.find((it) => it.id === id)!;
          onChange((s) => withProgression(s, { ...part, scales: scalesOf(way) }));
        }}
      />
    </div>
  );
}

/** What a scale is over a chord, in words. */
function overSaid(model: Props['model'], { held, missing, clashes, move }: ScaleOver, of: number): string {
  const note = (pc: number): string => pitchName(model, pc);
  const told = [
    missing.length ? `has ${held} of ${of} notes, not ${list(missing.map(note))}` : 'has every note of it',
    clashes.length
      ? `rubs: ${list(clashes.map(([a, b]) => `${note(a)} against ${note(b)}`))}`
      : 'nothing rubs',
    ...(move === 0 ? [] : Number.isFinite(move) ? [`the hand goes ${plural(move, 'fret')}`] : []),
  ];
  return told.join('; ');
}

/** Scales over the chord that is looked at, with the reason for each; the player's choice is kept for every such chord. */
function Scales({ model, slot, now: { part }, onChange }: Part & { readonly slot: Over }) {
  const id = chordId(slot.chord);
  const idOf = ({ key }: ScaleOver): string => `${aboveOf(model, key)};${key.scale.id}`;
  const found = fitting(model, slot.chord).slice(0, OFFERED);
  const all = found.some((it) => idOf(it) === idOf(slot.over)) ? found : [slot.over, ...found];
  return (
    <div className="flex flex-col gap-2">
      <p className="text-sm text-soft">
        <MarkKind kind="shared">the root of the chord</MarkKind>,{' '}
        <MarkKind kind="note">its other notes</MarkKind>, and faded those of the scale over it.
      </p>
      <p role="status">
        {`${slot.name} over ${keySaid(slot.over.key)}: it ${overSaid(model, slot.over, slot.classes.length)}.`}
      </p>
      <p className="font-semibold">
        {`Scales over every ${slot.name}, those first that hold most of it and rub least`}
      </p>
      <Picks
        name="Scales over it"
        standing
        value={idOf(slot.over)}
        options={all.map((it) => ({
          id: idOf(it),
          name: keySaid(it.key),
          note: overSaid(model, it, slot.classes.length),
        }))}
        onPick={(to) => {
          const [above, scale] = to.split(/;(.*)/s) as [string, string];
          onChange((s) =>
            withProgression(s, {
              ...part,
              scales: { ...part.scales, [id]: { scale, above: Number(above) } },
            }),
          );
        }}
      />
      {slot.chosen && (
        <button
          type="button"
          className="button self-start"
          onClick={() =>
            onChange((s) => {
              const scales = Object.fromEntries(Object.entries(part.scales).filter(([of]) => of !== id));
              return withProgression(s, { ...part, scales });
            })
          }
        >
          Leave it to what fits best
        </button>
      )}
      <p className="text-sm text-soft">{`Its notes are ${list(slot.classes.map((pc) => pitchName(model, pc)))}.`}</p>
    </div>
  );
}
