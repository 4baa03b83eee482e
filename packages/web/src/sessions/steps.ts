import { type ChartDraft, type ChartState } from '@crow-ladder/contract';
import { type Patch, type Step } from '../ports/journal.ts';

const WORDS = ['name', 'tags', 'notes'] as const;

/** What a draft has otherwise than another one, by the parts that were put in place of others. */
function patchFrom(from: ChartDraft, to: ChartDraft): Patch {
  const words = Object.fromEntries(WORDS.flatMap((w) => (from[w] === to[w] ? [] : [[w, to[w]]])));
  const parts = Object.keys(to.state) as (keyof ChartState)[];
  const state = Object.fromEntries(
    parts.flatMap((p) => (from.state[p] === to.state[p] ? [] : [[p, to.state[p]]])),
  );
  return { words, state };
}
const patched = (draft: ChartDraft, { words, state }: Patch): ChartDraft => ({
  ...draft,
  ...words,
  state: { ...draft.state, ...state },
});

/** The change from one draft to another. */
export const stepBetween = (from: ChartDraft, to: ChartDraft): Step => ({
  back: patchFrom(to, from),
  on: patchFrom(from, to),
});

/** The drafts before and after one, by its steps, of which so many lead back. */
export function walked(
  draft: ChartDraft,
  steps: readonly Step[],
  back: number,
): { readonly past: readonly ChartDraft[]; readonly future: readonly ChartDraft[] } {
  const past: ChartDraft[] = [];
  for (let i = Math.min(back, steps.length) - 1, at = draft; i >= 0; i--)
    past.unshift((at = patched(at, steps[i]!.back)));
  const future: ChartDraft[] = [];
  for (let i = back, at = draft; i < steps.length; i++) future.push((at = patched(at, steps[i]!.on)));
  return { past, future };
}
