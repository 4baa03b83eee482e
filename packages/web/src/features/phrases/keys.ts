/** Plays a phrase as it was made and then as it was moved. */
export const BOTH_KEY = 'x';
