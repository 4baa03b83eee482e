import { pretty, scaleSaid, spotSaid, tuningSaid } from '@crow-ladder/core';
import { layoutName } from '@crow-ladder/core/layouts';
import { lazy, memo, type ReactNode, Suspense, useEffect } from 'react';
import { type Model } from '../../model/model.ts';
import { type Change } from '../../model/moves.ts';
import { intoPanel } from '../../ui/focus.ts';
import { afterPaint } from '../../ui/later.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { Word } from '../../ui/Word.tsx';
// What opens is loaded when it is first opened.
const RootPart = lazy(() => import('./RootPart.tsx').then((m) => ({ default: m.RootPart })));
const ScalePart = lazy(() => import('./ScalePart.tsx').then((m) => ({ default: m.ScalePart })));
const SpotPart = lazy(() => import('./SpotPart.tsx').then((m) => ({ default: m.SpotPart })));
const LayoutPart = lazy(() => import('./LayoutPart.tsx').then((m) => ({ default: m.LayoutPart })));
const TuningPart = lazy(() => import('./TuningPart.tsx').then((m) => ({ default: m.TuningPart })));

export type Part = 'root' | 'scale' | 'spot' | 'layout' | 'instrument';

interface SentenceProps {
  readonly model: Model;
  readonly open: Part | null;
  readonly onOpen: (part: Part | null) => void;
  readonly onChange: (change: Change) => void;
  readonly onPickOnNeck: () => void;
}

/** What was loaded after its panel had opened takes the focus that the panel itself was given meanwhile. */
function Landed({ children }: { children: ReactNode }) {
  useEffect(intoPanel, []);
  return children;
}

const opening = (part: ReactNode): ReactNode => (
  <Suspense fallback={<Waiting what="the choices" />}>
    <Landed>{part}</Landed>
  </Suspense>
);

/** The state of the chart as a player would say it; each part opens in place. */
export const Sentence = memo(function Sentence({
  model,
  open,
  onOpen,
  onChange,
  onPickOnNeck,
}: SentenceProps) {
  const { state, scale } = model;
  const { instrument } = state;
  const word = (part: Part) => ({
    open: open === part,
    onOpenChange: (is: boolean) => onOpen(is ? part : null),
  });
  const close = (change: Change): void => {
    onChange(change);
    afterPaint(() => onOpen(null));
  };
  const pick = (): void => {
    onOpen(null);
    onPickOnNeck();
  };
  return (
    <p className="font-reading text-[clamp(1.05rem,2.1vw,1.75rem)] leading-[1.45] min-[761px]:leading-relaxed">
      <Word
        name="Root"
        {...word('root')}
        body={opening(<RootPart model={model} onChange={close} onPickOnNeck={pick} />)}
      >
        {pretty(state.key.root)}
      </Word>{' '}
      <Word
        name="Scale"
        then=", root on"
        {...word('scale')}
        body={opening(<ScalePart state={state} onChange={close} />)}
      >
        {scaleSaid(scale)}
      </Word>{' '}
      <Word
        name="String and fret"
        then=","
        {...word('spot')}
        body={opening(<SpotPart model={model} onChange={onChange} onPickOnNeck={pick} />)}
      >
        {spotSaid(state.at)}
        {instrument.capo > 0 && state.at.fret > 0 && ' from the capo'}
      </Word>{' '}
      <Word
        name="Layout"
        then=", in"
        {...word('layout')}
        body={opening(
          <LayoutPart model={model} onChange={onChange} onDone={() => afterPaint(() => onOpen(null))} />,
        )}
      >
        {layoutName(state.layout)}
      </Word>{' '}
      <Word
        name="Tuning"
        then="."
        {...word('instrument')}
        body={opening(<TuningPart model={model} onChange={onChange} />)}
      >
        {tuningSaid(instrument.tuning, model.accidentals)}
        {instrument.capo > 0 && `, capo at ${instrument.capo}`}
      </Word>
    </p>
  );
});
