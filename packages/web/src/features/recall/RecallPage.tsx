import { type DueCard, type Grade, GRADES, type Settings } from '@crow-ladder/contract';
import { gradeOf, rememberedNext } from '@crow-ladder/contract/schedule';
import { pitchAt, type Place, placeId, plural } from '@crow-ladder/core';
import {
  CARD_KINDS,
  type Ground,
  groundOf,
  heardPlace,
  type Question,
  stringsAsked,
  stringsMissed,
  type Verdict,
} from '@crow-ladder/core/asking';
import { Undo2, Volume2 } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { type GivenAnswer, useAnswered, useCards, useDay, useRecall } from '../../app/recalled.ts';
import { useSettings } from '../../app/settings.ts';
import { type Trouble } from '../../app/trouble.ts';
import { HearMe } from '../../hearing/HearMe.tsx';
import { type Ears, useEars } from '../../hearing/useEars.ts';
import { useAnsweredByGuitar } from './useAnsweredByGuitar.ts';
import { useClock } from '../../ports/clock.ts';
import { soundOnce } from '../../sound/audio.ts';
import { strungAs } from '../../sound/voiceOf.ts';
import { Answers, AnswersTyped } from '../../ui/Answers.tsx';
import { daySaid, noonOf } from '../../ui/dates.ts';
import { useLetterKeys } from '../../ui/useLetterKeys.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { AskedNeck } from './AskedNeck.tsx';

/** An answer of this round, by which it can be taken back. */
interface Given {
  readonly card: DueCard;
  readonly review: string;
  readonly grade: Grade;
}

/** What is due, card by card: asked on the neck, judged at once; it can be left at any time. */
export function RecallPage() {
  useTitle('Recall');
  const { data, error, isFetching } = useRecall();
  const answered = useAnswered();
  const clock = useClock();
  const [began] = useState(() => clock.now());
  const before = useAnswered(began);
  const [round, setRound] = useState<readonly DueCard[] | null>(null);
  const [given, setGiven] = useState<readonly Given[]>([]);
  const [undone, setUndone] = useState<ReadonlySet<string>>(new Set());
  const [settings] = useSettings();
  const { answer, takeBack, rest, takeAway } = useCards();
  // The round is what was due when it began; what is answered meanwhile does not change it. What was answered in an earlier visit, and
  // waits to be sent, is no part of it.
  const waits = ({ id }: DueCard): boolean => before.includes(id);
  if (round === null ? data && !isFetching : round.some(waits))
    setRound((round ?? data!.cards).filter((it) => !waits(it)));
  // What was answered here stands as it does here; of the others, what is not due any more was answered in another tab. What was
  // read last counts while it is read anew, so that no card comes up that is answered already.
  const due = data && new Set(data.cards.map(({ id }) => id));
  const isLeft = ({ id }: DueCard): boolean =>
    !given.some((it) => it.card.id === id) && (undone.has(id) || !due || due.has(id));
  const left = round?.filter(isLeft) ?? [];
  const card = left[0] ?? null;
  const elsewhere = (round?.length ?? 0) - given.length - left.length;
  const last = given.at(-1);
  const undo = (): void => {
    if (!last) return;
    takeBack(last.review);
    setUndone(new Set([...undone, last.card.id]));
    setGiven(given.slice(0, -1));
  };
  /** What is due beyond this round, which takes so many at a time. */
  const more =
    data && !isFetching
      ? data.cards.filter(({ id }) => !answered.includes(id) && !given.some((it) => it.card.id === id))
      : [];
  const hearing = useEars();
  const drop = (id: string): void => setRound(round!.filter((it) => it.id !== id));
  useLetterKeys({ u: undo }, settings.letterKeys);
  if (round === null)
    return error ? <p className="error">{(error as Trouble).message}</p> : <Waiting what="what is due" />;
  return (
    <div className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="text-2xl font-semibold">Recall</h1>
        <p className="text-soft">
          {card ? `${plural(left.length, 'card')} left of ${round.length}` : ''}
          {elsewhere > 0 && ` (${elsewhere} answered elsewhere)`}
        </p>
        <button type="button" className="button button-quiet" disabled={!last} onClick={undo}>
          <Undo2 size={16} aria-hidden /> Take the last answer back
        </button>
        {card && (
          <HearMe
            hearing={hearing}
            text="Where spots are asked for, play them: each is ticked as it is heard, and the answer is judged once there are as many as are asked for."
          />
        )}
        <Link to="/today" className="ml-auto underline">
          Leave it here
        </Link>
      </div>
      {card ? (
        <Asked
          key={`${card.id} ${given.length}`}
          card={card}
          usual={data?.usual[card.card.kind] ?? null}
          settings={settings}
          hearing={hearing}
          onDone={(it) => {
            setGiven([...given, { card, grade: it.grade, review: answer(card.id, it) }]);
          }}
          onRest={() => {
            rest(card.id, true);
            drop(card.id);
          }}
          onAway={() => {
            takeAway(card.id);
            drop(card.id);
          }}
        />
      ) : (
        <Over
          given={given}
          more={more.length}
          onMore={() => {
            setRound(more);
            setGiven([]);
          }}
          next={data?.next ?? null}
          all={data?.all ?? 0}
        />
      )}
    </div>
  );
}

