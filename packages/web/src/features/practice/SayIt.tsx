import { spotSaid } from '@crow-ladder/core';
import { type Run } from '@crow-ladder/core/run';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { type Model } from '../../model/model.ts';
import { answersAt, answersOf, answerOf, type Saying } from './asking.ts';

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
  const wrong = tried.step === step ? tried.wrong : [];
  const buttons = (): readonly HTMLButtonElement[] => [...(group.current?.querySelectorAll('button') ?? [])];
  const answer = (it: string): void => {
    if (it !== asked) {
      setTried({ step, wrong: [...wrong, it] });
      setSaid(`It is not ${it}.`);
      return;
    }
    sound(spot.midi);
    if (!wrong.length) setRight(right + 1);
    setSaid(`${asked}: right.`);
    onStep(step + 1);
  };
  // One answer that a key stands for is given; of several, the keyboard goes to the next one. No other letter or figure leads away.
  const onKey = useEffectEvent((e: KeyboardEvent): void => {
    if (over || e.ctrlKey || e.metaKey || e.altKey || e.key.length > 1 || e.key === ' ') return;
    if ((e.target as Element).closest('input, textarea, select, [role="dialog"]')) return;
    e.preventDefault();
    e.stopPropagation();
    const found = answersAt(answers, e.key);
    if (found.length === 1) return answer(found[0]!);
    const at = found.indexOf(document.activeElement?.textContent ?? '');
    const to = found[(at + 1) % found.length];
    buttons()
      .find((b) => b.textContent === to)
      ?.focus();
  });
  useEffect(() => {
    // Whatever has the focus.
    const listen = (e: KeyboardEvent): void => onKey(e);
    window.addEventListener('keydown', listen, { capture: true });
    return () => window.removeEventListener('keydown', listen, { capture: true });
  }, []);
  const again = (): void => {
    setRight(0);
    setSaid('');
    onStep(0);
  };
  const wasOver = useRef(over);
  useEffect(() => {
    // The buttons come back where the one that had the focus went.
    if (wasOver.current && !over) buttons()[0]?.focus();
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
        <div ref={group} role="group" aria-label="Answers" className="flex flex-wrap gap-2">
          {answers.map((it) => (
            <button
              key={it}
              type="button"
              className="button min-w-14 justify-center text-lg"
              aria-disabled={wrong.includes(it)}
              onClick={() => answer(it)}
            >
              {it}
            </button>
          ))}
        </div>
      )}
      <p className="text-sm text-soft">
        A key is enough: the letter of a note, the figure of a degree. Where two begin alike, it goes from one
        to the other, and Enter answers.
      </p>
    </section>
  );
}
