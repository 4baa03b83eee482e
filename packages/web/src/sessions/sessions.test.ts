import { type Chart, FIRST_STATE } from '@crow-ladder/contract';
import { type UnknownAction } from '@reduxjs/toolkit';
import { otherLibrary } from '../app/standing.ts';
import {
  allSessions,
  arrived,
  changed,
  dropped,
  keptMine,
  named,
  opened,
  redone,
  saved,
  saveFailed,
  saving,
  type Session,
  sessionOf,
  sessions,
  started,
  tookTheirs,
  undone,
} from './sessions.ts';

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
const at = (fret: number) => ({ ...FIRST_STATE, at: { string: 6, fret } });
const run = (...actions: UnknownAction[]) => ({
  sessions: actions.reduce(sessions.reducer, sessions.getInitialState()),
});
const one = (...actions: UnknownAction[]): Session => sessionOf(run(...actions), 'one')!;
const edit = (part: Parameters<typeof changed>[0]['part'], id = 'one') => changed({ id, part });
const move = edit({ state: at(14) });
const open = opened({ chart });
const begin = (id: string, part = {}) =>
  started({
    id,
    draft: { name: '', tags: [], notes: '', state: FIRST_STATE },
    touched: false,
    of: null,
    ...part,
  });
const onItsWay = saving({ id: 'one', held: 'x' });

test('an opened chart is saved, however it is looked at; choosing a position leaves it saved and can be undone', () => {
  expect(one(open)).toMatchObject({ id: 'one', revision: 4, save: 'saved', draft: { name: 'Bow wave' } });
  const front = { start: 1, low: 7, nth: 0 };
  expect(one(opened({ chart, front }))).toMatchObject({
    save: 'saved',
    touched: false,
    draft: { state: { front } },
  });
  const look = edit({ state: { ...FIRST_STATE, front } });
  expect(one(open, look)).toMatchObject({ save: 'saved', draft: { state: { front } } });
  expect(one(open, look, undone('one'))).toMatchObject({ save: 'saved', draft: { state: { front: null } } });
  expect(one(open, move, look, undone('one')).save).toBe('pending');
});

test('every change can be undone and redone, and a new change ends the redoing', () => {
  const changes = [open, move, edit({ notes: 'slow' }), edit({ tags: [] })];
  const [undo, redo] = [undone('one'), redone('one')];
  const back = one(...changes, undo, undo);
  expect(back.draft).toMatchObject({ state: { at: { fret: 14 } }, notes: '', tags: ['deck'] });
  expect(one(...changes, undo, undo, redo, redo).draft).toEqual(one(...changes).draft);
  expect(one(...changes, undo, edit({ name: 'Stern wave' })).future).toEqual([]);
  expect(one(open, undo)).toEqual(one(open));
  expect(one(open, redo)).toEqual(one(open));
});

test('each open chart has its own draft and its own way back', () => {
  const two = opened({ chart: { ...chart, id: 'two', name: 'Stern wave' } });
  const both = run(open, two, move, edit({ notes: 'theirs' }, 'two'), undone('two'));
  expect(sessionOf(both, 'one')).toMatchObject({ save: 'pending', draft: { state: { at: { fret: 14 } } } });
  expect(sessionOf(both, 'two')).toMatchObject({ draft: { name: 'Stern wave', notes: '' }, past: [] });
  // A chart that is opened a second time goes on as it is.
  expect(one(open, move, open)).toEqual(one(open, move));
  expect(allSessions(run(open, two, dropped(['one']))).map((s) => s.id)).toEqual(['two']);
});

test('what the server answers to an opening is taken only where nothing was changed here', () => {
  const newer = { ...chart, name: 'Bow wave II', revision: 6 };
  const clean = one(open, arrived(newer));
  expect(clean).toMatchObject({ revision: 6, save: 'saved', draft: { name: 'Bow wave II' } });
  expect(
    sessionOf({ sessions: sessions.reducer(run(open, arrived(newer)).sessions, undone('one')) }, 'one')!.draft
      .name,
  ).toBe('Bow wave');
  for (const dirty of [
    [move],
    [move, onItsWay],
    [move, saveFailed({ id: 'one', trouble: { code: 'x', message: 'x' } })],
  ])
    expect(one(open, ...dirty, arrived(newer))).toEqual(one(open, ...dirty));
  expect(one(open, arrived(chart))).toEqual(one(open));
});

