/** The keys that alter the note of the chosen spot. */
export const RAISE_KEY = 'u';
export const LOWER_KEY = 'd';
