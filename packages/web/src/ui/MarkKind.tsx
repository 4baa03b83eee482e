/** A kind of mark on the neck, explained where it is spoken of. */
export const MarkKind = ({ kind, children }: { kind: 'shared' | 'lower' | 'upper'; children: string }) => (
  <span className={`kind kind-${kind}`}>
    <span aria-hidden /> {children}
  </span>
);
