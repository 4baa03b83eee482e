import { type KeptPhrase, PHRASE_KEPT } from '@crow-ladder/contract';
import { spotSaid } from '@crow-ladder/core';
import { TEMPO } from '@crow-ladder/core/run';
import { Play, Square } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import { useFiles } from '../../files/asked.ts';
import { Listens } from '../../hearing/Heard.tsx';
import { Hearing } from '../../hearing/HearMe.tsx';
import { useHeardOut, useHeardRound } from '../../hearing/useHeardRound.ts';
import { type PanelProps } from '../../task/task.ts';
import { phraseId, phrasesOf, withoutPhrase, withPhrase } from '../../model/phrases.ts';
import { Field } from '../../ui/fields.tsx';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { tagsIn, tagTrouble } from '../../ui/tags.ts';
import { TagsField } from '../../ui/TagsField.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { useLetterKeys } from '../../ui/useLetterKeys.ts';
import { useSpaceKey } from '../../ui/useSpaceKey.ts';
import { useTyped } from '../../ui/useTyped.ts';
import { useWork } from '../../workers/useWork.ts';
import { type PhraseWork } from '../../workers/placed.ts';
import { type PhraseWay } from '@crow-ladder/core/phrases';
import { Editor } from './Editor.tsx';
import { BOTH_KEY } from './keys.ts';
import { OverChords } from './OverChords.tsx';
import { Make } from './Make.tsx';
import { movedTo, phraseNow, placeNow, placesNow, workId, workOf } from './moved.ts';
import { MovedWords, Places } from './Places.tsx';
import { AT_FIRST, type PhraseParams, VIEWS } from './params.ts';
import { stepAt } from './scene.ts';
import { usePhraseSound } from './usePhraseSound.ts';

type Props = PanelProps<PhraseParams>;
type Now = NonNullable<ReturnType<typeof phraseNow>>;

/** Phrases: made, kept with the chart, and moved anywhere. */
export function Panel(props: Props) {
  const now = phraseNow(props.model, props.params);
  if (now) return <Phrase {...props} now={now} />;
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence acts={<Make {...props} strong />}>This chart has no phrase yet.</TaskSentence>
      <p className="max-w-prose text-soft">
        A phrase is a lick of yours: written on the neck, by keys, in a line of degrees or as tablature. Kept
        with the chart it goes into any key, place, mode and tuning.
      </p>
    </div>
  );
}

/** Where the page listens only the click sounds. */
const SOUNDS = { notes: false, click: true } as const;
const startPhraser = (): Worker =>
  new Worker(new URL('../../workers/phraser.ts', import.meta.url), { type: 'module' });

