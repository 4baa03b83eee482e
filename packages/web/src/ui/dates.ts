/** Made where a date is first written: making one takes longer than all else that most pages do with it. */
const inWords = (options: Intl.DateTimeFormatOptions): ((at: string | number) => string) => {
  let format: Intl.DateTimeFormat | null = null;
  return (at) => (format ??= new Intl.DateTimeFormat('en-GB', options)).format(new Date(at));
};

/** A day as the page writes it: "4 Jun 2026". */
export const daySaid = inWords({ day: 'numeric', month: 'short', year: 'numeric' });
const timeSaid = inWords({ hour: '2-digit', minute: '2-digit' });
/** A moment as the page writes it: "4 Jun 2026, 20:15". */
export const momentSaid = (at: string | number): string => `${daySaid(at)}, ${timeSaid(at)}`;
