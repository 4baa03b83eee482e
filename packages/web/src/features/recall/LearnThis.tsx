import { dayAfter, RECALL_LIMITS } from '@crow-ladder/contract';
import { plural, refOf } from '@crow-ladder/core';
import { cardsOf, type LessonId, LESSONS } from '@crow-ladder/core/asking';
import { useMemo, useState } from 'react';
import { said } from '../../app/notice.ts';
import { useCards, useDay, useRecall } from '../../app/recalled.ts';
import { useSend } from '../../app/state.ts';
import { type Model } from '../../model/model.ts';
import { daySaid, noonOf } from '../../ui/dates.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { Switch } from '../../ui/Switch.tsx';

interface LearnThisProps {
  readonly model: Model;
  readonly onClose: () => void;
}
const AT_FIRST: readonly LessonId[] = ['roots', 'position', 'seams'];

/** What of a chart is to be learned, and how long that takes. */
export function LearnThis({ model, onClose }: LearnThisProps) {
  const [lessons, setLessons] = useState(AT_FIRST);
  const { learn } = useCards();
  const send = useSend();
  const today = useDay();
  const { data } = useRecall();
  const { state, front, positions, hand } = model;
  const base = useMemo(
    () =>
      front &&
      positions.ok && {
        root: state.key.root,
        scale: state.key.scale,
        layout: state.layout,
        instrument: state.instrument,
        ref: refOf(positions.value, front.position),
      },
    [state, front, positions],
  );
  const cards = useMemo(() => (base ? cardsOf(base, lessons, hand) : []), [base, lessons, hand]);
  const take = (): void => {
    learn(cards);
    send(said({ text: `${plural(cards.length, 'card')} to learn: they come under Today.` }));
    onClose();
  };
  const days = Math.ceil((cards.length + (data?.waiting ?? 0) + (data?.fresh ?? 0)) / RECALL_LIMITS.fresh);
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Learn this"
      text="What you choose is asked for on the neck, a little each day, and again just before it would be forgotten."
    >
      <div className="flex flex-col gap-4">
        <div role="group" aria-label="What to learn" className="flex flex-col gap-2">
          {LESSONS.map(({ id, name }) => (
            <Switch
              key={id}
              on={lessons.includes(id)}
              onChange={(on) => setLessons(on ? [...lessons, id] : lessons.filter((it) => it !== id))}
            >
              {name}
            </Switch>
          ))}
        </div>
        <p role="status">
          {cards.length
            ? `${plural(cards.length, 'card')}, at most ${RECALL_LIMITS.fresh} new ones a day: the last one comes on ${daySaid(noonOf(dayAfter(today, Math.max(0, days - 1))))}.`
            : 'Choose what is to be learned.'}
        </p>
        <button
          type="button"
          className="button button-strong self-start"
          disabled={!cards.length}
          onClick={take}
        >
          Learn it
        </button>
      </div>
    </Dialog>
  );
}
