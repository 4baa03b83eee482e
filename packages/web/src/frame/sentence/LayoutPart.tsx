import { usualOf } from '@crow-ladder/core/kinds';
import { layOut, type LayoutSpec, LAYOUTS, rankLayouts } from '@crow-ladder/core/layouts';
import { useMemo, useState } from 'react';
import { type Model } from '../../model/model.ts';
import { type Change, withLayout } from '../../model/moves.ts';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { Picks } from '../../ui/Picks.tsx';

interface LayoutPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
  /** Nothing more is asked. */
  readonly onDone: () => void;
}

/** How many layouts are said to suit a scale. */
const SUIT = 3;

/** The layouts with their rules and options; the ones that suit the scale best are marked, and none empties the neck. */
export function LayoutPart({ model, onChange, onDone }: LayoutPartProps) {
  const { state, key, neck, scale, hand } = model;
  const strings = neck.open.length;
  /** Options that were asked for and fit nowhere: what stood stays. */
  const [tried, setTried] = useState<{ readonly spec: LayoutSpec; readonly why: string } | null>(null);
  const ranked = useMemo(
    () => new Map(rankLayouts(neck, key, hand.spanMm).map((r, i) => [r.layout, { ...r, rank: i }])),
    [neck, key, hand.spanMm],
  );
  const now = LAYOUTS.for(state.layout);
  const pick = (kind: string): void => {
    const layout = LAYOUTS.of(kind)!;
    setTried(null);
    if (layout !== now)
      onChange((s) => withLayout(s, usualOf(layout, { scale, string: s.at.string, strings })));
    if (!Object.keys(layout.options).length) onDone();
  };
  const ask = (spec: LayoutSpec): void => {
    const laid = layOut(neck, key, spec);
    setTried(laid.ok ? null : { spec, why: laid.error.message });
    if (laid.ok) onChange((s) => withLayout(s, spec));
  };
  return (
    <Picks
      name="Layouts"
      value={now.kind}
      onPick={pick}
      options={LAYOUTS.all().map((layout) => {
        const fit = ranked.get(layout)!;
        const off = fit.strain === Infinity && layout !== now;
        return {
          id: layout.kind,
          name: layout.name,
          tag: fit.rank < SUIT ? 'suits this scale' : undefined,
          note: off ? `It would leave the neck empty. ${fit.why}` : layout.rule,
          off,
        };
      })}
    >
      <OptionFields
        options={now.options}
        spec={tried?.spec ?? state.layout}
        strings={strings}
        degrees={model.degrees}
        onSpec={ask}
      />
      {tried && <p className="error">{tried.why} The layout stays as it was.</p>}
    </Picks>
  );
}
