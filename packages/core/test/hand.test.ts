import {
  COST,
  type Fingered,
  fingersSaid,
  frettedGrips,
  gripsOf,
  groupsOf,
  moveBetween,
  movesAt,
  moveTo,
  passage,
  pitchAt,
  repeatedGroups,
  signatureOf,
  spanOn,
  STRETCH,
  stretchOf,
} from './core.ts';
import { neckWith } from './helpers.ts';

const neck = neckWith();
const spot = (string: number, fret: number) => ({
  string,
  fret,
  midi: pitchAt(neck, string, fret),
  degree: 0,
});
/** "6:5" places in the order of play. */
const route = (text: string) =>
  text.split(' ').map((word) => spot(...(word.split(':').map(Number) as [number, number])));
/** Steps written "string:fret finger@hand". */
const steps = (text: string): readonly Fingered[] =>
  text.split(', ').map((word) => {
    const [at, finger, hand] = word.split(/[ @]/);
    return { spot: route(at!)[0]!, finger: Number(finger), hand: Number(hand) };
  });

describe('groups of a route', () => {
  /** First notes, each with its twin after a colon where it has one. */
  const cut = (text: string): string =>
    groupsOf(route(text))
      .map((g) => `${g.from}-${g.to}${g.twin < 0 ? '' : `:${g.twin}`}`)
      .join(' ');
  test.each([
    ['one note has no group before it', '6:5', '0-1'],
    ['a string is a group; the same steps make a twin', '6:5 6:8 5:5 5:7 4:5 4:7', '0-2 2-4 4-6:1'],
    [
      'a twin may lie two groups back, and not three',
      '6:5 6:8 5:5 5:7 4:5 4:8 3:5 3:8 2:5 2:7',
      '0-2 2-4 4-6:0 6-8:2 8-10',
    ],
    ['single notes are no twins', '6:5 5:5 4:5', '0-1 1-2 2-3'],
    ['a shorter group is no twin of a longer one on another string', '6:5 6:7 6:8 5:5 5:7', '0-3 3-5'],
    ['where the line turns back a group ends', '6:5 6:7 6:8 6:7 6:5', '0-3 3-5'],
    ['also on its third note', '6:5 6:7 6:5', '0-2 2-3'],
    ['a note struck again before the line falls does not turn it', '6:5 6:5 6:4', '0-3'],
    ['four notes of a string are one group, on any string', '6:1 5:1 5:3 5:5 5:7', '0-1 1-5'],
    [
      'a period counts from the first note of its string',
      '6:1 5:2 5:4 5:5 5:7 5:9 5:10 5:12 5:14',
      '0-1 1-4 4-7:1 7-9:2',
    ],
    ['a period of five is remembered', '6:1 6:2 6:3 6:4 6:5 6:7 6:8 6:9 6:10 6:11 6:13', '0-5 5-10:0 10-11'],
    ['one of six is not', '6:1 6:2 6:3 6:4 6:5 6:6 6:8 6:9 6:10 6:11 6:12 6:13 6:15', '0-5 5-9 9-13'],
    ['a longer group is no twin of a shorter one', '6:5 6:7 5:9 5:11 5:13', '0-2 2-5'],
    ['a note struck again does not turn the line', '6:5 6:5 6:7', '0-3'],
    ['along a string the period of the steps cuts', '3:2 3:4 3:5 3:7 3:9 3:10 3:12 3:14', '0-3 3-6:0 6-8:1'],
    ['an octave of four and four', '2:1 2:3 2:5 2:6 2:8 2:10 2:12 2:13', '0-4 4-8:0'],
    ['without a period a group covers four frets', '6:1 6:2 6:4 6:7 6:9', '0-3 3-5'],
    ['four frets and no more', '6:1 6:2 6:4 6:6 6:10', '0-3 3-5'],
    ['so that five make another', '6:1 6:2 6:4 6:6 6:11', '0-3 3-4 4-5'],
    ['the last group of a string may be shorter than its twin', '6:1 6:2 6:4 6:7 6:8', '0-3 3-5:0'],
    [
      'a group that is larger than what is remembered has no twin',
      '6:1 6:2 6:3 6:4 6:5 6:6 5:1 5:2 5:3 5:4 5:5 5:6',
      '0-2 2-4:0 4-6:1 6-8:2 8-10:3 10-12:4',
    ],
    ['going down too', '6:14 6:12 6:10 6:9 6:7 6:5 6:4 6:2', '0-3 3-6:0 6-8:1'],
  ])('%s: %s', (_, text, expected) => expect(cut(text)).toBe(expected));
});

