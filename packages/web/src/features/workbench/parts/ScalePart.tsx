import { type ChartState } from '@crow-ladder/contract';
import {
  CATALOGUE,
  degreeNames,
  findScales,
  type Formula,
  ownScale,
  parseFormula,
  pretty,
  type Result,
  type Scale,
  resolveScale,
} from '@crow-ladder/core';
import { Command } from 'cmdk';
import { Star } from 'lucide-react';
import { useMemo, useState } from 'react';
import { type Change, withScale } from '../../../app/moves.ts';
import { useSettings } from '../../../app/settings.ts';
import { useApp } from '../../../app/store.ts';

/** Scales of ids, own ones among them. */
const known = (ids: readonly string[]): Scale[] =>
  ids.flatMap((id) => {
    const scale = resolveScale(id);
    return scale.ok ? [scale.value] : [];
  });

interface ScalePartProps {
  readonly state: ChartState;
  readonly onChange: (change: Change) => void;
}

/** Every scale by name, alias, family or formula; favourites and recent ones first. */
export function ScalePart({ state, onChange }: ScalePartProps) {
  const [query, setQuery] = useState('');
  const recent = useApp((s) => s.view.recent);
  const [settings, change] = useSettings();
  const found = useMemo(() => findScales(query), [query]);
  const typed = useMemo(
    (): Result<Formula> | null =>
      /\d|[WHwh] [WHwh]/.test(query) && query.includes(' ') ? parseFormula(query) : null,
    [query],
  );
  const pick = (id: string): void => onChange((s) => withScale(s, id));

  const item = (scale: Scale, group: string) => (
    <Command.Item
      key={`${group}${scale.id}`}
      value={`${group}${scale.id}`}
      onSelect={() => pick(scale.id)}
      className="flex cursor-pointer items-baseline justify-between gap-3 px-2 py-1.5 data-[selected=true]:bg-seam"
    >
      <span className={scale.id === state.scale ? 'font-bold' : ''}>{pretty(scale.name)}</span>
      <span className="text-right text-sm text-soft">{degreeNames(scale).map(pretty).join(' ')}</span>
    </Command.Item>
  );
  const group = (heading: string, scales: readonly Scale[]) =>
    scales.length > 0 && (
      <Command.Group
        key={heading}
        heading={heading}
        className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:font-semibold [&_[cmdk-group-heading]]:text-soft"
      >
        {scales.map((s) => item(s, heading))}
      </Command.Group>
    );
  const families = [...new Set(CATALOGUE.map((s) => s.family))];
  const starred = settings.favourites.includes(state.scale);

  return (
    <Command shouldFilter={false} label="Scales" className="flex flex-col gap-2">
      <Command.Input
        value={query}
        onValueChange={setQuery}
        autoFocus
        placeholder="Name, alias, family, or a formula such as 1 2 b3 5 6"
        className="input"
      />
      {typed && (
        <div className="text-sm">
          {typed.ok ? (
            <button type="button" className="button" onClick={() => pick(ownScale(typed.value.degrees).id)}>
              Use {typed.value.degrees.length} notes as a scale of your own
            </button>
          ) : (
            <p className="error" role="alert">
              {typed.error.message}
            </p>
          )}
        </div>
      )}
      <Command.List className="max-h-[44vh] overflow-auto">
        {query === '' ? (
          <>
            {group('Favourites', known(settings.favourites))}
            {group('Recent', known(recent))}
            {families.map((f) =>
              group(
                f,
                CATALOGUE.filter((s) => s.family === f),
              ),
            )}
          </>
        ) : found.length ? (
          group('Found', found)
        ) : (
          !typed && (
            <p className="p-2 text-sm">
              No scale is called that. Type another name, or its formula in steps, degrees or notes.
            </p>
          )
        )}
      </Command.List>
      <button
        type="button"
        className="button self-start"
        aria-pressed={starred}
        onClick={() =>
          void change({
            favourites: starred
              ? settings.favourites.filter((f) => f !== state.scale)
              : [state.scale, ...settings.favourites],
          })
        }
      >
        <Star size={16} aria-hidden /> {starred ? 'A favourite' : 'Make this scale a favourite'}
      </button>
    </Command>
  );
}
