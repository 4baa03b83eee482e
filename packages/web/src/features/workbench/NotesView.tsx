import { CHART_LIMITS } from '@crow-ladder/contract';
import { useState } from 'react';
import { changed } from '../../app/workbench.ts';
import { useApp, useSend } from '../../app/store.ts';
import { Field } from '../../ui/fields.tsx';

/** The player's own words about a chart: notes as plain text, and tags. */
export function NotesView() {
  const send = useSend();
  const draft = useApp((s) => s.workbench.draft);
  const [notes, setNotes] = useState(draft.notes);
  const [tags, setTags] = useState(draft.tags.join(', '));
  const read = [
    ...new Set(
      tags
        .split(',')
        .map((t) => t.trim())
        .filter(Boolean),
    ),
  ];
  const long = read.find((t) => t.length > CHART_LIMITS.tag);
  const error = long
    ? `“${long.slice(0, 12)}…” is longer than ${CHART_LIMITS.tag} characters.`
    : read.length > CHART_LIMITS.tags
      ? `At most ${CHART_LIMITS.tags} tags.`
      : undefined;
  return (
    <div className="grid gap-4 lg:grid-cols-2">
      <Field label="Notes" hint="Plain text, kept with the chart.">
        <textarea
          className="input min-h-32"
          value={notes}
          maxLength={CHART_LIMITS.notes}
          onChange={(e) => setNotes(e.target.value)}
          onBlur={() => notes !== draft.notes && send(changed({ notes }))}
        />
      </Field>
      <Field label="Tags" error={error} hint="Separated by commas.">
        <input
          className="input"
          value={tags}
          onChange={(e) => setTags(e.target.value)}
          onBlur={() => !error && read.join() !== draft.tags.join() && send(changed({ tags: read }))}
        />
      </Field>
    </div>
  );
}
