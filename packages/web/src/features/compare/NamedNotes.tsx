import {
  CATALOGUE,
  chooseRoot,
  degreeName,
  holdingMost,
  keySaid,
  list,
  mod,
  pitchAt,
  placeId,
  plural,
  type Position,
  pretty,
} from '@crow-ladder/core';
import { chordSaid } from '@crow-ladder/core/chords';
import { chordsHolding, scalesHolding, setFacts } from '@crow-ladder/core/overlays';
import { QUARTER } from '@crow-ladder/core/run';
import { useEffect, useEffectEvent, useMemo } from 'react';
import { Listens } from '../../hearing/Heard.tsx';
import { HearMe } from '../../hearing/HearMe.tsx';
import { useEars } from '../../hearing/useEars.ts';
import { rangeOfNeck, standInLine, useTaking } from '../../hearing/useTaking.ts';
import { type PanelProps } from '../../task/task.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { placeInFront } from '../../model/phrases.ts';
import { withKey } from '../../model/moves.ts';
import { Picks } from '../../ui/Picks.tsx';
import { type CompareParams, ticksOn } from './params.ts';

type Props = PanelProps<CompareParams>;
/** As many names as are listed. */
const LISTED = 12;
/** Fewer notes than these are in nearly everything. */
const LEAST = 3;
/** The stand-in plays a quarter note in so many seconds. */
const BEAT = 0.7;

/** Begins again, or takes the spots of the position in front. */
export function NoteActs({ model, params, onParams }: Props) {
  const { front } = model;
  return (
    <>
      {front && (
        <button
          type="button"
          className="button"
          onClick={() =>
            onParams({
              ...params,
              ticks: front.position.held.map(({ string, fret }) => ({ string, fret })),
            })
          }
        >
          Take the position in front
        </button>
      )}
      <Heard model={model} params={params} onParams={onParams} />
      {params.ticks.length > 0 && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() => onParams({ ...params, ticks: [] })}
        >
          Take all ticks away
        </button>
      )}
    </>
  );
}

/** Ticks notes as they are played: where they lie under the hand. */
function Heard({ model, params, onParams }: Pick<Props, 'model' | 'params' | 'onParams'>) {
  const ears = useEars();
  const range = useMemo(() => rangeOfNeck(model.neck), [model.neck]);
  const { notes, on, start, stop } = useTaking(ears, range);
  const tick = useEffectEvent((midis: readonly number[]) => {
    const tune = midis.map((midi) => ({ midi, string: null, length: QUARTER }));
    const places = placeInFront(model, tune)?.run.map(({ spot: { string, fret } }) => ({ string, fret }));
    onParams({ ...params, ticks: [...new Map(places?.map((it) => [placeId(it), it])).values()] });
  });
  useEffect(() => {
    if (notes.length) tick(notes.map(({ midi }) => midi));
  }, [notes]);
  const listen = async (): Promise<void> => {
    const following = await start();
    if (ears.source?.kind === 'standIn') following?.play(standInLine(model, BEAT));
  };
  return (
    <HearMe
      hearing={ears}
      text="Play the notes one after the other: each is ticked as it is heard."
      standIn="It plays the position in front, upward."
    >
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="button button-strong"
          disabled={!ears.hears}
          onClick={() => (on ? stop() : void listen())}
        >
          {on ? 'That was all' : 'Listen'}
        </button>
        {on && <Listens loud={ears.loud} before={notes.length === 0} />}
      </div>
      <p role="status" className="empty:hidden">
        {notes.length > 0 && `Heard: ${notes.map(({ midi }) => pitchName(model, midi)).join(' ')}`}
      </p>
    </HearMe>
  );
}

/** Which position of the ladder some pitches were played in. */
function Where({ model, midis }: { readonly model: Model; readonly midis: readonly number[] }) {
  const { positions, held } = holdingMost(model.positions.ok ? model.positions.value : [], midis);
  const [first, ...others] = positions;
  if (!first) return null;
  const many = new Set(midis).size;
  const names = model.names();
  const said = ({ index, lowFret, highFret }: Position): string =>
    `${names[index]}, frets ${lowFret} to ${highFret}`;
  return (
    <p>
      {`Of the ladder: ${held === many ? 'all of them lie' : `${held} of ${plural(many, 'note')} lie`} in ${said(first)}${others.length ? `; and in ${list(others.map(said))}` : ''}.`}
    </p>
  );
}

/** What the ticked notes are: the scales that hold them, rooted on each, those with the fewest other notes first. */
export function NamedNotes({ model, params, onChange }: Props) {
  const ticks = ticksOn(model.neck, params);
  const midis = ticks.map(({ string, fret }) => pitchAt(model.neck, string, fret)).sort((a, b) => a - b);
  const classes = [...new Set(midis.map((midi) => mod(midi, 12)))];
  const notes = classes.map((pc) => pitchName(model, pc));
  if (classes.length < LEAST)
    return (
      <p>
        {classes.length ? `${list(notes)}: ` : ''}Tick {LEAST} notes or more on the neck, and they are named
        here; the lowest one is asked first.
      </p>
    );
  const found = scalesHolding(classes, CATALOGUE).map(({ root, scale, more }) => {
    const key = { root: chooseRoot(root, scale).root, scale };
    return {
      id: `${root};${scale.id}`,
      key,
      name: keySaid(key),
      tag: more.length
        ? `all of them, and ${list(more.map((d) => pretty(degreeName(d))))} beside`
        : 'these notes and no others',
    };
  });
  return (
    <div className="flex max-w-[60ch] flex-col gap-2">
      <p role="status">
        {list(notes)}: {found.length ? '' : 'no scale of the list holds them all.'}
      </p>
      <Where model={model} midis={midis} />
      <Picks
        name="Scales that hold them"
        standing
        value={null}
        options={found.slice(0, LISTED)}
        onPick={(id) => {
          const { key } = found.find((f) => f.id === id)!;
          onChange((s) => withKey(s, key));
        }}
      />
      {found.length > LISTED && (
        <p className="text-sm text-soft">And {found.length - LISTED} more that have more notes.</p>
      )}
      <Chords classes={classes} />
      <AsSet classes={classes} />
    </div>
  );
}

/** The chords that hold the ticked notes. */
function Chords({ classes }: { readonly classes: readonly number[] }) {
  const found = chordsHolding(classes);
  const said = found.slice(0, LISTED).map(({ chord, more }) => {
    const beside = more.map((d) => pretty(degreeName(d)));
    return chordSaid(chord) + (beside.length ? ` with ${list(beside)} beside` : '');
  });
  return (
    <p>
      {found.length
        ? `Chords that hold them: ${said.join('; ')}${found.length > LISTED ? `; ${found.length - LISTED} more` : ''}.`
        : 'No chord that has a name holds them all.'}
    </p>
  );
}

/** What the ticked notes are as a set, for those who want it. */
function AsSet({ classes }: { readonly classes: readonly number[] }) {
  const { vector, transpositions, prime, forte } = setFacts(classes);
  return (
    <details>
      <summary className="cursor-pointer text-sm font-semibold text-soft">These notes as a set</summary>
      <p>
        {forte && `Forte number ${forte}, `}
        {`prime form ${prime.join(' ')} (Forte’s rule), interval vector ${vector.join(' ')}, `}
        {transpositions < 12
          ? `symmetrical: it has ${plural(transpositions, 'transposition')}.`
          : 'twelve transpositions, without symmetry.'}
      </p>
    </details>
  );
}