function Phrase(props: Props & { readonly now: Now }) {
  const { model, params, settings, onParams, now } = props;
  const { here } = now;
  const { phrase } = here;
  /** Where it lies as it was made. */
  const isMade = params.view === 'made' || params.view === 'chords';
  const moved = movedTo(model, settings, here, params);
  const work = isMade ? null : workOf(moved);
  const {
    work: state,
    cancel,
    again,
  } = useWork<PhraseWork, readonly (readonly PhraseWay[])[]>(startPhraser, work);
  const ways = state.is === 'done' ? state.answer : null;
  const id = work && workId(work);
  const foundId = params.found?.id;
  useEffect(() => {
    if (ways && id && foundId !== id) onParams((it) => ({ ...it, found: { id, ways } }));
  }, [ways, id, foundId, onParams]);
  const places = isMade ? [] : placesNow(here, moved, params);
  const place = isMade ? null : placeNow(places, params);
  const asked = place?.way.run ?? here.way.run;
  const { hearing, listens, ...round } = useHeardRound({
    model: place ? moved.model : model,
    all: asked,
    part: asked,
    first: 0,
    sounds: SOUNDS,
    onHeard: (heard) => onParams((it) => ({ ...it, heard })),
  });
  const { begin, onPass, stop: deafen } = hearing;
  const listener = useMemo(
    () => (listens ? { begin, onPass, stop: deafen } : null),
    [listens, begin, onPass, deafen],
  );
  const sound = usePhraseSound({
    model,
    // Who is heard plays the one that is looked at.
    first: listens && place ? place.way : here.way,
    then: listens ? null : (place?.way ?? null),
    beats: phrase.beats,
    tempo: params.tempo,
    listens: listener,
    onStep: (step, isThen) =>
      onParams((it) =>
        it.view === 'made'
          ? { ...it, cursor: here.way.notes[step] ?? it.cursor, marked: null }
          : { ...it, step: isThen || listens || it.view === 'chords' ? step : 0 },
      ),
  });
  // It begins at the cursor, and anew where that is the last note.
  const at = params.view === 'chords' ? params.step : stepAt(here.way.notes, params.cursor);
  const from = at >= here.way.run.length - 1 ? 0 : at;
  const { play, both } = sound;
  useHeardOut(sound.playing, hearing);
  const toggle =
    play &&
    ((): void => {
      round.clear();
      if (params.heard) onParams((it) => ({ ...it, heard: null }));
      play(isMade || !listens ? from : 0);
    });
  useSpaceKey(toggle);
  useLetterKeys(both ? { [BOTH_KEY]: both } : {}, settings.letterKeys);
  const first = here.way.run[0];
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence
        acts={
          <>
            <button
              type="button"
              className="button button-strong min-w-28 justify-center"
              aria-keyshortcuts="Space"
              disabled={!toggle}
              onClick={() => toggle?.()}
            >
              {sound.on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />}{' '}
              {sound.on ? 'Stop' : 'Play'}
            </button>
            <Make {...props} />
          </>
        }
      >
        Play <PhraseWord {...props} />
        {first && isMade ? ` at ${spotSaid(first.spot)}, ` : ' '}
        <Picked
          name="Where"
          weight="first"
          then={isMade ? ', at' : ''}
          value={params.view}
          options={VIEWS}
          onPick={(view) => onParams((it) => ({ ...it, view, pick: 0, step: 0, marked: null }))}
        />
        {!isMade && <MovedWords {...props} />}{' '}
        <NumberWord
          name="Tempo"
          label="Quarter notes a minute"
          then="."
          value={params.tempo}
          min={TEMPO.least}
          max={TEMPO.most}
          onValue={(tempo) => onParams((it) => ({ ...it, tempo }))}
          {...(listens && { said: `${params.tempo}, heard` })}
        >
          <Hearing
            hearing={hearing}
            text="Play it to the click: each note is marked as it comes, and bends are measured. Headphones keep the click out of the microphone."
          />
        </NumberWord>
      </TaskSentence>
      <p role="status" className="font-semibold empty:hidden">
        {sound.playing === 'soon' && 'Getting the sound…'}
        {sound.playing === 'failed' && 'The sound could not be started: try again.'}
      </p>
      {hearing.state === 'listening' && <Listens loud={hearing.loud} before={!params.heard} />}
      <p role="status" className="empty:hidden">
        {round.said}
      </p>
      {params.view === 'chords' ? (
        <OverChords {...props} here={here} />
      ) : isMade ? (
        <Editor {...props} here={here} on={sound.on} />
      ) : (
        <Places
          {...props}
          now={now}
          moved={moved}
          places={places}
          place={place}
          onBoth={sound.on ? null : both}
          state={state}
          onCancel={cancel}
          onAgain={again}
        />
      )}
    </div>
  );
}

/** Which phrase; of the one that is chosen its name and tags, and what takes it away. */
function PhraseWord({ model, params, now, onChange, onParams }: Props & { readonly now: Now }) {
  const files = useFiles();
  const all = phrasesOf(model.state);
  const { phrase } = now.here;
  const put = (part: Partial<KeptPhrase>): void =>
    onChange((s) => withPhrase(s, now.at, { ...phrase, ...part }));
  const name = useTyped(phrase.name, (typed) => {
    const is = typed.trim();
    if (!is || all.some((it) => it.at !== now.at && it.phrase.name === is)) return false;
    put({ name: is });
    onParams((it) => ({ ...it, phrase: is }));
    return true;
  });
  const taken = all.some((it) => it.at !== now.at && it.phrase.name === name.text.trim());
  const tags = useTyped(phrase.tags.join(', '), (typed) => {
    const read = tagsIn(typed);
    if (tagTrouble(read)) return false;
    put({ tags: read });
    return true;
  });
  return (
    <>
      <Picked
        name="Phrase"
        weight="first"
        // Its place, not its name: a new name leaves the fields where they are.
        value={String(now.at)}
        options={all.map((it) => ({ id: String(it.at), name: it.phrase.name }))}
        onPick={(id) =>
          onParams((it) => ({
            ...AT_FIRST,
            tempo: it.tempo,
            copied: it.copied,
            phrase: all.find(({ at }) => String(at) === id)?.phrase.name ?? null,
          }))
        }
        asksMore={(id) => id === String(now.at)}
      >
        <div className="flex flex-col gap-3">
          <Field
            label="Name"
            error={taken ? 'A phrase of this chart has this name already: choose another one.' : undefined}
          >
            <input
              className="input"
              value={name.text}
              maxLength={PHRASE_KEPT.name}
              onChange={(e) => name.onText(e.target.value)}
              onBlur={name.onBlur}
            />
          </Field>
          <TagsField tags={tags} />
          <button
            type="button"
            className="button self-start"
            onClick={() => files.save(phraseId(phrase.name))}
          >
            Save as a file
          </button>
          <button
            type="button"
            className="button self-start"
            onClick={() => {
              onChange((s) => withoutPhrase(s, now.at));
              onParams({ ...params, phrase: null, cursor: -1, marked: null });
            }}
          >
            Delete this phrase
          </button>
        </div>
      </Picked>
    </>
  );
}
