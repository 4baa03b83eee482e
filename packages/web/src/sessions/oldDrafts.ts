import { draftFromQuery } from '../model/address.ts';
import { OLD_DRAFTS } from '../ports/keeping.ts';
import { type Outside } from '../ports/outside.ts';

interface OldDraft {
  readonly at: number;
  readonly query: string;
}
/** What stands in such a list; what cannot be read as a draft is left out. */
function oldDrafts(text: string): readonly OldDraft[] {
  try {
    const kept: unknown = JSON.parse(text);
    const isOne = (d: unknown): d is OldDraft => {
      const { at, query } = (d ?? {}) as { readonly at?: unknown; readonly query?: unknown };
      return typeof at === 'number' && typeof query === 'string';
    };
    return Array.isArray(kept) ? (kept as unknown[]).filter(isOne) : [];
  } catch {
    return [];
  }
}

/** Puts drafts of before into the journal, under ids of their own; those that cannot be read stay where they are. */
export async function takeOldDrafts(
  { journal, keeping }: Pick<Outside, 'journal' | 'keeping'>,
  newId: () => string,
): Promise<void> {
  const left: unknown[] = [];
  for (const old of oldDrafts(keeping.getItem(OLD_DRAFTS) ?? '[]')) {
    const draft = draftFromQuery(new URLSearchParams(old.query));
    if (!draft.ok) {
      left.push(old);
      continue;
    }
    const none = { library: null, revision: 0, kept: false, sent: [], back: 0, of: null };
    await journal.keep({ ...none, id: newId(), tab: 'before', draft: draft.value, at: old.at });
  }
  keeping.setItem(OLD_DRAFTS, JSON.stringify(left));
}
