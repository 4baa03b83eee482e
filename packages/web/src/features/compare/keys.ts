/** The keys that alter the note of the chosen spot, and the one that moves it to another string. */
export const RAISE_KEY = 'u';
export const LOWER_KEY = 'd';
export const MOVE_KEY = 'w';
