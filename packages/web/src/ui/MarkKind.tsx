import { markClass, type MarkKind as Kind, outline } from '@crow-ladder/picture';

/** Half the length and half the thickness of a mark as it is drawn here, and the room around it. */
const [HALF, THICK, ROOM] = [10, 8, 7];

/** A kind of mark on the neck, as it is drawn there, explained where it is spoken of. */
export const MarkKind = ({ kind, children }: { kind: Kind; children: string }) => (
  <span className="kind">
    <svg
      aria-hidden
      viewBox={`${-HALF - ROOM} ${-THICK - 4} ${2 * (HALF + ROOM)} ${2 * (THICK + 4)}`}
      className={markClass({ kind })}
    >
      <path d={outline(kind, HALF, THICK)} />
    </svg>{' '}
    {children}
  </span>
);