/** What came of a round. */
function Over({
  given,
  more,
  onMore,
  next,
  all,
}: {
  readonly given: readonly Given[];
  /** How many more are due. */
  readonly more: number;
  readonly onMore: () => void;
  readonly next: string | null;
  readonly all: number;
}) {
  const known = given.filter(({ grade }) => grade > 1).length;
  return (
    <div className="flex flex-col gap-3">
      <p role="status" className="font-reading text-2xl">
        {given.length
          ? `${plural(given.length, 'card')} answered, ${known} of them known.`
          : all
            ? 'Nothing is due today.'
            : 'There is nothing to recall yet: open a chart, and choose “Learn this” from its menu.'}
      </p>
      {more > 0 && (
        <button type="button" className="button button-strong self-start" onClick={onMore}>
          {`Go on with ${plural(more, 'more card')}`}
        </button>
      )}
      {more === 0 && next && <p>The next one is due on {daySaid(noonOf(next))}.</p>}
      <Link to="/today" className="button self-start">
        Today
      </Link>
    </div>
  );
}

interface AskedProps {
  readonly card: DueCard;
  readonly usual: number | null;
  readonly settings: Settings;
  readonly hearing: Ears;
  readonly onDone: (answered: GivenAnswer) => void;
  readonly onRest: () => void;
  readonly onAway: () => void;
}

/** A card: asked, answered, judged. */
function Asked(props: AskedProps) {
  const { card, settings, onRest, onAway } = props;
  const { fingering: school, spanMm } = settings;
  // Its answers go with it: that is asked once more.
  const [sure, setSure] = useState(false);
  const asked = useMemo(() => {
    const ground = groundOf(card.card, { school, spanMm });
    const question = ground.ok ? (CARD_KINDS.of(card.card.kind)?.ask(ground.value) ?? null) : null;
    return ground.ok && question ? { ground: ground.value, question } : null;
  }, [card, school, spanMm]);
  const acts = (
    <div className="flex flex-wrap gap-2">
      <button type="button" className="button button-quiet" onClick={onRest}>
        Let it rest
      </button>
      <button
        type="button"
        className={`button ${sure ? 'button-strong' : 'button-quiet'}`}
        onClick={() => (sure ? onAway() : setSure(true))}
      >
        {sure ? 'Take it away for good, with its answers' : 'Take it away'}
      </button>
    </div>
  );
  if (!asked)
    return (
      <>
        <p className="error">{`“${card.name}” cannot be asked any more: its position is not on its neck.`}</p>
        {acts}
      </>
    );
  return (
    <>
      <Answered {...props} {...asked} />
      {acts}
    </>
  );
}

/** Half a second between notes that are heard. */
const APART_MS = 450;
const LEVEL = 0.8;

