import {
  type ChartState,
  chartWords,
  dayAfter,
  dayAt,
  type Grade,
  type KeptRound,
  type PlayedOn,
  type Remembered,
  refWord,
  specWords,
} from '@crow-ladder/contract';
import { rememberedNext } from '@crow-ladder/contract/schedule';
import { frontOf, refOf, shapeOf } from '@crow-ladder/core';
import {
  CARD_KINDS,
  cardsOf,
  groundOf,
  laidFor,
  type LessonId,
  type NewCard,
  stringsAsked,
} from '@crow-ladder/core/asking';
import { DRILLS, drillTitle, type DrillSpec } from '@crow-ladder/core/drills';
import { type HandOptions } from '@crow-ladder/core/run';
import { type Knex } from 'knex';
import { nanoid } from 'nanoid';
import { DEMO } from '../demo.ts';
import { roundRow } from '../practice.ts';
import { addCards, remember, reviewRow } from '../recall.ts';
import { type ReviewRow } from '../tables.ts';

const MINUTE_MS = 60_000;
/** The evening of a day, where the player is: minutes after midnight. */
const EVENING = 19 * 60 + 30;
/** The evenings of three weeks before the first start on which the house band's guitarist practised; the others are gaps. */
const EVENINGS = [-21, -20, -19, -17, -16, -15, -11, -10, -8, -7, -6, -4, -3, -1];

/** What was practised: a drill on a tune's position or on one of its phrases, from which tempo, how much faster from evening to evening. */
interface Practising {
  readonly tune: string;
  readonly drill: DrillSpec;
  readonly perBeat: number;
  readonly phrase?: string;
  readonly from: number;
  readonly step: number;
  /** On every how manyth evening, and how many rounds then. */
  readonly every: number;
  readonly rounds: number;
  /** Of how many rounds one is not clean. */
  readonly slips: number;
  readonly note?: string;
}
const PRACTISED: readonly Practising[] = [
  {
    tune: 'Slow Bow Door',
    drill: { kind: 'groups', length: 3, topTwice: false },
    perBeat: 2,
    from: 60,
    step: 3,
    every: 1,
    rounds: 3,
    slips: 4,
    note: 'Ring finger late on the way down.',
  },
  {
    tune: 'Lifeboat Drill',
    drill: { kind: 'straight' },
    perBeat: 4,
    from: 66,
    step: 4,
    every: 2,
    rounds: 3,
    slips: 5,
  },
  {
    tune: 'Thrusters at Dawn',
    drill: { kind: 'up-and-down', topTwice: false },
    perBeat: 3,
    from: 54,
    step: 2,
    every: 3,
    rounds: 4,
    slips: 2,
    note: 'The low B string rings on.',
  },
  {
    tune: 'Duty-Free Shuffle',
    drill: { kind: 'straight' },
    perBeat: 2,
    phrase: 'The cabin lick',
    from: 70,
    step: 3,
    every: 4,
    rounds: 2,
    slips: 6,
  },
];
/** What is learned, in this order. */
const LEARNED: readonly (readonly [tune: string, lessons: readonly LessonId[]])[] = [
  ['Slow Bow Door', ['roots', 'position', 'seams']],
  ['Duty-Free Shuffle', ['roots', 'position', 'seams', 'degrees']],
];
/** Rows that go into a table at a time. */
const ROWS = 40;
/** New cards of an evening. */
const FRESH = 4;

interface Tune {
  readonly id: string;
  readonly name: string;
  readonly state: ChartState;
}
const baseOf = ({ state: { key, layout, instrument, at, front } }: Tune) => {
  const of = { root: key.root, scale: key.scale, layout, instrument };
  const laid = laidFor(of);
  const positions = laid.ok ? laid.value.positions : [];
  const found = frontOf(positions, front, at);
  return found && { ...of, ref: refOf(positions, found.position) };
};

const { word: drillWord } = specWords(DRILLS);

/** A grade by chance that is the same each time: mostly known, at times with a correction, at times forgotten. */
const gradeFor = (nth: number): Grade => (nth % 11 === 4 ? 1 : nth % 7 === 2 ? 2 : nth % 5 === 3 ? 4 : 3);

