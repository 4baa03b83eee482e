import {
  type DaySum,
  dayAfter,
  daysBetween,
  type PractisedThing,
  type RoundQuery,
  type TempoGoal,
  type KeyWent,
  type KeptRound,
  type PositionWent,
  type Went,
  weekOf,
} from '@crow-ladder/contract';
import { degreeName, keySaid, note, plural, pretty, resolveScale, scaleSaid } from '@crow-ladder/core';

import { stepAWeek } from '@crow-ladder/core/practice';
import { daySaid, noonOf } from '../../ui/dates.ts';
import { NOTE_LENGTHS } from '../../ui/labels.ts';

const MINUTE_MS = 60_000;

/** How long something took: "1 h 20 min". */
export function longSaid(ms: number): string {
  const minutes = Math.round(ms / MINUTE_MS);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  if (minutes === 0) return ms > 0 ? 'under a minute' : '0 min';
  return [hours && `${hours} h`, rest && `${rest} min`].filter(Boolean).join(' ');
}
/** All the time of a day. */
export const msOf = ({ playedMs, recalledMs }: Pick<DaySum, 'playedMs' | 'recalledMs'>): number =>
  playedMs + recalledMs;
export const msOfAll = (days: readonly DaySum[]): number => days.reduce((sum, it) => sum + msOf(it), 0);

/** "C♯ Dorian"; the id of a scale that is not known any more stands for itself. */
export function keyNamed({ root, scale }: Pick<KeyWent, 'root' | 'scale'>): string {
  const found = resolveScale(scale);
  return found.ok ? keySaid({ root: note(root), scale: found.value }) : `${pretty(root)} ${scale}`;
}
/** "Dorian from its ♭3". */
export function positionNamed({ scale, start }: Pick<PositionWent, 'scale' | 'start'>): string {
  const found = resolveScale(scale);
  const degree = found.ok ? found.value.degrees[start] : undefined;
  if (!found.ok || !degree) return scale;
  return `${scaleSaid(found.value)} from its ${start === 0 ? 'root' : pretty(degreeName(degree))}`;
}
/** "5 of 12". */
export const notSaid = ({ not, of }: Went): string => `${not} of ${of}`;

/** A round by its tempo and what was said of it: "103 clean", "101 not yet". */
export const roundSaid = ({ tempo, clean }: Pick<KeptRound, 'tempo' | 'clean'>): string =>
  [tempo ?? '', clean === null ? '' : clean ? 'clean' : 'not yet'].filter((it) => it !== '').join(' ');
/** Rounds in the order in which they were played, the last one given first: "3 rounds: 99 clean, 101 not yet, 103 clean." */
export function roundsSaid(rounds: readonly KeptRound[]): string {
  const each = [...rounds].reverse().map(roundSaid).filter(Boolean);
  return `${plural(rounds.length, 'round')}${each.length ? `: ${each.join(', ')}` : ''}`;
}

/** What days with anything on them come to: "2 h 5 min on 9 days: 31 rounds, 22 of them clean; 64 cards answered, 58 known." */
export function daysSaid(days: readonly DaySum[]): string {
  if (!days.length) return 'Nothing yet.';
  const sum = (of: (it: DaySum) => number): number => days.reduce((all, it) => all + of(it), 0);
  const [rounds, answers] = [sum((it) => it.rounds), sum((it) => it.answers)];
  const parts = [
    rounds ? `${plural(rounds, 'round')}, ${sum((it) => it.clean)} of them clean` : '',
    answers ? `${plural(answers, 'card')} answered, ${sum((it) => it.known)} of them known` : '',
  ].filter(Boolean);
  return `${longSaid(msOfAll(days))} on ${plural(days.length, 'day')}: ${parts.join('; ')}.`;
}

/** The weeks from one day to another, each by its Monday with what is on its days; a day without anything is null. */
export function weeksOf(
  days: readonly DaySum[],
  from: string,
  to: string,
): readonly { readonly monday: string; readonly days: readonly (DaySum | null)[] }[] {
  const by = new Map(days.map((it) => [it.day, it]));
  const weeks: { monday: string; days: (DaySum | null)[] }[] = [];
  for (let monday = weekOf(from); monday <= to; monday = dayAfter(monday, 7))
    weeks.push({
      monday,
      days: Array.from({ length: 7 }, (_, i) => by.get(dayAfter(monday, i)) ?? null),
    });
  return weeks;
}

/** What was practised, in a word. */
export const thingId = ({ drill, shape, perBeat }: RoundQuery): string =>
  JSON.stringify([drill, shape, perBeat]);
export const thingName = ({ name, perBeat }: Pick<PractisedThing, 'name' | 'perBeat'>): string => {
  const length = NOTE_LENGTHS.find(({ id }) => id === String(perBeat))?.name;
  return length ? `${name}, in ${length}` : name;
};

/** What is left to a goal, in a sentence. */
export function goalSaid(goal: TempoGoal, best: number | null, today: string): string {
  const by = daySaid(noonOf(goal.by));
  if (best !== null && best >= goal.tempo) return `${goal.tempo} is reached: clean at ${best}.`;
  if (best === null) return `${goal.tempo} by ${by}. The step a week is told once something is clean.`;
  const days = daysBetween(today, goal.by);
  const step = stepAWeek({ from: best, to: goal.tempo, days });
  return step === null
    ? `${goal.tempo} was wanted by ${by}; clean at ${best} so far. Another day is as good.`
    : `${goal.tempo} by ${by}: ${step} more a week from ${best}, ${plural(days, 'day')} to go.`;
}

/** The way back to what was played, as it stood; null where nothing leads there. */
export const wayBack = (on: KeptRound['on']): string | null =>
  on?.back ? `/charts/${on.chart}/practice?${on.back}` : null;