test('a save is confirmed only for what was sent', () => {
  const before = run(open, move, onItsWay);
  const kept = (whole: boolean) =>
    saved({ id: 'one', chart: { ...chart, state: at(14), revision: 5 }, whole });
  const after = (...actions: UnknownAction[]) =>
    sessionOf({ sessions: actions.reduce(sessions.reducer, before.sessions) }, 'one');
  expect(after(kept(true))).toMatchObject({ save: 'saved', revision: 5, sent: [] });
  expect(after(edit({ notes: 'typed while it was saving' }), kept(false))).toMatchObject({
    save: 'pending',
    revision: 5,
    draft: { notes: 'typed while it was saving' },
  });
});

test('a new chart waits for its name, and keeps its way back, with the name in it', () => {
  const begun = [begin('two'), edit({ state: at(14) }, 'two')];
  expect(sessionOf(run(...begun), 'two')).toMatchObject({ save: 'unsaved', revision: 0 });
  const called = [...begun, named({ id: 'two', name: 'Keel' })];
  expect(sessionOf(run(...called), 'two')).toMatchObject({ save: 'pending', draft: { name: 'Keel' } });
  const { draft: sent } = sessionOf(run(...called), 'two')!;
  const kept = [
    ...called,
    saved({ id: 'two', chart: { ...chart, ...sent, id: 'two', revision: 1 }, whole: true }),
  ];
  expect(sessionOf(run(...kept, undone('two')), 'two')).toMatchObject({
    save: 'pending',
    revision: 1,
    draft: { name: 'Keel', state: FIRST_STATE },
  });
});

test('another new chart takes the place of one that was not touched, and of no other', () => {
  const next = begin('three');
  expect(allSessions(run(open, begin('two'), next)).map((s) => s.id)).toEqual(['one', 'three']);
  const both = run(open, begin('two'), edit({ notes: 'old' }, 'two'), next);
  expect(allSessions(both).map((s) => s.id)).toEqual(['one', 'two', 'three']);
  expect(sessionOf(both, 'three')).toMatchObject({ save: 'unsaved', past: [], draft: { notes: '' } });
});

test('what was made on a library stays apart once another one took its place, and drafts go on', () => {
  const other = run(open, move, begin('two'), opened({ chart: { ...chart, id: 'three' } }), otherLibrary());
  expect(allSessions(other).map((s) => [s.id, s.save])).toEqual([
    ['one', 'apart'],
    ['two', 'unsaved'],
  ]);
  expect(one(open, move, otherLibrary(), edit({ notes: 'go on' }))).toMatchObject({
    save: 'apart',
    draft: { notes: 'go on' },
    trouble: { code: 'other-library' },
  });
});

test('a failed save keeps the work', () => {
  const trouble = { code: 'unreachable', message: 'The server cannot be reached.' };
  const failed = [open, move, onItsWay, saveFailed({ id: 'one', trouble })];
  expect(one(...failed)).toMatchObject({ save: 'failed', trouble, draft: { state: { at: { fret: 14 } } } });
  expect(one(...failed, edit({ notes: 'go on' })).save).toBe('pending');
});

describe('a conflict', () => {
  const theirs: Chart = { ...chart, name: 'Bow wave II', revision: 7 };
  const trouble = { code: 'conflict', message: 'Changed elsewhere.', current: theirs };
  const conflict = [open, move, onItsWay, saveFailed({ id: 'one', trouble })];

  test('waits for the player, whatever is changed meanwhile', () => {
    expect(one(...conflict)).toMatchObject({ save: 'conflict', theirs: { revision: 7 } });
    expect(one(...conflict, edit({ notes: 'x' })).save).toBe('conflict');
  });

  test('keeping mine goes on from their revision', () => {
    expect(one(...conflict, keptMine('one'))).toMatchObject({
      save: 'pending',
      revision: 7,
      theirs: null,
      draft: { state: { at: { fret: 14 } } },
    });
  });

  test('taking theirs leaves mine within reach of undo', () => {
    const taken = [...conflict, tookTheirs('one')];
    expect(one(...taken)).toMatchObject({ save: 'saved', revision: 7, draft: { name: 'Bow wave II' } });
    expect(one(...taken, undone('one')).draft).toMatchObject({
      name: 'Bow wave',
      state: { at: { fret: 14 } },
    });
  });
});
