/** What a player is asked to remember: cards, what they ask, how an answer is judged. */
export * from './card.ts';
export * from './question.ts';
export * from './registry.ts';
export * from './next.ts';
export * from './heard.ts';
