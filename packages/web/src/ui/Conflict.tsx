import { Dialog } from './Dialog.tsx';

interface ConflictProps {
  /** "chart", "instrument". */
  readonly what: string;
  readonly onBoth: () => void;
  readonly onTheirs: () => void;
  readonly onMine: () => void;
}

/** Asks which version of something stands that was changed in two places. */
export function Conflict({ what, onBoth, onTheirs, onMine }: ConflictProps) {
  return (
    <Dialog
      open
      onOpenChange={() => undefined}
      title={`This ${what} was changed elsewhere`}
      text="Another tab or device saved it after you opened it here. Nothing is lost: choose what stands."
    >
      <div className="flex flex-wrap gap-2">
        <button type="button" className="button button-strong" onClick={onBoth}>
          Keep both
        </button>
        <button type="button" className="button" onClick={onTheirs}>
          Take theirs
        </button>
        <button type="button" className="button" onClick={onMine}>
          Keep mine
        </button>
      </div>
    </Dialog>
  );
}
