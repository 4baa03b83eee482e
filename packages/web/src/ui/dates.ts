const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** A day as the page writes it: "4 Jun 2026". */
export const daySaid = (at: string | number): string => DAY.format(new Date(at));
/** A moment as the page writes it: "4 Jun 2026, 20:15". */
export const momentSaid = (at: string | number): string => `${daySaid(at)}, ${TIME.format(new Date(at))}`;
