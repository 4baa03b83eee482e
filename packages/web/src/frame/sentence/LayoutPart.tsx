import { usualOf } from '@crow-ladder/core/kinds';
import { type Layout, rankLayouts, LAYOUTS } from '@crow-ladder/core/layouts';
import { useMemo } from 'react';
import { type Model } from '../../model/model.ts';
import { type Change, withLayout } from '../../model/moves.ts';
import { beginHere } from '../../ui/focus.ts';
import { OptionFields } from '../../ui/OptionFields.tsx';

interface LayoutPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
}

/** How many layouts are said to suit a scale. */
const SUIT = 3;

/** The layouts with their rules and options; the ones that suit the scale best are marked. */
export function LayoutPart({ model, onChange }: LayoutPartProps) {
  const { state, key, neck, scale, hand } = model;
  const strings = neck.open.length;
  const pick = (layout: Layout): void =>
    onChange((s) => withLayout(s, usualOf(layout, { scale, string: s.at.string, strings })));
  const ranked = useMemo(
    () => new Map(rankLayouts(neck, key, hand.spanMm).map((r, i) => [r.layout, { ...r, rank: i }])),
    [neck, key, hand.spanMm],
  );
  const now = LAYOUTS.for(state.layout);
  return (
    <div role="group" aria-label="Layouts" className="flex flex-col">
      {LAYOUTS.all().map((layout) => {
        const fit = ranked.get(layout)!;
        const chosen = layout === now;
        return (
          <div key={layout.kind} className={`border-l-4 ${chosen ? 'border-accent' : 'border-transparent'}`}>
            <button
              type="button"
              ref={chosen ? beginHere : undefined}
              aria-pressed={chosen}
              onClick={() => pick(layout)}
              className="w-full px-2 py-1.5 text-left hover:bg-seam aria-pressed:bg-seam"
            >
              <span className="font-semibold">{layout.name}</span>
              {fit.rank < SUIT && <span className="ml-2 text-sm text-soft">suits this scale</span>}
              <span className="block text-sm text-soft">
                {fit.strain === Infinity ? fit.why : layout.rule}
              </span>
            </button>
            {chosen && (
              <div className="flex flex-col gap-2 px-2 py-2 empty:hidden">
                <OptionFields
                  options={now.options}
                  spec={state.layout}
                  strings={strings}
                  degrees={model.degrees}
                  onSpec={(spec) => onChange((s) => withLayout(s, spec))}
                />
                {!model.positions.ok && <p className="error">{model.positions.error.message}</p>}
              </div>
            )}
          </div>
        );
      })}
    </div>
  );
}
