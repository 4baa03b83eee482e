import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { chordSaid, RANGES, STACKS } from '@crow-ladder/core/chords';
import fc from 'fast-check';
import { type ChordAsked, chordAskedSaid, chordFrom, chordWord, INVERSIONS } from '../../model/chords.ts';
import { type Shown } from '../../model/marks.ts';
import { modelOf } from '../../model/model.ts';
import { AT_FIRST, type ChordParams, params, VIEWS } from './params.ts';
import { ownHeld, positionsAround, scene } from './sounded.ts';

const F_SHARP: ChartState = FIRST_STATE;
const model = modelOf(F_SHARP, DEFAULT_SETTINGS);
const shown: Shown = { labels: 'degree', rootsOnly: false, colours: 'plain' };
const full = (it: Partial<ChordParams>): readonly string[] =>
  scene(model, { ...AT_FIRST, ...it }, shown)
    .marks!.filter(({ kind }) => kind !== 'outside' && kind !== 'outsideRoot')
    .map((m) => `${m.string}/${m.fret} ${m.kind} ${m.label}`)
    .toSorted();

test('the notes of the chord are counted from its root, which stands out beside the root of the scale', () => {
  // F sharp Dorian, three notes a string from fret 2: B on string 5 fret 2 up to its octave. Common practice, no source.
  expect(full({ degree: 3 })).toEqual(
    ['3/4 shared 1', '5/6 note 3', '4/4 root 5', '5/2 shared 1'].toSorted(),
  );
  const held = full({ view: 'hold', degree: 3, strings: 3 });
  expect(held.filter((m) => !m.includes('upper'))).toEqual(['2/4 note 3', '3/4 shared 1', '4/4 root 5']);
  // What the position in front has of it beside the grip.
  expect(held.filter((m) => m.includes('upper'))).toEqual(
    ['1/7 upper 1', '2/7 upper 5', '5/2 upper 1', '5/6 upper 3', '6/2 upper 5'].toSorted(),
  );
  const { marks } = scene(model, { ...AT_FIRST, degree: 3 }, shown);
  expect(marks!.find((m) => m.string === 5 && m.fret === 6)!.name()).toMatch(
    /note 2 of the chord, 3 of the chord$/,
  );
});

test('a grip of the player’s own is named by its lowest note, counted from its root, and has the positions around it', () => {
  const at = (own: string) => ownHeld(model, { ...AT_FIRST, view: 'hold', own });
  const named = (own: string) => {
    const it = at(own);
    return it?.ok ? it.value.chords.map(chordSaid) : it && it.error.code;
  };
  // Common practice, no source.
  expect(named('x 0 4 6 5 x')).toEqual(['A6', 'F♯m7']);
  expect(named('x02220')).toEqual(['A']);
  expect(named('0 1 x x x x')).toEqual([]);
  expect(named('1 2 3 4 5 6')).toBe('grip.hand');
  expect(named('x 0 2')).toBe('grip.count');
  expect(at(' ')).toBeNull();
  const it = at('x 0 4 6 5 x')!;
  const around = it.ok ? positionsAround(model, it.value.grip) : [];
  expect(around.slice(0, 3).map((f) => f.shared.length)).toEqual([3, 3, 1]);
  expect(full({ view: 'hold', own: 'x 0 4 6 5 x' }).filter((m) => !m.includes('upper'))).toEqual(
    ['2/5 note 5', '3/6 note 3', '4/4 root 6', '5/0 shared 1'].toSorted(),
  );
  // What is no chord is counted from the root of the scale.
  expect(full({ view: 'hold', own: '0 1 x x x x' })).toEqual(expect.arrayContaining(['6/0 note ♭7']));
});

test('of all chords in turn the way goes through the one that is looked at', () => {
  const at = (step: number) => scene(model, { ...AT_FIRST, view: 'turn', step }, shown).path;
  expect([at(0)!.length, at(4)!.length]).toEqual([3, 3]);
  expect(at(4)).toEqual(at(3));
  expect(at(3)).not.toEqual(at(2));
});

const anyAsked: fc.Arbitrary<ChordAsked> = fc.record({
  degree: fc.option(fc.nat(11)),
  size: fc.constantFrom(...STACKS.map((s) => s.size)),
  inversion: fc.nat(INVERSIONS.length - 1),
  range: fc.constantFrom(...RANGES.map((r) => r.id)),
});
test('what is asked for is told by a word, and what is looked at by the address', () => {
  fc.assert(
    fc.property(anyAsked, fc.string(), (asked, text) => {
      expect(chordFrom(chordWord(asked))).toEqual(asked);
      expect(chordAskedSaid(model, asked)).not.toContain('undefined');
      const other = chordFrom(`chord.${text}`);
      if (other) expect(chordFrom(chordWord(other))).toEqual(other);
    }),
  );
  fc.assert(
    fc.property(
      fc.record({
        view: fc.constantFrom(...VIEWS.map((v) => v.id)),
        degree: fc.nat(11),
        bass: fc.option(fc.nat(6)),
        strings: fc.option(fc.nat(6)),
        own: fc.string(),
      }),
      (it) => {
        const looked: ChordParams = { ...AT_FIRST, ...it, own: it.view === 'hold' ? it.own : '' };
        const query = Object.entries(params.write(looked)).flatMap(([k, v]) => (v === null ? [] : [[k, v]]));
        expect(params.read(new URLSearchParams(query))).toEqual(looked);
      },
    ),
  );
});
