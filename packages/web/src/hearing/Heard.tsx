import { plural } from '@crow-ladder/core';
import { IN_TUNE_CENTS, type NoteVerdict, type RoundSummary } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { type Level } from '../workers/listening.ts';
import { type HeardNotes } from './heardNotes.ts';
import { type Told } from './told.ts';

/** Below this it is silent, above the other it is more than the input can take, from 0 to 1. */
const SILENT = 0.0012;
const FULL = 0.98;
/** After so many seconds of silence it is said. */
const LONG = 4;
/** What is louder than this for so many seconds, and never louder or softer by more than this, is no string: it would die away. */
const NOISE = { rms: 0.006, seconds: 1.2, steady: 1.5 };

/** Whether what came in is hum or hiss. */
function isNoise(levels: readonly Level[]): boolean {
  const rms = levels.map((it) => it.rms);
  const lasts = (levels.at(-1)?.at ?? 0) - (levels[0]?.at ?? 0);
  return (
    lasts >= NOISE.seconds &&
    Math.min(...rms) > NOISE.rms &&
    Math.max(...rms) < NOISE.steady * Math.min(...rms)
  );
}

/** That the page listens, how loud it is, and what is wrong with that; `before` anything was played, noise too. */
export function Listens({ loud, before }: { readonly loud: Told<Level>; readonly before: boolean }) {
  const level = useSyncExternalStore(loud.subscribe, loud.now);
  const last = useRef<number | null>(null);
  const heard = useRef<readonly Level[]>([]);
  const [said, say] = useState('');
  useEffect(() => {
    if (!level) return;
    last.current ??= level.at;
    if (level.rms > SILENT) last.current = level.at;
    heard.current = [...heard.current.filter(({ at }) => at > level.at - NOISE.seconds - 0.1), level];
    if (level.peak > FULL) say('Too loud for the input: turn it down there.');
    else if (level.at - last.current > LONG)
      say('Nothing is heard: is the guitar turned up, and is it this input?');
    else if (before && isNoise(heard.current))
      say(
        'There is a steady noise: turn the guitar up, or what hums or hisses down; soft notes are lost in it.',
      );
    else say('');
  }, [level, before]);
  // Loudness as ears take it: from −60 dB to full.
  const part = level ? Math.max(0, Math.min(1, 1 + Math.log10(level.rms + 1e-6) / 3)) : 0;
  return (
    <div className="flex items-center gap-2">
      <span aria-hidden className="hearing-light" style={{ '--loud': part } as React.CSSProperties} />
      <span className="text-sm font-semibold">Listening</span>
      <p role="status" className="text-sm empty:hidden">
        {said}
      </p>
    </div>
  );
}

/** How many notes of a round were heard as they should be, as they come. */
export function CountHeard({ verdicts, extra }: Pick<HeardNotes, 'verdicts' | 'extra'>) {
  const all = [...verdicts.values()];
  const count = (is: NoteVerdict['is']): number => all.filter((v) => v.is === is).length;
  const [right, wrong, missed] = [count('right'), count('wrong'), count('missed')];
  return (
    <p className="font-reading text-xl" aria-hidden>
      {right} right{wrong > 0 && `, ${wrong} wrong`}
      {missed > 0 && `, ${missed} missed`}
      {extra.length > 0 && `, ${extra.length} too many`}
    </p>
  );
}

/** So many faults of a round are named; more are too many to think of. */
const NAMED = 6;

/** Which notes were wrong, and what was heard there, or not heard at all, or too much: of a run, by the names of its pitches. */
export function faultsSaid(
  run: Run,
  { verdicts, extra }: Pick<HeardNotes, 'verdicts' | 'extra'>,
  nameOf: (midi: number) => string,
): string {
  const note = (step: number): string => `note ${step + 1}, ${nameOf(run[step]!.spot.midi)}`;
  const faults = [
    ...[...verdicts].flatMap(([step, v]) => {
      if (v.is === 'right') return [];
      return [`${note(step)}${v.is === 'missed' ? ', was not heard' : `: ${nameOf(v.midi)} instead`}`];
    }),
    ...extra.map(({ after, midi }) =>
      after < 0 ? `${nameOf(midi)} before note 1` : `${nameOf(midi)} too many after ${note(after)}`,
    ),
  ];
  if (!faults.length) return '';
  const [first, ...others] = faults.slice(0, NAMED);
  const more = faults.length - NAMED;
  const said = [`${first![0]!.toUpperCase()}${first!.slice(1)}`, ...others].join('; ');
  return `${said}${more > 0 ? `; and ${more} more` : ''}.`;
}

/** Less than this nobody hears between strong and weak notes, in dB: this project's own judgement. */
const UNEVEN_DB = 3;
const ms = (n: number): string => `${Math.round(Math.abs(n))} ms`;

/** What is said of a round, in sentences. */
export function summarySaid(
  it: RoundSummary,
  delay: number | null,
  noteName: (step: number) => string,
): readonly string[] {
  const faults = [
    it.wrong > 0 && plural(it.wrong, 'wrong note'),
    it.missed > 0 && `${it.missed} missed`,
    it.extra > 0 && `${it.extra} too many`,
  ].filter((x) => x !== false);
  const [worst] = it.lateMoves;
  return [
    `${it.right} of ${plural(it.asked, 'note')} right${faults.length ? `: ${faults.join(', ')}` : ''}.`,
    ...(it.spread === null
      ? []
      : [
          `${delay !== null && it.mean !== null && Math.abs(it.mean) >= 5 ? `${it.mean > 0 ? 'Dragging' : 'Rushing'} by ${ms(it.mean)}, even` : 'Even'} to ${ms(it.spread)}.`,
        ]),
    ...(it.accent !== null && Math.abs(it.accent) >= UNEVEN_DB
      ? [
          `Notes on the beat are ${Math.round(Math.abs(it.accent))} dB ${it.accent > 0 ? 'louder' : 'softer'} than those between.`,
        ]
      : []),
    ...(worst
      ? [
          `The ${worst.move === 'shift' ? 'shift' : 'crossing'} to note ${worst.step + 1}, ${noteName(worst.step)}, is late by ${ms(worst.ms)}.`,
        ]
      : []),
    ...it.offBends
      .slice(0, NAMED)
      .map(
        ({ step, cents }) =>
          `The bend of note ${step + 1}, ${noteName(step)}, is ${Math.round(Math.abs(cents))} cents ${cents > 0 ? 'sharp' : 'flat'}.`,
      ),
    ...(it.cents !== null && Math.abs(it.cents) > IN_TUNE_CENTS
      ? [`The guitar is ${Math.round(Math.abs(it.cents))} cents ${it.cents > 0 ? 'sharp' : 'flat'}: tune it.`]
      : []),
  ];
}
