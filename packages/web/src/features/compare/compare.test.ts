import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { CATALOGUE, degreeIndex, noteName, pitchAt } from '@crow-ladder/core';
import { type Mark } from '@crow-ladder/picture';
import fc from 'fast-check';
import {
  alteredAt,
  alteringOf,
  keyAbove,
  laidOver,
  thirdOver,
  withAltered,
  withLaid,
  withThird,
} from '../../model/laid.ts';
import { addedIn, addedMoved, withAddedNote } from '../../model/added.ts';
import { type Shown } from '../../model/marks.ts';
import { modelOf } from '../../model/model.ts';
import { withRoot } from '../../model/moves.ts';
import { AT_FIRST, type CompareParams, params, ticked } from './params.ts';
import { picking, scene } from './scene.ts';

const A_MINOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'natural-minor' },
  at: { string: 6, fret: 5 },
};
const shown: Shown = { labels: 'degree', rootsOnly: false, colours: 'plain' };
const model = (state: ChartState) => modelOf(state, DEFAULT_SETTINGS);
const marks = (state: ChartState, part: Partial<CompareParams> = {}): readonly Mark[] =>
  scene(model(state), { ...AT_FIRST, ...part }, shown).marks!;
const of = (all: readonly Mark[], kind: Mark['kind']): readonly string[] =>
  all.filter((m) => m.kind === kind).map((m) => `${m.string}/${m.fret} ${m.label}`);

test('in the position in front each note is of both, or of one alone; over the whole neck everywhere', () => {
  const state = withLaid(A_MINOR, { scale: 'dorian', above: 0 });
  const here = marks(state);
  // A natural minor from fret 5, three notes a string: F on string 5 fret 8 and string 2 fret 6. Common practice, no source.
  expect(of(here, 'lower')).toEqual(['5/8 ♭6', '2/6 ♭6']);
  expect(of(here, 'upper').toSorted()).toEqual(['2/7 6', '5/9 6']);
  expect(of(here, 'root')).toEqual(['6/5 1', '4/7 1', '2/10 1']);
  expect(of(here, 'outside')).toEqual([]);
  const all = marks(state, { where: 'neck' });
  const { second, first } = laidOver(model(state))!.overlay;
  for (const { string, fret, kind } of all) {
    const midi = pitchAt(model(state).neck, string, fret);
    const [a, b] = [first, second].map((key) => degreeIndex(key, midi) >= 0);
    expect(kind).toBe(degreeIndex(first, midi) === 0 ? 'root' : a && b ? 'shared' : a ? 'lower' : 'upper');
  }
  expect(all.find((m) => m.kind === 'upper')!.name()).toMatch(/^String \d, fret \d+: F♯, in Dorian alone$/);
});

test('a scale from another root says its notes, and its own root stands out', () => {
  const state = withLaid(A_MINOR, { scale: 'major', above: 3 });
  const here = marks(state);
  expect(of(here, 'upper')).toEqual([]);
  expect(here.filter((m) => m.kind === 'shared' && m.root).map((m) => m.label)).toEqual(['♭3', '♭3', '♭3']);
  expect(here.find((m) => m.kind === 'shared' && m.root)!.name()).toMatch(/in both, the root of C major$/);
  expect(
    of(marks(withLaid(A_MINOR, { scale: 'major', above: 10 })), 'upper').every((m) => m.endsWith('F♯')),
  ).toBe(true);
});

test('what is laid over goes with the key, and nothing else kept with the chart does', () => {
  const later = { type: 'of later' };
  const state = withLaid({ ...A_MINOR, overlays: [later] }, { scale: 'dorian', above: 0 });
  expect(state.overlays).toHaveLength(2);
  const moved = withRoot(state, 'Eb');
  expect(noteName(laidOver(model(moved))!.overlay.second.root)).toBe('Eb');
  expect(withLaid(moved, { scale: 'lydian', above: 0 }).overlays).toEqual([
    { type: 'scale', scale: 'lydian', above: 0 },
    later,
  ]);
  expect(withLaid(moved, null).overlays).toEqual([later]);
  fc.assert(
    fc.property(fc.constantFrom(...CATALOGUE), fc.constantFrom(...CATALOGUE), fc.nat(11), (a, b, above) => {
      const key = model({ ...A_MINOR, key: { root: 'Eb', scale: a.id } }).key;
      const { root } = keyAbove(key, b, above);
      expect([Math.abs(root.alteration) < 2, keyAbove(key, b, 0).root]).toEqual([true, key.root]);
    }),
  );
});

