import { CHART_LIMITS } from '@crow-ladder/contract';
import { useState } from 'react';
import { Dialog } from '../ui/Dialog.tsx';
import { Field } from '../ui/fields.tsx';

interface SaveDialogProps {
  /** Why it could not be saved. */
  readonly trouble: string | null;
  readonly saving: boolean;
  readonly onSave: (name: string) => void;
  readonly onOpenChange: (open: boolean) => void;
}

/** Asks for the name of a new chart. */
export function SaveDialog({ trouble, saving, onSave, onOpenChange }: SaveDialogProps) {
  const [typed, setTyped] = useState('');
  const name = typed.trim();
  return (
    <Dialog open onOpenChange={onOpenChange} title="Save the chart">
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (name) onSave(name);
        }}
      >
        <Field label="Name" error={trouble ?? undefined}>
          <input
            className="input"
            value={typed}
            maxLength={CHART_LIMITS.name}
            onChange={(e) => setTyped(e.target.value)}
          />
        </Field>
        <button type="submit" className="button button-strong self-start" disabled={!name || saving}>
          {trouble === null ? 'Save' : 'Try again'}
        </button>
      </form>
    </Dialog>
  );
}