function Answered({
  card,
  usual,
  settings,
  hearing,
  onDone,
  ground,
  question,
}: AskedProps & { readonly ground: Ground; readonly question: Question }) {
  const clock = useClock();
  const day = useDay();
  const [began] = useState(() => clock.now());
  // The one that is given and right stands there already; a whole shape is given to look at.
  const [ticked, setTicked] = useState<readonly Place[]>(() => {
    const { right, given } = question;
    if (given.length > 1) return [];
    const ids = new Set(right.by === 'ticks' ? right.places.map(placeId) : []);
    return given.filter((it) => ids.has(placeId(it)));
  });
  const [wrong, setWrong] = useState<readonly string[]>([]);
  const [first, setFirst] = useState<Verdict | null>(null);
  const [end, setEnd] = useState<{
    readonly verdict: Verdict;
    readonly grade: Grade;
    readonly ms: number;
  } | null>(null);
  const says = useRef<HTMLParagraphElement>(null);
  useEffect(() => says.current?.focus(), []);
  const { judge } = CARD_KINDS.of(card.card.kind)!;
  const judged = (verdict: Verdict): void => {
    // One correction is free: only then it is told what was right.
    if (!verdict.right && !first) {
      // What was too much cannot be unticked with the hands on the guitar.
      if (hearing.source)
        setTicked((now) => now.filter((it) => !verdict.extra.some((e) => placeId(e) === placeId(it))));
      return setFirst(verdict);
    }
    const ms = clock.now() - began;
    const tries = verdict.right ? (first ? 'corrected' : 'first') : 'wrong';
    setEnd({ verdict, grade: gradeOf(tries, ms, usual), ms });
  };
  const tick = (place: Place): void => {
    if (end) return;
    const is = placeId(place);
    const has = ticked.some((it) => placeId(it) === is);
    setTicked(has ? ticked.filter((it) => placeId(it) !== is) : [...ticked, place]);
  };
  const choose = (id: string): void => {
    setWrong([...wrong, id]);
    judged(judge(question, { by: 'choice', id }));
  };
  const hear = (): void => {
    const { voice } = strungAs(card.card.instrument);
    question.look.forEach((place, i) =>
      clock.after(
        i * APART_MS,
        () => void soundOnce(pitchAt(ground.neck, place.string, place.fret), voice, LEVEL),
      ),
    );
  };
  const done = (grade: Grade): void => {
    if (!end) return;
    // What was missed is what was wrong at first.
    const missed = stringsMissed(question, first ?? end.verdict);
    onDone({ grade, ms: end.ms, strings: stringsAsked(question), missed });
  };
  const check = (): void => judged(judge(question, { by: 'ticks', places: ticked }));
  useLetterKeys(
    {
      j: () => (end ? done(end.grade) : question.right.by === 'ticks' && check()),
      ...Object.fromEntries(GRADES.map(({ id }) => [String(id), () => done(id)])),
      h: () => end && hear(),
    },
    settings.letterKeys,
  );
  const onMidi = (midi: number): void => {
    if (end) return;
    const place = heardPlace(ground, question, ticked, midi);
    if (!place) return;
    const now = [...ticked, place];
    setTicked(now);
    if (right.by === 'ticks' && now.length >= right.places.length)
      judged(judge(question, { by: 'ticks', places: now }));
  };
  const { right } = question;
  useAnsweredByGuitar(hearing, card.card, ground, right.by === 'ticks' ? right.places : null, onMidi);
  return (
    <section aria-label="Card" className="flex flex-col gap-3">
      <p ref={says} tabIndex={-1} className="font-reading text-2xl outline-none">
        {question.says}
      </p>
      <AskedNeck
        card={card.card}
        ground={ground}
        question={question}
        ticked={ticked}
        verdict={end?.verdict ?? null}
        settings={settings}
        onTick={tick}
      />
      {right.by === 'choice' && !end && (
        <>
          <Answers choices={right.choices} wrong={wrong} onAnswer={choose} />
          <AnswersTyped />
        </>
      )}
      {right.by === 'ticks' && !end && (
        <button type="button" className="button button-strong self-start" onClick={check}>
          {`Judge ${plural(ticked.length, 'spot')}`}
        </button>
      )}
      <p role="status" className="min-h-[1.5em] font-semibold">
        {end
          ? `${end.verdict.said} ${end.verdict.right ? '' : question.told}`
          : first
            ? `${first.said} Correct it once.`
            : ''}
      </p>
      {end && (
        <div className="flex flex-wrap items-center gap-2">
          <button type="button" autoFocus className="button button-strong" onClick={() => done(end.grade)}>
            Go on
          </button>
          <button type="button" className="button" onClick={hear}>
            <Volume2 size={16} aria-hidden /> Hear it
          </button>
          <div role="group" aria-label="How it was" className="flex flex-wrap gap-2">
            {GRADES.map(({ id, name }) => (
              <button
                key={id}
                type="button"
                className="button"
                aria-pressed={id === end.grade}
                onClick={() => setEnd({ ...end, grade: id })}
              >
                {`${name}: ${daySaid(noonOf(dueAfter(card, day, id)))}`}
              </button>
            ))}
          </div>
        </div>
      )}
      <p className="text-sm text-soft">
        {right.by === 'ticks'
          ? 'Arrow keys walk over the neck, Enter ticks. J judges and goes on, 1 to 4 say how it was, H is heard, U takes the last answer back.'
          : 'J goes on, 1 to 4 say how it was, H is heard, U takes the last answer back.'}
      </p>
    </section>
  );
}

/** The day on which a card is due after an answer. */
function dueAfter({ remembered }: DueCard, day: string, grade: Grade): string {
  return rememberedNext(remembered, { day, grade }).due;
}
