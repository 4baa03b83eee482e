import { optionTrouble } from '@crow-ladder/core/kinds';
import { type LayoutSpec, LAYOUTS } from '@crow-ladder/core/layouts';
import { mixed } from 'yup';
import { type Writable } from '../../fields.ts';
import { layoutFrom, layoutWord } from '../words.ts';
import { type Fields } from '../fields.ts';
import { type PartKind } from './part.ts';

/** A layout with its options, checked by what the layout itself says of them. */
export const layoutSchema = mixed<Writable<LayoutSpec>>(
  (v): v is Writable<LayoutSpec> => typeof v === 'object' && v !== null,
)
  .meta({ is: 'layout' })
  .required('The layout is missing.')
  .test('layout', 'This layout is not known: pick one from the list.', (value, context) => {
    const given = (value ?? {}) as Record<string, unknown>;
    const layout = typeof given['kind'] === 'string' ? LAYOUTS.of(given['kind']) : undefined;
    if (!layout) return false;
    const fail = (option: string, message: string) =>
      context.createError({ path: `${context.path}.${option}`, message });
    for (const name of Object.keys(given))
      if (name !== 'kind' && !Object.hasOwn(layout.options, name))
        return fail(name, `There is something here that Crow Ladder does not know: ${name}.`);
    for (const [name, option] of Object.entries(layout.options)) {
      const trouble = optionTrouble(option, given[name]);
      if (trouble) return fail(name, trouble);
    }
    return true;
  });

export const layoutPart = {
  name: 'layout',
  schema: layoutSchema,
  // A layout that was called otherwise before.
  upgrade: (was: Fields): Fields => {
    const { kind } = was;
    return { ...was, kind: (typeof kind === 'string' && LAYOUTS.of(kind)?.kind) || kind };
  },
  word: { write: layoutWord, read: layoutFrom },
} satisfies PartKind<LayoutSpec>;
