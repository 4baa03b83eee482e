import { layoutName, pretty } from '@crow-ladder/core';
import { lazy, memo, Suspense } from 'react';
import { afterPaint } from '../../app/later.ts';
import { type Change } from '../../app/moves.ts';
import { scaleSaid, spotSaid, tuningSaid } from '../../app/wording.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { Word } from '../../ui/Word.tsx';
import { type Model } from './model.ts';
import { LayoutPart } from './parts/LayoutPart.tsx';
import { RootPart } from './parts/RootPart.tsx';
import { SpotPart } from './parts/SpotPart.tsx';
import { TuningPart } from './parts/TuningPart.tsx';

// The list of scales brings its own search; it is loaded when it is first opened.
const ScalePart = lazy(() => import('./parts/ScalePart.tsx').then((m) => ({ default: m.ScalePart })));

export type Part = 'root' | 'scale' | 'spot' | 'layout' | 'instrument';

interface SentenceProps {
  readonly model: Model;
  readonly open: Part | null;
  readonly onOpen: (part: Part | null) => void;
  readonly onChange: (change: Change) => void;
  readonly onPickOnNeck: () => void;
}

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
    <p className="font-reading text-[clamp(1.15rem,2.1vw,1.75rem)] leading-relaxed">
      <Word
        name="Root"
        {...word('root')}
        body={<RootPart model={model} onChange={close} onPickOnNeck={pick} />}
      >
        {pretty(state.root)}
      </Word>{' '}
      <Word
        name="Scale"
        then=", root on"
        {...word('scale')}
        body={
          <Suspense fallback={<Waiting what="the scales" />}>
            <ScalePart state={state} onChange={close} />
          </Suspense>
        }
      >
        {scaleSaid(scale)}
      </Word>{' '}
      <Word
        name="String and fret"
        then=","
        {...word('spot')}
        body={<SpotPart model={model} onChange={onChange} onPickOnNeck={pick} />}
      >
        {spotSaid(state.string, state.fret)}
      </Word>{' '}
      <Word
        name="Layout"
        then=", in"
        {...word('layout')}
        body={<LayoutPart model={model} onChange={onChange} />}
      >
        {layoutName(state.layout)}
      </Word>{' '}
      <Word
        name="Tuning"
        then="."
        {...word('instrument')}
        body={<TuningPart state={state} onChange={onChange} />}
      >
        {tuningSaid(instrument.tuning)}
        {instrument.capo > 0 && `, capo at ${instrument.capo}`}
      </Word>
    </p>
  );
});
