import {
  accentHome, afterRound, betterStart, crossingsOf, DRILLS, drillOf, LADDER_LIMITS, numberWord, PICKING_SCHOOLS, plural, strokesOf, SWING, TEMPO, type NotesPerBeat, USUAL_LADDER,
} from '@crow-ladder/core'; // prettier-ignore
import { Play, Square } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef } from 'react';
import { type PanelProps } from '../../frame/task.ts';
import { readOf } from '../../model/way.ts';
import { Way } from '../../ui/Way.tsx';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { asUsual, BEATS, drilled, playedPart, type PlayedDrill, scheduleFor, voiceOf } from './drilled.ts';
import { NOTE_LENGTHS, type PracticeParams, TOUCHES } from './params.ts';
import { usePlayback } from './usePlayback.ts';

/** A pause between two taps that begins a new tempo, in ms, and how many taps are looked at. */
const TAP = { pauseMs: 2500, kept: 5 };

/** When the first note of a group comes home to the beat and to the bar. */
function accentSaid(group: number, perBeat: number): string | null {
  const home = accentHome(group, perBeat, BEATS);
  return (
    home &&
    `Groups of ${numberWord(group)} against ${numberWord(perBeat)} notes a beat: the first note of a group falls on a beat again after ${home.onBeat} notes, and on the first beat of a bar after ${home.onBar}.`
  );
}

/** How the strokes cross the strings. */
function strokesSaid(
  { neck }: PanelProps<PracticeParams>['model'],
  { run }: PlayedDrill,
  school: PracticeParams['school'],
): string {
  const { outside, inside, equal } = crossingsOf(neck, run, strokesOf(run, school));
  const better = betterStart(neck, run, school);
  return [
    `${plural(outside, 'outside crossing')}, ${inside} inside${equal ? `, ${equal} between two equal strokes` : ''}, beginning with a down stroke.`,
    ...(better === 'up' ? ['Beginning with an up stroke leaves fewer of them inside.'] : []),
  ].join(' ');
}

/** On an upright screen it stands over the dock, large enough to be hit while playing. */
const IN_REACH =
  'max-[760px]:fixed max-[760px]:bottom-[5rem] max-[760px]:z-20 max-[760px]:h-16 max-[760px]:text-lg';
/** The key that says that a round was clean. */
const CLEAN_KEY = 'c';
/** Whether a key belongs to what it was pressed on rather than to the page. */
const taken = (on: Element, key: string): boolean =>
  on.closest(
    key === ' '
      ? 'button, a, input, select, textarea, summary, [role="gridcell"], [role="dialog"]'
      : 'input:not([type="checkbox"], [type="range"]), select, textarea, [role="dialog"]',
  ) !== null;

