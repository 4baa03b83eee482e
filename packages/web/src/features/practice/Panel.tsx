import { drillTitle } from '@crow-ladder/core/drills';
import { notesOfRun } from '@crow-ladder/core/phrases';
import { QUARTER } from '@crow-ladder/core/run';
import { useCallback, useDeferredValue, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { CountHeard, Listens } from '../../hearing/Heard.tsx';
import { Hearing, hearingSaid } from '../../hearing/HearMe.tsx';
import { heardOf } from '../../hearing/heardNotes.ts';
import { useWaiting } from '../../hearing/useWaiting.ts';
import { WaitsFor } from '../../hearing/WaitsFor.tsx';
import { useHeardOut, useHeardRound } from '../../hearing/useHeardRound.ts';
import { pitchName } from '../../model/model.ts';
import { useSession, useSessionId } from '../../sessions/useSession.ts';
import { type PanelProps } from '../../task/task.ts';
import { freeName, inChart, withPhrase } from '../../model/phrases.ts';
import { readOf } from '../../model/way.ts';
import { CHANGES } from '../../model/progression.ts';
import { soundOnce } from '../../sound/audio.ts';
import { strungOf, voiceOf } from '../../sound/voiceOf.ts';
import { playedOn } from './playedOn.ts';
import { InDock } from '../../ui/places.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { InWords, NoteSaid } from '../../ui/Way.tsx';
import { alongOf, backingFor, chordsAt, underneath } from './backing.ts';
import { type Drilling, drilled, playedPart, scheduleFor, strokesFor, swingOf } from './drilled.ts';
import { type PracticeParams } from './params.ts';
import { Choose, SayAloud } from './SayIt.tsx';
import { Sentence } from './Sentence.tsx';
import { type HowHeard, Listened } from './Listened.tsx';
import { Record } from './Record.tsx';
import { LadderSaid } from './Tempos.tsx';
import { Beats, ChordNow, Count, PlayButton } from './Transport.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { useDrone } from './useDrone.ts';
import { useKeys } from './useKeys.ts';
import { usePlayback } from '../../sound/usePlayback.ts';
import { useTempo } from './useTempo.ts';
import { Clean, NotYet, useVerdict, VerdictSaid } from './Verdict.tsx';
import { Written } from './Written.tsx';

/** A drill: chosen in a sentence, heard in time, read and looked at. */
export function Panel(props: PanelProps<PracticeParams>) {
  const now = drilled(props.model, props.params);
  return now && <Practised {...props} now={now} />;
}

function Practised({
  model,
  params,
  onParams,
  onChange,
  onOpen,
  settings: { letterKeys },
  now,
}: PanelProps<PracticeParams> & { readonly now: Drilling }) {
  const { countIn, loop, notes, click, accents, say, choosing, step } = params;
  const put = useCallback(
    (part: Partial<PracticeParams>): void => onParams((before) => ({ ...before, ...part })),
    [onParams],
  );
  const { beats, turns } = now;
  const { tempo, practised, setting } = useTempo(params, now.log);
  const onTempo = useCallback((to: number): void => put(setting(to)), [put, setting]);
  const onStep = useCallback((to: number): void => put({ step: to }), [put]);
  const played = now.played.ok ? now.played.value : null;
  const many = played?.run.length ?? 0;
  const part = params.part && params.part[1] < many ? params.part : null;
  const [first, last] = part ?? [0, many - 1];
  const heard = played && playedPart(played.run, first, last);
  const swing = swingOf(params);
  const schedule = heard && scheduleFor(heard, tempo, swing, countIn, part !== null, beats, turns);
  const onHeard = useCallback((to: number): void => put({ step: first + to }), [put, first]);
  const along = alongOf(model, params);
  const [hears, setHears] = useState<HowHeard>({ judges: true, guide: false, waits: false });
  const strung = strungOf(model);
  const { hearing, listens, ...round } = useHeardRound({
    model,
    all: played?.run ?? null,
    part: heard,
    first,
    sounds: { notes: hears.guide && notes > 0, click: click > 0 },
    onHeard: (it) => put({ heard: it }),
    onOver: (summary, whole) => {
      if (hears.judges && verdict.due && whole) verdict.judge(summary.clean);
    },
  });
  const waiting = useWaiting(hearing, strung, (at) => put({ step: first + at }));
  // Who is heard plays it himself.
  const guided = listens && !hears.guide ? 0 : notes;
  const levels = useMemo(
    () => ({ notes: guided / 100, click: click / 100, chords: along / 100 }),
    [guided, click, along],
  );
  const over = along > 0 || params.on === CHANGES ? underneath(model, params) : null;
  // Of all notes it begins where they do, with a bar of chords before them where one is asked for.
  const from = part ? (played?.run[first]?.start ?? 0) / QUARTER : 0;
  const backing = backingFor(over, schedule, tempo, from, turns);
  const chords = played && chordsAt(over, played.run, step, turns);
  const voice = voiceOf(model);
  const asks = say !== 'no' && choosing;
  const name = drillTitle(now.drill, now.spec);
  const size = accents && played ? played.group : 1;
  const groups = useMemo(() => ({ size, from: first }), [size, first]);
  const drone = useDrone(model, params);
  const id = useSessionId();
  const called = useSession((s) => s.draft.name);
  const chart = { id, name: called };
  const verdict = useVerdict({ params, tempo, put, setting });
  const onRound = (): void => {
    if (!now.log || !schedule) return;
    const ms = (schedule.end - schedule.from) * 1000;
    verdict.ended({ ...now.log, tempo, ms, on: playedOn(model, params, tempo, chart) });
  };
  const { playing, beat, start, stop } = usePlayback(
    heard && schedule && !asks
      ? {
          what: `${name} ${params.on}`,
          run: heard,
          schedule,
          bar: beats * QUARTER,
          loop,
          strung,
          backing,
          groups,
          levels,
          onStep: onHeard,
          onRound,
          onPass: (pass) => hearing.onPass(heard, pass),
        }
      : null,
  );
  const shownHeard = played && heardOf(params.heard, played.run);
  const { stop: deafen } = hearing;
  const waits = waiting.now !== null;
  useHeardOut(waits ? 'yes' : playing, hearing);
  const narrow = useNarrow();
  const on = playing === 'soon' || playing === 'yes' || waiting.now !== null;
  // What lies below the music comes after it: it is seldom what is looked for first. It goes at once, before the page scrolls to it.
  const later = useDeferredValue(on, true);
  const away = on || later;
  const { school, begins } = params;
  const read = useMemo(
    () => played && readOf(model, played.fingering, played.run, strokesFor(played.run, school, begins)),
    [model, played, school, begins],
  );

  const panel = useRef<HTMLDivElement>(null);
  const began = useRef(0);
  const begin = (at: number): void => {
    began.current = at >= last || at < first ? first : at;
    verdict.began();
    round.clear();
    if (params.heard) put({ heard: null });
    const go = (): void => void start(began.current - first);
    if (heard && schedule && listens && hears.waits)
      return waiting.start(heard, schedule, began.current - first);
    if (heard && schedule && listens) void hearing.begin(heard, schedule, began.current - first).then(go);
    else go();
  };
  const toggle = (): void => {
    if (on) {
      stop();
      waiting.stop();
      hearing.stop();
      verdict.stopped();
      // The next time it begins where it began.
      return put({ step: began.current });
    }
    put(setting(tempo));
    // It begins at the note that is looked at, and anew where that is the last one.
    begin(step);
  };
  // What is read while it plays comes up to the neck.
  useLayoutEffect(() => {
    if (on && !narrow) panel.current?.scrollIntoView({ block: 'start' });
  }, [on, narrow]);
  const goTo = on ? begin : onStep;
  const judged = (on && !waits) || verdict.due !== null;
  useKeys({
    toggle: asks ? null : toggle,
    clean: judged ? () => verdict.judge(true) : null,
    letterKeys,
  });

  const onKeep = useCallback((): void => {
    if (!heard) return;
    const called = freeName(model.state, name);
    const kept = { name: called, tags: [], beats, notes: notesOfRun(heard) };
    onChange((s) => withPhrase(s, null, inChart(model, kept)));
    onOpen('phrases', { lick: called, played: 'made', note: '0' });
  }, [heard, model, name, beats, onChange, onOpen]);
  const { source, state, label, delay, choose, setDelay, listenBy } = hearing;
  // The sentence is drawn anew only where something of it changes.
  const choosesHearing = useMemo(
    () => (
      <Hearing
        hearing={{ source, state, label, delay, choose, setDelay, listenBy, stop: deafen }}
        text="Play to the click: each note is marked as it comes. Headphones keep the click out of the microphone."
      >
        <Listened of={hears} onOf={setHears} />
      </Hearing>
    ),
    [source, state, label, delay, choose, setDelay, listenBy, deafen, hears],
  );
  const parts = { model, params, put, tempo, onTempo, drone };
  return (
    <div ref={panel} className={`flex flex-col gap-4 ${on ? 'playing' : ''}`}>
      {on && narrow && (
        <InDock>
          {!waits && <Beats beat={beat} beats={beats} tempo={tempo} />}
          <PlayButton on ready onToggle={toggle} />
          {!waits && <Clean of={verdict} />}
        </InDock>
      )}
      {on ? (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          {!narrow && !waits && <Beats beat={beat} beats={beats} tempo={tempo} />}
          {chords && !waits && <ChordNow {...chords} />}
          {waiting.now && heard ? (
            <WaitsFor run={heard} now={waiting.now} nameOf={(midi) => pitchName(model, midi)} />
          ) : (
            <Count {...parts} />
          )}
          <span className="grow max-[760px]:hidden" />
          {!narrow && <PlayButton on ready onToggle={toggle} />}
          {!narrow && !waits && <Clean of={verdict} />}
          {!waits && <NotYet of={verdict} />}
        </div>
      ) : (
        <TaskSentence
          acts={
            !asks && (
              <>
                {verdict.due && (
                  <>
                    <Clean of={verdict} />
                    <NotYet of={verdict} />
                  </>
                )}
                <PlayButton on={false} ready={played !== null} onToggle={toggle} />
              </>
            )
          }
        >
          <Sentence
            {...parts}
            drilling={now}
            read={read}
            onKeep={onKeep}
            hears={hearingSaid(hearing)}
            hearing={choosesHearing}
          />
        </TaskSentence>
      )}
      <p role="status" className="font-semibold empty:hidden">
        {playing === 'soon' && 'Getting the sound…'}
        {playing === 'failed' && 'The sound could not be started: try again.'}
      </p>
      {hearing.state === 'listening' && (
        <div className="flex flex-wrap items-center gap-x-6 gap-y-1">
          <Listens loud={hearing.loud} before={!shownHeard?.verdicts.size} />
          {shownHeard && <CountHeard {...shownHeard} />}
        </div>
      )}
      <p role="status" className="empty:hidden">
        {waiting.said ?? round.said}
      </p>
      <VerdictSaid of={verdict} />
      <LadderSaid params={params} tempo={tempo} />
      {now.played.ok ? (
        now.played.value.remark && <p className="text-sm font-semibold">{now.played.value.remark.message}</p>
      ) : (
        <p className="error">{now.played.error.message}</p>
      )}
      {played &&
        say !== 'no' &&
        (asks ? (
          <Choose
            model={model}
            run={played.run}
            drill={now.drill.kind}
            say={say}
            step={step}
            onStep={onStep}
            sound={(midi) => void soundOnce(midi, voice, notes / 100)}
          />
        ) : (
          <SayAloud
            model={model}
            run={played.run}
            drill={now.drill.kind}
            say={say}
            step={Math.min(step, many - 1)}
            on={on}
          />
        ))}
      {played && read && say === 'no' && (
        <>
          <Written
            model={model}
            played={played}
            read={read}
            name={name}
            // Beside an upright neck there is room for the tablature alone.
            reading={on && narrow && params.reading === 'staff' ? 'tablature' : params.reading}
            size={params.size}
            time={now}
            swing={swing}
            school={params.school}
            begins={params.begins}
            step={step}
            onStep={goTo}
            heard={shownHeard}
          />
          <NoteSaid read={read} step={step} moving={on} />
          {part && (
            <p className="text-sm">
              {`Notes ${first + 1} to ${last + 1} are played.`}{' '}
              <button type="button" className="button" onClick={() => put({ part: null })}>
                Play all notes
              </button>
            </p>
          )}
        </>
      )}
      {!away && (
        <div className="later flex flex-col gap-3">
          <Record practised={practised} />
          {read && say === 'no' && <InWords read={read} />}
        </div>
      )}
    </div>
  );
}
