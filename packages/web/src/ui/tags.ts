import { CHART_LIMITS, cutText } from '@crow-ladder/contract';

/** Tags as they are typed, between commas, each once. */
export const tagsIn = (text: string): readonly string[] => [
  ...new Set(
    text
      .split(',')
      .map((t) => t.trim())
      .filter(Boolean),
  ),
];

/** What is wrong with tags, if anything. */
export function tagTrouble(tags: readonly string[]): string | undefined {
  const long = tags.find((t) => t.length > CHART_LIMITS.tag);
  if (long) return `“${cutText(long, 12)}…” is longer than ${CHART_LIMITS.tag} characters.`;
  return tags.length > CHART_LIMITS.tags ? `At most ${CHART_LIMITS.tags} tags.` : undefined;
}
