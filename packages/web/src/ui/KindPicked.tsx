import { type Option } from '@crow-ladder/core/kinds';
import { type ComponentProps } from 'react';
import { OptionFields } from './OptionFields.tsx';
import { Picked } from './Picked.tsx';

interface Kind {
  readonly kind: string;
  readonly name: string;
  readonly goodFor: string;
  readonly options: Readonly<Record<string, Option>>;
}

interface KindPickedProps<K extends Kind>
  extends
    Omit<ComponentProps<typeof OptionFields>, 'options'>,
    Pick<ComponentProps<typeof Picked>, 'name' | 'said' | 'then' | 'weight'> {
  readonly kinds: readonly K[];
  readonly now: K;
  /** Another kind was chosen. */
  readonly onKind: (kind: K) => void;
}

/** A word for which another kind is chosen, with what each is good for, and the options of the one that is. */
export const KindPicked = <K extends Kind>({ kinds, now, onKind, ...rest }: KindPickedProps<K>) => {
  const { spec, strings, degrees, onSpec, ...word } = rest;
  const of = (kind: string): K => kinds.find((k) => k.kind === kind)!;
  return (
    <Picked
      {...word}
      value={now.kind}
      options={kinds.map(({ kind, name, goodFor }) => ({ id: kind, name, note: `for ${goodFor}` }))}
      asksMore={(kind) => Object.keys(of(kind).options).length > 0}
      onPick={(kind) => {
        if (kind !== now.kind) onKind(of(kind));
      }}
    >
      <OptionFields key={now.kind} options={now.options} {...{ spec, strings, degrees, onSpec }} />
    </Picked>
  );
};