test('a third scale is compared in words, stays as the second one changes, and goes with it', () => {
  const two = withThird(withLaid(A_MINOR, { scale: 'dorian', above: 0 }), { scale: 'phrygian', above: 0 });
  expect(thirdOver(model(two))!.second.scale.id).toBe('phrygian');
  expect(laidOver(model(withThird(two, null)))!.part.scale).toBe('dorian');
  const other = withLaid(two, { scale: 'lydian', above: 0 });
  expect([laidOver(model(other))!.part.scale, thirdOver(model(other))!.second.scale.id]).toEqual([
    'lydian',
    'phrygian',
  ]);
  expect(thirdOver(model(withThird(two, null)))).toBeNull();
  expect(withLaid(two, null).overlays).toEqual([]);
  // On the neck there are two.
  expect(marks(two)).toEqual(
    marks(withThird(two, null)).map((m) => ({ ...m, name: expect.any(Function) as () => string })),
  );
});

test('degrees are altered one by one, in place of one another, and back', () => {
  const alter = (state: ChartState, degree: number, by: 1 | -1): ChartState =>
    withAltered(model(state), degree, by)!(state);
  const dorian = alter(A_MINOR, 5, 1);
  expect(dorian.overlays).toEqual([{ type: 'scale', scale: 'dorian', above: 0 }]);
  // Its raised sixth lies a half step above the one that it replaced, and both spots are that degree.
  expect([9, 8].map((fret) => alteredAt(model(dorian), { string: 5, fret }))).toEqual([5, 5]);
  expect(alteredAt(model(dorian), { string: 5, fret: 6 })).toBe(-1);
  expect(alter(dorian, 5, -1).overlays).toEqual([]);
  expect([withAltered(model(A_MINOR), 0, 1), withAltered(model(A_MINOR), 1, 1)]).toEqual([null, null]);
  // Another scale that was laid over it before is not altered, from another root or of another size.
  const relative = withLaid(A_MINOR, { scale: 'major', above: 3 });
  expect(alteringOf(model(relative)).id).toBe('natural-minor');
  const over = withLaid(A_MINOR, { scale: 'minor-pentatonic', above: 0 });
  expect(alter(over, 4, -1).overlays).toEqual([{ type: 'scale', scale: 'locrian-natural-2', above: 0 }]);
  expect(
    scene(model(dorian), { ...AT_FIRST, view: 'alter', spot: { string: 5, fret: 9 } }, shown).cursor?.at.fret,
  ).toBe(9);
});

test('spots are ticked and named, and what is looked at is in the address', () => {
  const looked: CompareParams = { view: 'notes', where: 'neck', ticks: [{ string: 5, fret: 4 }], spot: null };
  const at = picking(model(A_MINOR), looked)!;
  expect(at.say({ string: 5, fret: 4 }).head).toMatch(/, ticked$/);
  expect(at.pick({ string: 6, fret: 5 }).ticks).toHaveLength(2);
  expect(at.pick({ string: 5, fret: 4 }).ticks).toEqual([]);
  expect(of(scene(model(A_MINOR), looked, shown).marks!, 'note')).toEqual(['5/4 C♯']);
  for (const one of [
    AT_FIRST,
    looked,
    { ...AT_FIRST, view: 'alter' as const, spot: { string: 3, fret: 0 } },
    { ...AT_FIRST, ticks: ticked(looked.ticks, { string: 1, fret: 0 }) },
  ]) {
    const query = Object.entries(params.write(one)).flatMap(([k, v]) => (v === null ? [] : [[k, v]]));
    expect(params.read(new URLSearchParams(query))).toEqual(one);
  }
  expect(params.read(new URLSearchParams('look=tide&where=hold&ticks=x-5.4'))).toEqual({
    ...AT_FIRST,
    ticks: looked.ticks,
  });
});

test('an added note that is moved stays so whatever its role, in every key, and home it leaves no trace', () => {
  const added = withAddedNote({ ...A_MINOR, key: { root: 'A', scale: 'major-pentatonic' } }, 3, 'passing');
  const spots = (of: ChartState) => addedIn(model(of), model(of).front!.position);
  const move = (state: ChartState, n: number): ChartState => {
    const it = model(state);
    return addedMoved(it, it.front!.position, spots(state)[n]!)!.change(state);
  };
  // C on string 3 fret 17 is string 2 fret 13.
  const at = spots(added).findIndex((s) => s.string === 3);
  const away = move(added, at);
  expect(spots(away)[at]).toMatchObject({ string: 2, fret: 13, from: 3 });
  expect(spots(withAddedNote(away, 3, 'slid'))[at]).toMatchObject({ string: 2, added: 'slid', from: 3 });
  expect(spots(withRoot(away, 'G'))[at]).toMatchObject({ string: 2, fret: 11, from: 3 });
  expect(move(away, at)).toEqual(added);
  expect(withAddedNote(away, 3, null).overlays).toEqual([]);
});