/** Three weeks of practice and recall before a moment, in ms, on the charts of the demo; what is kept of it for when the demo goes. */
export async function seedDemoLog(
  trx: Knex,
  tunes: readonly Tune[],
  now: number,
  hand: HandOptions,
): Promise<{ readonly cards: readonly string[] }> {
  const ahead = -new Date(now).getTimezoneOffset();
  const today = dayAt(now, ahead);
  const momentOf = (day: string, minute: number): string =>
    new Date(Date.parse(`${day}T00:00:00Z`) + (EVENING + minute - ahead) * MINUTE_MS).toISOString();
  const tuneOf = (name: string): Tune => tunes.find((it) => it.name === name)!;

  const rounds: KeptRound[] = [];
  let nth = 0;
  for (const [evening, offset] of EVENINGS.entries()) {
    const day = dayAfter(today, offset);
    let minute = 0;
    for (const it of PRACTISED) {
      if (evening % it.every) continue;
      const tune = tuneOf(it.tune);
      const base = baseOf(tune);
      const ground = base && groundOf({ ...base, of: '' }, hand);
      if (!base || !ground?.ok) continue;
      const { position, names, key } = ground.value;
      const kind = DRILLS.of(it.drill.kind)!;
      const what = it.phrase === undefined ? names[position.index]! : `the phrase “${it.phrase}”`;
      for (let round = 0; round < it.rounds; round++, nth++) {
        const tempo = it.from + it.step * Math.floor(evening / it.every) + round * 2;
        const words = new URLSearchParams({
          ...chartWords(tune.state),
          front: refWord(base.ref),
          drill: drillWord(it.drill),
          beat: String(it.perBeat),
          ...(it.phrase !== undefined && { on: `phrase.${it.phrase}` }),
          tempo: String(tempo),
        });
        const on: PlayedOn = {
          chart: tune.id,
          chartName: tune.name,
          root: tune.state.key.root,
          scale: tune.state.key.scale,
          start: position.start,
          back: words.toString(),
        };
        const kept: KeptRound = {
          id: `${DEMO}${nanoid(12)}`,
          at: momentOf(day, minute),
          day,
          drill: drillWord(it.drill),
          shape:
            it.phrase === undefined
              ? `${key.scale.id} ${shapeOf(position)}`
              : `${key.scale.id} phrase ${it.phrase}`,
          name: `${drillTitle(kind, it.drill)} on ${what}`,
          perBeat: it.perBeat,
          tempo,
          clean: (nth * 3 + evening) % it.slips !== 0,
          ms: (90 + ((nth * 37) % 110)) * 1000,
          on,
          note: round === 0 && evening % 5 === 2 ? (it.note ?? '') : '',
        };
        rounds.push(kept);
        minute += 3;
      }
    }
  }

  await trx.batchInsert('practice', rounds.map(roundRow), ROWS);

  const cards: readonly NewCard[] = LEARNED.flatMap(([name, lessons]) => {
    const base = baseOf(tuneOf(name));
    return base ? cardsOf(base, lessons, hand) : [];
  });
  await addCards(
    cards.map((card) => ({ ...card, made: momentOf(dayAfter(today, EVENINGS[0]!), 0), rested: false })),
    trx,
  );
  const strings = new Map(
    cards.map(({ id, card }) => {
      const ground = groundOf(card, hand);
      const question = ground.ok ? CARD_KINDS.of(card.kind)?.ask(ground.value) : null;
      return [id, question ? stringsAsked(question) : []];
    }),
  );
  const known = new Map<string, Remembered>();
  const reviews: ReviewRow[] = [];
  for (const offset of EVENINGS) {
    const day = dayAfter(today, offset);
    const due = cards.filter(({ id }) => (known.get(id)?.due ?? '9') <= day);
    const fresh = cards.filter(({ id }) => !known.has(id)).slice(0, FRESH);
    for (const [i, { id, card }] of [...due, ...fresh].entries()) {
      const grade = gradeFor(reviews.length);
      const asked = strings.get(id)!;
      const review = {
        id: `${DEMO}${nanoid(12)}`,
        cardId: id,
        at: momentOf(day, -10 + Math.floor(i / 5)),
        day,
        grade,
        ms: 4000 + ((reviews.length * 1300) % 14_000),
        strings: asked,
        // Where it goes wrong, it does where a shape crosses to the second string.
        missed: grade > 2 ? [] : asked.filter((s) => s === 2 || (grade === 1 && s === 3)),
      };
      reviews.push(reviewRow(review, card.kind));
      known.set(id, rememberedNext(known.get(id) ?? null, review));
    }
  }
  await trx.batchInsert('reviews', reviews, ROWS);
  for (const { id } of cards) await remember(id, trx);
  return { cards: cards.map(({ id }) => id) };
}
