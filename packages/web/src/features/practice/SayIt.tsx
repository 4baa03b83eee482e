import { spotSaid } from '@crow-ladder/core';
import { type Run } from '@crow-ladder/core/run';
import { judgeChoice, type Offered } from '@crow-ladder/core/asking';
import { useEffect, useRef, useState } from 'react';
import { type Model } from '../../model/model.ts';
import { Answers, AnswersTyped } from '../../ui/Answers.tsx';
import { answersOf, answerOf, type Saying } from './asking.ts';

interface SayItProps {
  readonly model: Model;
  readonly run: Run;
  readonly drill: string;
  readonly say: Saying;
  /** The note that is asked for or heard, from 0. */
  readonly step: number;
}

const ASKED: Readonly<Record<Saying, string>> = { note: 'name', degree: 'degree' };

/** Said aloud to the clock: what comes next, and what sounds now. */
export function SayAloud({ model, run, drill, say, step, on }: SayItProps & { readonly on: boolean }) {
  const next = run[on ? step + 1 : step];
  return (
    <p className="flex flex-wrap items-baseline gap-x-6 font-reading text-2xl">
      {on && <b className="min-w-[3ch] text-4xl">{answerOf(model, say, drill, run[step]!.spot)}</b>}
      <span>{next ? `Say the ${ASKED[say]} of ${spotSaid(next.spot)}` : 'The last one.'}</span>
    </p>
  );
}

interface ChooseProps extends SayItProps {
  readonly onStep: (step: number) => void;
  readonly sound: (midi: number) => void;
}

/** One note after the other is asked for, and sounds when it was answered. */
export function Choose({ model, run, drill, say, step, onStep, sound }: ChooseProps) {
  const [tried, setTried] = useState<{ readonly step: number; readonly wrong: readonly string[] }>({
    step: 0,
    wrong: [],
  });
  const [right, setRight] = useState(0);
  const [said, setSaid] = useState('');
  const group = useRef<HTMLDivElement>(null);
  const over = step >= run.length;
  const spot = run[Math.min(step, run.length - 1)]!.spot;
  const asked = answerOf(model, say, drill, spot);
  const answers = answersOf(
    model,
    say,
    drill,
    run.map((s) => s.spot),
  );
  const choices = answers.map((it): Offered => ({ id: it, name: it }));
  const wrong = tried.step === step ? tried.wrong : [];
  const answer = (id: string): void => {
    const verdict = judgeChoice({ right: { by: 'choice', id: asked, choices } }, { by: 'choice', id });
    setSaid(verdict.said);
    if (!verdict.right) return setTried({ step, wrong: [...wrong, id] });
    sound(spot.midi);
    if (!wrong.length) setRight(right + 1);
    onStep(step + 1);
  };
  const again = (): void => {
    setRight(0);
    setSaid('');
    onStep(0);
  };
  const wasOver = useRef(over);
  useEffect(() => {
    // The buttons come back where the one that had the focus went.
    if (wasOver.current && !over) group.current?.querySelector('button')?.focus();
    wasOver.current = over;
  }, [over]);
  return (
    <section aria-label="Say it" className="flex flex-col gap-2">
      <p role="status" aria-label="The question" className="font-reading text-2xl">
        {over
          ? `All ${run.length} answered, ${right} of them at the first try.`
          : `Which ${ASKED[say]} has ${spotSaid(spot)}?`}
      </p>
      <p role="status" className="min-h-[1.5em] font-semibold">
        {said}
        {!over && step > 0 && (
          <span className="font-normal text-soft">{` ${right} of ${step} at the first try.`}</span>
        )}
      </p>
      {over ? (
        <button type="button" className="button self-start" onClick={again}>
          Ask me again
        </button>
      ) : (
        <Answers choices={choices} wrong={wrong} onAnswer={answer} alone group={group} />
      )}
      <AnswersTyped />
    </section>
  );
}
