import { type Params } from '../../task/task.ts';

/** Where a formula is laid out, in the order in which players learn it. */
export const STAGES = [
  { id: 'single', name: 'on one string' },
  { id: 'pair', name: 'on two strings' },
  { id: 'position', name: 'in position' },
] as const;
export type Stage = (typeof STAGES)[number]['id'];

/** What the player looks at on the way from formula to neck. */
export interface FormulaParams {
  readonly stage: Stage;
  /** Degree index of the first note. */
  readonly start: number;
  readonly down: boolean;
  /** A formula being typed, while the chart has the scale that it was typed over. */
  readonly typed: { readonly text: string; readonly scale: string } | null;
}

export const AT_FIRST: FormulaParams = { stage: 'single', start: 0, down: false, typed: null };

export const params: Params<FormulaParams> = {
  read: (query) => {
    const start = Number(query.get('start') ?? 1) - 1;
    const [scale, ...text] = query.get('formula')?.split('~') ?? [];
    return {
      stage: STAGES.find((s) => s.id === query.get('stage'))?.id ?? 'single',
      start: Number.isInteger(start) && start > 0 ? start : 0,
      down: query.has('down'),
      typed: scale && text.length ? { scale, text: text.join('~') } : null,
    };
  },
  write: ({ stage, start, down, typed }) => ({
    stage: stage === 'single' ? null : stage,
    start: start ? String(start + 1) : null,
    down: down ? '1' : null,
    formula: typed ? `${typed.scale}~${typed.text}` : null,
  }),
};
