import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { type UnknownAction } from '@reduxjs/toolkit';
import {
  changed,
  chose,
  keptMine,
  opened,
  redone,
  saved,
  saveFailed,
  saving,
  started,
  tookTheirs,
  undone,
  workbench,
} from './workbench.ts';

const chart: Chart = {
  id: 'one',
  name: 'Bow wave',
  tags: ['deck'],
  notes: '',
  state: FIRST_STATE,
  revision: 4,
  createdAt: '2026-06-01T20:00:00Z',
  updatedAt: '2026-06-01T20:00:00Z',
};
const run = (...actions: UnknownAction[]) => actions.reduce(workbench.reducer, workbench.getInitialState());
const moved = { ...FIRST_STATE, fret: 14 };
const open = opened({ chart, state: null });

test('an opened chart is saved; one with a state from the address waits to be saved', () => {
  expect(run(open)).toMatchObject({
    chartId: 'one',
    revision: 4,
    save: 'saved',
    draft: { name: 'Bow wave' },
  });
  expect(run(opened({ chart, state: moved }))).toMatchObject({
    save: 'pending',
    draft: { state: { fret: 14 } },
  });
});

test('every change can be undone and redone, and a new change ends the redoing', () => {
  const changes = [open, changed({ state: moved }), changed({ notes: 'slow' }), changed({ tags: [] })];
  const back = run(...changes, undone(), undone());
  expect(back.draft).toMatchObject({ state: { fret: 14 }, notes: '', tags: ['deck'] });
  expect(run(...changes, undone(), undone(), redone(), redone()).draft).toEqual(run(...changes).draft);
  expect(run(...changes, undone(), changed({ name: 'Stern wave' })).future).toEqual([]);
  expect(run(open, undone())).toEqual(run(open));
  expect(run(open, redone())).toEqual(run(open));
});

test('a change of the neck goes back to the position through the root, one of the notes does not', () => {
  expect(run(open, chose(3), changed({ state: moved })).chosen).toBeNull();
  expect(run(open, chose(3), changed({ notes: 'x' })).chosen).toBe(3);
});

test('a save is confirmed only for what was sent', () => {
  const before = run(open, changed({ state: moved }), saving());
  const sent = before.draft;
  const kept = { ...chart, state: moved, revision: 5 };
  expect(workbench.reducer(before, saved({ chart: kept, sent, chartId: 'one' }))).toMatchObject({
    save: 'saved',
    revision: 5,
  });
  const since = workbench.reducer(before, changed({ notes: 'typed while it was saving' }));
  const after = workbench.reducer(since, saved({ chart: kept, sent, chartId: 'one' }));
  expect(after).toMatchObject({
    save: 'pending',
    revision: 5,
    draft: { notes: 'typed while it was saving' },
  });
});

test('an answer about another chart is none of this one’s business', () => {
  const other = { ...chart, id: 'two', revision: 9 };
  const now = run(open);
  expect(workbench.reducer(now, saved({ chart: other, sent: now.draft, chartId: 'two' }))).toBe(now);
});

test('a failed save keeps the work', () => {
  const trouble = { code: 'unreachable', message: 'The server cannot be reached.' };
  const failed = run(open, changed({ state: moved }), saving(), saveFailed(trouble));
  expect(failed).toMatchObject({ save: 'failed', trouble, draft: { state: { fret: 14 } } });
  expect(workbench.reducer(failed, changed({ notes: 'go on' })).save).toBe('pending');
});

describe('a conflict', () => {
  const theirs: Chart = { ...chart, name: 'Bow wave II', revision: 7 };
  const conflict = run(
    open,
    changed({ state: moved }),
    saving(),
    saveFailed({ code: 'conflict', message: 'Changed elsewhere.', current: theirs }),
  );

  test('waits for the player, whatever is changed meanwhile', () => {
    expect(conflict).toMatchObject({ save: 'conflict', theirs: { revision: 7 } });
    expect(workbench.reducer(conflict, changed({ notes: 'x' })).save).toBe('conflict');
  });

  test('keeping mine goes on from their revision', () => {
    expect(workbench.reducer(conflict, keptMine())).toMatchObject({
      save: 'pending',
      revision: 7,
      theirs: null,
      draft: { state: { fret: 14 } },
    });
  });

  test('taking theirs leaves mine within reach of undo', () => {
    const taken = workbench.reducer(conflict, tookTheirs());
    expect(taken).toMatchObject({
      save: 'saved',
      revision: 7,
      draft: { name: 'Bow wave II', state: { fret: 2 } },
    });
    expect(workbench.reducer(taken, undone()).draft).toMatchObject({ name: 'Bow wave', state: { fret: 14 } });
  });
});

test('a new chart begins with nothing of the last one', () => {
  const fresh = run(open, changed({ notes: 'old' }), started({ state: moved, visit: 'v' }));
  expect(fresh).toMatchObject({
    chartId: null,
    save: 'unsaved',
    past: [],
    visit: 'v',
    draft: { name: '', notes: '', state: { fret: 14 } },
  });
});