describe('ways to take a note', () => {
  const at = (text: string, hand: Parameters<typeof gripsOf>[2]) =>
    gripsOf(neck, route(text), hand).map((grips) => grips.map((g) => `${g.finger}@${g.hand}`).join(' '));

  test('one finger per fret has four and two stretches; three fingers three and two; sliders none', () => {
    expect(at('6:7', { school: 'onePerFret' })).toEqual(['1@7 2@6 3@5 4@4 1@8 4@3']);
    expect(at('6:7', { school: 'threeFingers' })).toEqual(['1@7 2@6 3@5 1@8 3@4']);
    expect(at('6:7', { school: 'slides' })).toEqual(['1@7 2@6 3@5']);
  });
  test('the hand does not leave the neck behind the first fret', () => {
    expect(at('6:1', { school: 'onePerFret' })).toEqual(['1@1 1@2']);
    expect(at('6:2', { school: 'onePerFret' })).toEqual(['1@2 2@1 1@3']);
    expect(at('6:5', { school: 'onePerFret' })).toEqual(['1@5 2@4 3@3 4@2 1@6 4@1']);
  });
  test('an open string takes the hand where it was or will be, once each', () => {
    expect(at('6:0 6:0', { school: 'onePerFret' })).toEqual(['0@1', '0@1']);
    expect(at('6:0 5:7', { school: 'onePerFret' })[0]).toBe('0@7 0@6 0@5 0@4 0@8 0@3');
    expect(at('6:2 5:0 5:0 4:3', { school: 'slides' })).toEqual([
      '1@2 2@1',
      '0@2 0@1 0@3',
      '0@2 0@1 0@3',
      '1@3 2@2 3@1',
    ]);
  });
  test('the weaker fingers cost a little; a stretch costs by its width, and more than the player’s span is dearer', () => {
    const [grips] = gripsOf(neck, route('6:7'), { school: 'onePerFret', spanMm: 100 });
    const wide = (from: number, to: number, weight: number) => {
      const mm = spanOn(neck, from, to);
      return weight * (STRETCH.least + STRETCH.perMm * mm) + COST.perMmOver * Math.max(0, mm - 100);
    };
    const cost = (finger: number, hand: number) =>
      grips!.find((g) => g.finger === finger && g.hand === hand)!.cost;
    expect([cost(1, 7), cost(2, 6), cost(3, 5), cost(4, 4)]).toEqual([0, 0, COST.ring, COST.little]);
    expect(spanOn(neck, 3, 7)).toBeGreaterThan(100);
    expect(cost(1, 8)).toBeCloseTo(wide(7, 11, COST.indexBack), 9);
    expect(cost(4, 3)).toBeCloseTo(COST.little + wide(3, 7, COST.littleForward), 9);
    const [three] = gripsOf(neck, route('6:7'), { school: 'threeFingers', spanMm: 100 });
    expect(three!.find((g) => g.hand === 4)!.cost).toBeCloseTo(COST.ring + wide(4, 7, COST.ringForward), 9);
    expect(three!.find((g) => g.hand === 8)!.cost).toBeCloseTo(wide(7, 10, COST.indexBack), 9);
    const [sliding] = gripsOf(neck, route('6:7'), { school: 'slides' });
    expect(sliding!.map((g) => g.cost)).toEqual([0, COST.middleForSliders, COST.ring]);
    // At the nut the stretch back is measured from the nut, as the index finger cannot lie behind it.
    const [nut] = gripsOf(neck, route('6:1'), { school: 'onePerFret', spanMm: 200 });
    expect(nut![1]!.cost).toBeCloseTo(
      COST.indexBack * (STRETCH.least + STRETCH.perMm * spanOn(neck, 1, 5)),
      9,
    );
  });
});

