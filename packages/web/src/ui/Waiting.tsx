/** Something is on its way. */
export const Waiting = ({ what }: { what: string }) => (
  <p role="status" className="py-10 text-soft">
    Getting {what}…
  </p>
);
