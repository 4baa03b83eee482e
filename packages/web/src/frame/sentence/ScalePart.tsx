import { type ChartState, namedScales, SCALE_NAME, scalesOf } from '@crow-ladder/contract';
import {
  CATALOGUE,
  degreeNames,
  findScales,
  type Formula,
  ownScale,
  parseFormula,
  plural,
  pretty,
  type Result,
  type Scale,
} from '@crow-ladder/core';
import { Command } from 'cmdk';
import { Star } from 'lucide-react';
import { useMemo, useState } from 'react';
import { toggled, useSettings } from '../../app/settings.ts';
import { useApp } from '../../app/state.ts';
import { useTold } from '../../app/useTold.ts';
import { type Change, withScale } from '../../model/moves.ts';
import { Field } from '../../ui/fields.tsx';

interface ScalePartProps {
  readonly state: ChartState;
  readonly onChange: (change: Change) => void;
}

/** Every scale by name, alias, family or formula; favourites and recent ones first. */
export function ScalePart({ state, onChange }: ScalePartProps) {
  const [query, setQuery] = useState('');
  const recent = useApp((s) => s.view.recent);
  const [settings, change] = useSettings();
  const own = useMemo(() => namedScales(settings.ownScales), [settings]);
  const found = useMemo(() => findScales(query, [...own, ...CATALOGUE]), [query, own]);
  const typed = useMemo((): Result<Formula> | null => {
    const read = parseFormula(query);
    return read.ok || /\d.* |[WHTS] [WHTS]/i.test(query) ? read : null;
  }, [query]);
  const formula =
    typed && (typed.ok ? `A formula of ${typed.value.degrees.length} notes.` : typed.error.message);
  useTold(query ? [`${plural(found.length, 'scale')} found.`, formula ?? ''].join(' ').trim() : null);
  const pick = (id: string): void => onChange((s) => withScale(s, id));

  const item = (scale: Scale, group: string) => (
    <Command.Item
      key={`${group}${scale.id}`}
      value={`${group}${scale.id}`}
      onSelect={() => pick(scale.id)}
      className="flex cursor-pointer items-baseline justify-between gap-3 px-2 py-1.5 hover:bg-seam/60 data-[selected=true]:bg-seam"
    >
      <span className={scale.id === state.key.scale ? 'font-bold' : ''}>{pretty(scale.name)}</span>
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
  /** The group that the list begins in: the first that holds the scale of the chart. */
  const begin = settings.favourites.includes(state.key.scale)
    ? 'Favourites'
    : recent.includes(state.key.scale)
      ? 'Recent'
      : own.some((s) => s.id === state.key.scale)
        ? 'Your own'
        : (CATALOGUE.find((s) => s.id === state.key.scale)?.family ?? '');
  const families = [...new Set(CATALOGUE.map((s) => s.family))];
  const starred = settings.favourites.includes(state.key.scale);

  return (
    <Command
      shouldFilter={false}
      label="Scales"
      defaultValue={`${begin}${state.key.scale}`}
      disablePointerSelection
      className="flex flex-col gap-2"
    >
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
            <p className="error">{typed.error.message}</p>
          )}
        </div>
      )}
      <Command.List label="Scales" className="max-h-[44vh] overflow-auto">
        {query === '' ? (
          <>
            {group('Favourites', scalesOf(settings.favourites, settings.ownScales))}
            {group('Recent', scalesOf(recent, settings.ownScales))}
            {group('Your own', own)}
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
        onClick={() => change((s) => ({ favourites: toggled(s.favourites, state.key.scale) }))}
      >
        <Star size={16} aria-hidden /> {starred ? 'A favourite' : 'Make this scale a favourite'}
      </button>
      {state.key.scale.startsWith('own:') && (
        <OwnName
          key={state.key.scale}
          name={settings.ownScales.find((o) => o.id === state.key.scale)?.name ?? ''}
          onName={(name) =>
            change(({ ownScales }) => {
              const { scale: id } = state.key;
              const others = ownScales.filter((o) => o.id !== id);
              return { ownScales: name ? [{ id, name }, ...others] : others };
            })
          }
        />
      )}
    </Command>
  );
}

/** The name of a scale of the player's own; without one it is called by its degrees. */
function OwnName({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const next = typed.trim();
  const enter = (): void => {
    if (next !== name) onName(next);
  };
  return (
    <div className="flex items-end gap-2">
      <div className="grow">
        <Field label="Name of this scale">
          <input
            className="input"
            value={typed}
            maxLength={SCALE_NAME}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => {
              e.stopPropagation();
              if (e.key === 'Enter') enter();
            }}
          />
        </Field>
      </div>
      <button type="button" className="button" aria-disabled={next === name} onClick={enter}>
        {name && !next ? 'Take the name away' : 'Save the name'}
      </button>
    </div>
  );
}