test('in the school of index, middle and little finger the little one is two frets over the index below fret 5, and three from there on', () => {
  const at = (fret: number): string[] =>
    frettedGrips(neck, fret, { school: 'oneTwoFour', spanMm: 110 })
      .filter((g) => g.stretch === 0)
      .map((g) => `${g.finger}@${g.hand}`);
  expect(at(3)).toEqual(['1@3', '2@2', '4@1']);
  expect(at(6)).toEqual(['1@6', '2@5', '4@4']);
  expect(at(8)).toEqual(['1@8', '2@7', '3@6', '4@5']);
});

describe('going from one note to the next', () => {
  const {
    slide,
    perFret,
    slideOnThird,
    slideForSliders,
    slideOnLittle,
    roll,
    hop,
    shift,
    aim,
    closeUp,
    wrongLead,
    never,
  } = COST;
  // Two steps, whether the second is the third of its group, what the hand does and what it costs.
  test.each([
    ['6:5 1@5, 6:7 3@5', false, 'stay', 0],
    ['6:5 1@5, 6:5 1@5', false, 'stay', 0],
    ['6:5 1@5, 5:7 3@5', false, 'stay', 0],
    ['6:5 1@5, 5:5 1@5', false, 'stay', roll],
    ['6:5 1@5, 4:5 1@5', false, 'stay', hop],
    ['6:5 1@5, 5:4 1@5', false, 'stay', hop],
    ['5:0 0@5, 4:0 0@5', false, 'stay', 0],
    ['6:5 1@5, 6:7 1@7', false, 'slide', slide + 2 * perFret],
    ['6:7 1@7, 6:5 1@5', false, 'slide', slide + 2 * perFret],
    ['6:5 1@5, 6:4 1@5', false, 'slide', slide],
    ['6:5 3@3, 6:7 3@5', true, 'slide', slide + 2 * perFret + slideOnThird],
    ['6:5 4@2, 6:6 4@3', false, 'slide', slide + perFret + slideOnLittle],
    ['6:5 1@5, 6:9 4@6', false, 'closeUp', shift + aim + perFret + closeUp + wrongLead],
    ['6:5 4@2, 6:6 1@6', false, 'closeUp', shift + aim + 4 * perFret + closeUp],
    ['6:6 1@6, 6:5 4@2', false, 'closeUp', shift + aim + 4 * perFret + closeUp],
    // Up with the hand as the line falls on a string: no teacher lets it pass.
    ['6:6 4@3, 6:5 1@5', false, 'closeUp', shift + aim + 2 * perFret + closeUp + never],
    ['6:5 4@2, 6:8 4@5', false, 'slide', slide + 3 * perFret + slideOnLittle + never],
    ['6:6 3@4, 6:5 2@4', false, 'stay', 0],
    ['6:8 3@6, 6:5 2@4', false, 'closeUp', shift + aim + 2 * perFret + closeUp + wrongLead],
    ['6:8 4@5, 5:7 3@5', false, 'stay', 0],
    ['6:8 4@5, 5:8 3@6', false, 'shift', shift + perFret],
    ['6:8 4@5, 5:9 1@9', false, 'shift', shift + aim + 4 * perFret],
    ['6:8 4@5, 5:9 4@6', false, 'shift', shift + aim + perFret + wrongLead],
    ['6:8 4@5, 5:4 1@4', false, 'shift', shift + aim + perFret + wrongLead],
    ['6:8 4@5, 5:4 3@2', false, 'shift', shift + aim + 3 * perFret],
    ['6:8 4@5, 5:5 2@4', false, 'shift', shift + perFret],
    ['6:8 4@5, 5:0 0@2', false, 'shift', shift + 3 * perFret],
    ['6:8 4@5, 6:0 0@2', false, 'shift', shift + 3 * perFret],
    ['6:0 0@5, 6:7 3@5', false, 'stay', 0],
    ['6:0 0@5, 6:4 1@4', false, 'shift', shift + aim + perFret + wrongLead],
  ] as const)('%s (third %s) is %s', (text, third, move, cost) => {
    const [a, b] = steps(text) as [Fingered, Fingered];
    expect(moveBetween(a.spot, a, b.spot, b)).toBe(move);
    expect(passage(a.spot, a, b.spot, b, third, 'onePerFret')).toBeCloseTo(cost, 9);
  });

  test('with three fingers the hand covers three frets, and the ring finger leads down', () => {
    const cost = (text: string, school: 'threeFingers' | 'slides') => {
      const [a, b] = steps(text) as [Fingered, Fingered];
      return passage(a.spot, a, b.spot, b, false, school);
    };
    expect(cost('6:5 1@5, 5:8 3@6', 'threeFingers')).toBeCloseTo(shift + aim + perFret + wrongLead, 9);
    expect(cost('6:5 1@5, 5:7 2@6', 'threeFingers')).toBeCloseTo(shift + perFret, 9);
    expect(cost('6:5 1@5, 5:4 3@2', 'threeFingers')).toBeCloseTo(shift + aim + 3 * perFret, 9);
    expect(cost('6:5 1@5, 6:7 1@7', 'slides')).toBeCloseTo(slide + 2 * perFret + slideForSliders, 9);
  });

  test('the first note starts; a slide by stretching alone moves the finger and not the hand', () => {
    const line = steps('6:5 1@5, 6:4 1@5, 6:7 3@5, 5:9 4@6, 5:0 0@6');
    expect(line.map((_, i) => moveTo(line, i))).toEqual(['start', 'slide', 'stay', 'shift', 'stay']);
    expect(line.map((_, i) => movesAt(line, i))).toEqual([false, false, false, true, false]);
    expect(line.map(stretchOf)).toEqual([0, -1, 0, 0, 0]);
  });
});

