import { Field } from './fields.tsx';
import { tagsIn, tagTrouble } from './tags.ts';
import { type Typed } from './useTyped.ts';

/** Tags as they are typed; kept once the field is left, or by Enter. */
export const TagsField = ({ tags }: { readonly tags: Typed }) => (
  <Field label="Tags" error={tagTrouble(tagsIn(tags.text))} hint="Separated by commas.">
    <input
      className="input"
      value={tags.text}
      onChange={(e) => tags.onText(e.target.value)}
      onBlur={tags.onBlur}
      onKeyDown={(e) => e.key === 'Enter' && tags.onBlur()}
    />
  </Field>
);