/** A drill on the position in front: chosen in a sentence, heard in time, read and looked at. */
export function Panel({ model, params, onParams, settings: { letterKeys } }: PanelProps<PracticeParams>) {
  const now = drilled(model, params);
  const { perBeat, tempo, swing, countIn, loop, notes, click, school } = params;
  const put = useCallback(
    (part: Partial<PracticeParams>): void => onParams((before) => ({ ...before, ...part })),
    [onParams],
  );
  const onStep = useCallback((step: number): void => put({ step }), [put]);
  const played = now?.played.ok ? now.played.value : null;
  const run = played?.run;
  const many = run?.length ?? 0;
  const part = params.part && params.part[1] < many ? params.part : null;
  const [first, last] = part ?? [0, many - 1];
  const heard = run && playedPart(run, first, last);
  const schedule = heard && scheduleFor(heard, tempo, perBeat, swing, countIn, part ? 'beat' : 'bar');
  const onHeard = useCallback((step: number): void => put({ step: first + step }), [put, first]);
  const levels = useMemo(() => ({ notes: notes / 100, click: click / 100 }), [notes, click]);
  const { playing, beat, start, stop } = usePlayback(
    heard && schedule ? { run: heard, schedule, loop, voice: voiceOf(model), levels, onStep: onHeard } : null,
  );
  const round = (clean: boolean): void =>
    onParams((before) => {
      if (!before.ladder) return before;
      const { tempo: next, ...rung } = afterRound(
        before.ladder,
        { tempo: before.tempo, ...before.rung },
        clean,
      );
      return { ...before, tempo: next, rung };
    });
  const toggle = (): void => (playing === 'no' || playing === 'failed' ? void start() : stop());
  const clean = params.ladder && letterKeys ? (): void => round(true) : null;
  const toggling = useRef({ toggle, clean });
  useEffect(() => {
    toggling.current = { toggle, clean };
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const work =
        e.key === ' ' ? toggling.current.toggle : e.key === CLEAN_KEY ? toggling.current.clean : null;
      if (!work || e.repeat || e.ctrlKey || e.metaKey || e.altKey || taken(e.target as Element, e.key))
        return;
      e.preventDefault();
      work();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const taps = useRef<readonly number[]>([]);
  const tap = (): void => {
    const at = performance.now();
    const before = taps.current.at(-1);
    taps.current =
      before !== undefined && at - before < TAP.pauseMs ? [...taps.current, at].slice(-TAP.kept) : [at];
    const [first] = taps.current;
    const many = taps.current.length - 1;
    if (many < 1) return;
    const asked = Math.round((60_000 * many) / (at - first!));
    put({ tempo: Math.max(TEMPO.least, Math.min(TEMPO.most, asked)) });
  };
  if (!now) return null;
  const { drill, spec } = now;
  const position = model.front && model.names()[model.front.position.index];
  const on = playing === 'soon' || playing === 'yes';
  const accent = played && accentSaid(played.group, perBeat);
  const faster = (by: number): void =>
    put({ tempo: Math.max(TEMPO.least, Math.min(TEMPO.most, tempo + by)) });
  return (
    <div className="flex flex-col gap-4">
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1 font-reading text-lg">
        <Choice
          aria-label="Drill"
          className="!w-auto font-semibold"
          value={drill.kind}
          options={DRILLS.map(({ kind, name }) => ({ id: kind, name }))}
          onChange={(kind) => put({ drill: asUsual(model, drillOf(kind)!), part: null, step: 0 })}
        />
        <span>
          on <b>{position}</b>, in
        </span>
        <Choice
          aria-label="Notes a beat"
          className="!w-auto font-semibold"
          value={String(perBeat) as (typeof NOTE_LENGTHS)[number]['id']}
          options={NOTE_LENGTHS}
          onChange={(id) => put({ perBeat: Number(id) as NotesPerBeat, step: 0 })}
        />
        <span>at</span>
        <Whole
          aria-label="Tempo in quarter notes a minute"
          className="!w-24 font-semibold"
          value={tempo}
          min={TEMPO.least}
          max={TEMPO.most}
          onChange={(to) => put({ tempo: to })}
        />
      </p>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <button
          type="button"
          className={`button button-strong min-w-28 ${IN_REACH} max-[760px]:right-3`}
          disabled={!run}
          aria-keyshortcuts="Space"
          onClick={toggle}
        >
          {on ? <Square size={16} aria-hidden /> : <Play size={16} aria-hidden />} {on ? 'Stop' : 'Play'}
        </button>
        <div role="group" aria-label="Tempo" className="flex gap-1.5">
          <button type="button" className="button" onClick={() => faster(-TEMPO.step)}>
            {TEMPO.step} slower
          </button>
          <button type="button" className="button" onClick={() => faster(TEMPO.step)}>
            {TEMPO.step} faster
          </button>
          <button type="button" className="button" onClick={tap}>
            Tap it
          </button>
        </div>
        <label className="flex gap-2">
          <input type="checkbox" checked={loop} onChange={(e) => put({ loop: e.target.checked })} /> again and
          again
        </label>
        <label className="flex gap-2">
          <input type="checkbox" checked={countIn} onChange={(e) => put({ countIn: e.target.checked })} />{' '}
          count in
        </label>
        <Level label="Notes" value={notes} onValue={(to) => put({ notes: to })} />
        <Level label="Click" value={click} onValue={(to) => put({ click: to })} />
        <p role="status" className="font-semibold">
          {playing === 'soon' && 'Getting the sound…'}
          {playing === 'failed' && 'The sound could not be started: try again.'}
        </p>
        {beat !== null && (
          <p aria-hidden className="font-reading text-2xl font-bold">
            {beat}
          </p>
        )}
      </div>
      <Tempos params={params} on={on} put={put} round={round} />
      <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <div className="flex flex-col gap-3">
          <p>Good for {drill.goodFor}.</p>
          <div className="grid grid-cols-2 items-end gap-3">
            <OptionFields
              key={drill.kind}
              options={drill.options}
              spec={spec}
              strings={model.neck.open.length}
              degrees={model.degrees}
              onSpec={(next) => put({ drill: next, part: null, step: 0 })}
            />
            <Field label="How the notes are struck">
              <Choice value={params.touch} options={TOUCHES} onChange={(touch) => put({ touch, step: 0 })} />
            </Field>
            <Field label="Strokes">
              <Choice value={school} options={PICKING_SCHOOLS} onChange={(to) => put({ school: to })} />
            </Field>
            {perBeat === 2 && (
              <Field label="Swing in per cent" hint="50 is straight, 67 is triplets.">
                <Whole
                  value={swing}
                  min={SWING.least}
                  max={SWING.most}
                  onChange={(to) => put({ swing: to })}
                />
              </Field>
            )}
          </div>
          {played && <p className="text-sm">{strokesSaid(model, played, school)}</p>}
          {accent && <p className="text-sm">{accent}</p>}
        </div>
        {now.played.ok ? (
          <div className="flex flex-col gap-3">
            {now.played.value.remark && (
              <p className="text-sm font-semibold">{now.played.value.remark.message}</p>
            )}
            <div
              role="group"
              aria-label="Notes that are played"
              className="flex flex-wrap items-center gap-1.5"
            >
              <button
                type="button"
                className="button"
                onClick={() => put({ part: [params.step, Math.max(params.step, last)] })}
              >
                Begin at this note
              </button>
              <button
                type="button"
                className="button"
                onClick={() => put({ part: [Math.min(first, params.step), params.step] })}
              >
                End at this note
              </button>
              {part && (
                <button type="button" className="button" onClick={() => put({ part: null })}>
                  Play all notes
                </button>
              )}
              <span className="text-sm text-soft">
                {part ? `Notes ${first + 1} to ${last + 1} are played.` : 'All notes are played.'}
              </span>
            </div>
            <Way
              read={readOf(model, now.played.value.fingering, now.played.value.run)}
              step={params.step}
              onStep={onStep}
              name={drill.name}
              moving={on}
            />
          </div>
        ) : (
          <p className="error">{now.played.error.message}</p>
        )}
      </div>
    </div>
  );
}

interface LevelProps {
  readonly label: string;
  readonly value: number;
  readonly onValue: (value: number) => void;
}

/** How loud something is; at 0 it is not heard. */
const Level = ({ label, value, onValue }: LevelProps) => (
  <label className="flex items-center gap-2">
    {label}
    <input
      type="range"
      min={0}
      max={100}
      step={5}
      className="w-24"
      aria-valuetext={value === 0 ? 'not heard' : `${value} per cent`}
      value={value}
      onChange={(e) => onValue(Number(e.target.value))}
    />
  </label>
);

interface TemposProps {
  readonly params: PracticeParams;
  readonly on: boolean;
  readonly put: (part: Partial<PracticeParams>) => void;
  readonly round: (clean: boolean) => void;
}

/** The ladder of tempos: after so many rounds that the player calls clean it goes up a step. */
function Tempos({ params: { ladder, tempo, rung }, on, put, round }: TemposProps) {
  const [step, rounds] = [LADDER_LIMITS.step, LADDER_LIMITS.rounds];
  const left = ladder ? ladder.rounds - rung.clean : 0;
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <label className="flex gap-2">
        <input
          type="checkbox"
          checked={ladder !== null}
          onChange={(e) =>
            put({ ladder: e.target.checked ? USUAL_LADDER : null, rung: { clean: 0, best: null } })
          }
        />{' '}
        go up in tempo
      </label>
      {ladder && (
        <>
          <label className="flex items-center gap-2">
            up to
            <Whole
              className="!w-20"
              value={ladder.to}
              min={TEMPO.least}
              max={TEMPO.most}
              onChange={(to) => put({ ladder: { ...ladder, to } })}
            />
          </label>
          <label className="flex items-center gap-2">
            by
            <Whole
              className="!w-20"
              value={ladder.step}
              min={step[0]}
              max={step[1]}
              onChange={(by) => put({ ladder: { ...ladder, step: by } })}
            />
          </label>
          <label className="flex items-center gap-2">
            after clean rounds
            <Whole
              className="!w-20"
              value={ladder.rounds}
              min={rounds[0]}
              max={rounds[1]}
              onChange={(many) => put({ ladder: { ...ladder, rounds: many } })}
            />
          </label>
          {on && (
            <>
              <button
                type="button"
                className={`button button-strong ${IN_REACH} max-[760px]:left-3`}
                aria-keyshortcuts={CLEAN_KEY}
                onClick={() => round(true)}
              >
                That was clean
              </button>
              <button type="button" className="button" onClick={() => round(false)}>
                Not yet
              </button>
            </>
          )}
          <p role="status" className="text-sm">
            {rung.best !== null && rung.best >= ladder.to
              ? `Clean at ${rung.best}: the end of the ladder.`
              : `${plural(left, 'clean round')} to go at ${tempo}${rung.best === null ? '' : `; clean so far at ${rung.best}`}.`}
          </p>
        </>
      )}
    </div>
  );
}
