interface ViewsProps<T extends string> {
  /** What the row is of: "Look at". */
  readonly label: string;
  readonly views: readonly { readonly id: T; readonly name: string }[];
  readonly now: T;
  readonly onView: (view: T) => void;
}

/** The parts of a task, one of which is looked at. */
export function Views<T extends string>({ label, views, now, onView }: ViewsProps<T>) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-1.5">
      {views.map(({ id, name }) => (
        <button
          key={id}
          type="button"
          className="button"
          aria-pressed={id === now}
          onClick={() => onView(id)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