describe('fingers as players memorise them', () => {
  const said = (text: string): string => signatureOf(steps(text));
  test.each([
    ['6:5 1@5, 6:7 3@5, 6:9 4@5', '1 3 stretch 4'],
    ['6:9 4@5, 6:7 3@5, 6:5 1@5', '4 stretch 3 1'],
    ['6:5 1@6, 6:7 2@6, 6:9 4@6', '1 stretch 2 4'],
    ['6:9 4@6, 6:7 2@6, 6:5 1@6', '4 2 stretch 1'],
    ['6:9 4@5', 'stretch 4'],
    ['6:5 1@6', '1'],
    ['6:5 1@5, 6:7 1@7, 6:8 2@7', '1 s1 2'],
    ['6:5 1@5, 6:10 1@10, 6:12 4@9', '1 s1 | 4'],
    ['6:5 1@5, 6:7 1@8, 6:8 1@8', '1 s1 s1'],
    ['6:0 0@5, 6:7 1@7', '0 | 1'],
    ['6:5 1@5, 6:7 3@5, 5:9 1@9, 5:11 3@9', '1 3 / 1 3'],
    ['6:5 1@5, 5:5 1@5, 6:5 1@5', '1 / 1 / 1'],
  ])('%s is %s', (text, expected) => expect(said(text)).toBe(expected));

  test('strings fingered alike are told with every string once', () => {
    const line = steps('6:5 1@5, 6:7 3@5, 5:5 1@5, 5:8 4@5, 6:5 1@5, 6:7 3@5, 4:5 1@5, 4:7 3@5');
    expect(repeatedGroups(line)).toEqual([{ fingers: '1 3', strings: [6, 4] }]);
    expect(fingersSaid(line, [2, 3])).toBe('1 4');
  });
});
