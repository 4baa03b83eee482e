import { CHART_LIMITS } from '@crow-ladder/contract';
import { useChange, useSession, useTyping } from '../sessions/useSession.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { Field } from '../ui/fields.tsx';
import { tagsIn, tagTrouble } from '../ui/tags.ts';
import { TagsField } from '../ui/TagsField.tsx';
import { useTyped } from '../ui/useTyped.ts';

const PAUSE_MS = 600;

/** The player's own words about a chart: notes as plain text, and tags. */
export function NotesDialog({ onClose }: { readonly onClose: () => void }) {
  const change = useChange();
  const onTyping = useTyping();
  const draft = useSession((s) => s.draft);
  const notes = useTyped(
    draft.notes,
    (text) => {
      change({ notes: text });
      return true;
    },
    PAUSE_MS,
    onTyping,
  );
  const tags = useTyped(
    draft.tags.join(', '),
    (text) => {
      const read = tagsIn(text);
      if (tagTrouble(read)) return false;
      if (read.join() !== draft.tags.join()) change({ tags: read });
      return true;
    },
    null,
    onTyping,
  );
  return (
    <Dialog open onOpenChange={onClose} title="Notes and tags">
      <div className="grid gap-4">
        <Field label="Notes" hint="Plain text, kept with the chart.">
          <textarea
            className="input min-h-48"
            value={notes.text}
            maxLength={CHART_LIMITS.notes}
            onChange={(e) => notes.onText(e.target.value)}
            onBlur={notes.onBlur}
          />
        </Field>
        <TagsField tags={tags} />
      </div>
    </Dialog>
  );
}
