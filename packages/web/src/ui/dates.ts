/** Made where a date is first written: making one takes longer than all else that most pages do with it. */
const inWords = (options: Intl.DateTimeFormatOptions): ((at: string | number) => string) => {
  let format: Intl.DateTimeFormat | null = null;
  return (at) => (format ??= new Intl.DateTimeFormat('en-GB', options)).format(new Date(at));
};

/** A day as the page writes it: "4 Jun 2026". */
export const daySaid = inWords({ day: 'numeric', month: 'short', year: 'numeric' });
/** "20:15". */
export const timeSaid = inWords({ hour: '2-digit', minute: '2-digit' });
/** A moment as the page writes it: "4 Jun 2026, 20:15". */
export const momentSaid = (at: string | number): string => `${daySaid(at)}, ${timeSaid(at)}`;
/** A day in short: "4 Jun". */
export const shortDaySaid = inWords({ day: 'numeric', month: 'short' });
/** "Mon". */
export const weekdaySaid = inWords({ weekday: 'short' });
/** "Thursday, 4 June". */
export const longDaySaid = inWords({ weekday: 'long', day: 'numeric', month: 'long' });
/** A moment of a day, "2026-06-01", by which it is written the same wherever the player is. */
export const noonOf = (day: string): string => `${day}T12:00:00`;
