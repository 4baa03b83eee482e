import fc from 'fast-check';
import {
  CATALOGUE, checkInstrument, crossings, DEFAULT_INSTRUMENT, fingerGroup, halfStepLaw, instrumentOf, intervalName,
  layOut, layoutName, LAYOUTS, list, midiName, mod, modeOn, namesOfPosition, nearestFret, neckOf, NUMBERING_SCHOOLS, ordinal, ownScale,
  plural, positionNames, repeatedGroups, repeatLaw, repeatStrings, resolveScale, roman, rootsIn, rotate, scaleById, spellOffsets, stepText,
  tuningById, tuningNamed, TUNINGS, usualSchool, usualSpec, wideStepLaw, parseFormula, pitchAt, type Instrument,
} from '../src/index.ts'; // prettier-ignore
import { anyScale, key, neckWith, positions, tableNeck } from './helpers.ts';

test('numbers and lists are said as players say them', () => {
  expect([1, 4, 5, 7, 9, 11, 12, 14, 19, 24].map(roman)).toEqual([
    'I',
    'IV',
    'V',
    'VII',
    'IX',
    'XI',
    'XII',
    'XIV',
    'XIX',
    'XXIV',
  ]);
  expect(roman(0)).toBe('open');
  expect([1, 3, 7, 8, 11, 12, 21, 22].map(ordinal)).toEqual([
    'first',
    'third',
    'seventh',
    '8th',
    '11th',
    '12th',
    '21st',
    '22nd',
  ]);
  expect([list([1]), list([1, 2]), list([1, 2, 3], 'or')]).toEqual(['1', '1 and 2', '1, 2 or 3']);
  expect([plural(1, 'fret'), plural(2, 'fret'), plural(0, 'fret')]).toEqual(['1 fret', '2 frets', '0 frets']);
});

describe('groups on a string', () => {
  // Groups as players memorise them (common practice, no source).
  test.each([
    ['5 6 8', 5, '1 2 4'],
    ['5 7 8', 5, '1 3 4'],
    ['5 7 9', 5, '1 3 stretch 4'],
    ['5 6 9', 5, '1 2 stretch 4'],
    ['5 8 9', 5, '1 stretch 3 4'],
    ['5 6 7', 5, '1 2 3'],
    ['5 6 7 8', 5, '1 2 3 4'],
    ['5 8', 5, '1 4'],
    ['5 7', 5, '1 3'],
    ['8 10', 7, '2 4'],
    ['8 10', 8, '1 3'],
    ['7', 5, '3'],
    ['5 7 9 10', 5, '1 3 slide 3 4'],
    ['5 8 10', 5, '1 4 slide 4'],
  ])('%s with the index at %d is %s', (frets, base, fingers) => {
    expect(fingerGroup(frets.split(' ').map(Number), base)).toBe(fingers);
  });

  test('any group names one finger for each of its notes', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 12 }), { minLength: 1, maxLength: 6 }),
        (frets) => {
          const sorted = [...frets].sort((a, b) => a - b);
          const fingers = fingerGroup(sorted, sorted[0]!).match(/\d/g)!.map(Number);
          expect(fingers).toHaveLength(sorted.length);
          expect(fingers.every((f) => f >= 1 && f <= 4)).toBe(true);
          expect(fingers.every((f, i) => i === 0 || f >= fingers[i - 1]!)).toBe(true);
        },
      ),
    );
  });
});

describe('names of positions', () => {
  const pent = key('A', 'minor-pentatonic');
  const boxes = positions(pent, { kind: 'count', counts: [2] });

  test('every school names every position, and numbers run from 1 without a gap', () => {
    for (const { id } of NUMBERING_SCHOOLS) expect(positionNames(boxes, pent, id)).toHaveLength(boxes.length);
    for (const school of ['minorRoot', 'majorRoot'] as const)
      expect(new Set(positionNames(boxes, pent, school))).toEqual(
        new Set([1, 2, 3, 4, 5].map((n) => `position ${n}`)),
      );
    expect(Object.keys(namesOfPosition(boxes, pent, 0)).sort()).toEqual(
      NUMBERING_SCHOOLS.map((s) => s.id).sort(),
    );
  });

  test('the relative major and minor share their numbers', () => {
    const minor = key('A', 'natural-minor');
    const major = key('C', 'major');
    const spec = { kind: 'count', counts: [3] } as const;
    for (const school of ['minorRoot', 'majorRoot', 'mode'] as const)
      expect(positionNames(positions(minor, spec), minor, school)).toEqual(
        positionNames(positions(major, spec), major, school),
      );
  });

  test('each position of C major bears the name of the mode that starts on its lowest note', () => {
    // Common practice, no source.
    const c = key('C', 'major');
    const shapes = positions(c, { kind: 'count', counts: [3] });
    const named = new Map(positionNames(shapes, c, 'mode').map((name, i) => [shapes[i]!.start, name]));
    expect([...named].sort(([a], [b]) => a - b).map(([, name]) => name.replace(' position', ''))).toEqual([
      'Ionian', 'Dorian', 'Phrygian', 'Lydian', 'Mixolydian', 'Aeolian', 'Locrian',
    ]); // prettier-ignore
  });

  test('where no position starts on the root, position 1 is the one that holds it', () => {
    // The reach-3 boxes of the diatonic scale: five of the seven degrees start one.
    for (const mode of CATALOGUE.filter((s) => s.family === 'major modes')) {
      const k = key('A', mode.id);
      const ps = positions(k, { kind: 'reach', reach: 3 });
      const first = ps[positionNames(ps, k, 'minorRoot').indexOf('position 1')]!;
      expect(first.groups[0]!.degrees.length).toBeGreaterThan(0);
      expect(new Set(positionNames(ps, k, 'minorRoot')).size).toBe(5);
      expect(rootsIn(first).length).toBeGreaterThan(0);
    }
  });

  test('seven notes are named by mode, fewer by number', () => {
    expect(usualSchool(scaleById('dorian')!)).toBe('mode');
    expect(usualSchool(scaleById('minor-blues')!)).toBe('minorRoot');
    expect(modeOn(scaleById('harmonic-minor')!, 4)!.name).toBe('Phrygian dominant');
    expect(modeOn(ownScale(spellOffsets([0, 1, 2])), 1)).toBeUndefined();
  });
});

describe('laws in words', () => {
  test('are computed from the scale', () => {
    expect(wideStepLaw(scaleById('harmonic-minor')!)).toBe('The wide step (3 frets) follows the b6.');
    expect(wideStepLaw(scaleById('whole-tone')!)).toBeNull();
    expect(halfStepLaw(scaleById('major')!)).toBe('Half steps lie from 3 to 4 and 7 to 1.');
    expect(halfStepLaw(scaleById('chromatic')!)).toBeNull();
    expect(repeatLaw(scaleById('major')!, { kind: 'count', counts: [3] })).toBe(
      'In fourths the groups repeat after 7 strings (21 notes), 1 fret up.',
    );
    expect(repeatLaw(scaleById('minor-pentatonic')!, { kind: 'diagonal' })).toBe(
      'In fourths the groups repeat after 2 strings (5 notes), 2 frets up.',
    );
    expect(repeatLaw(scaleById('major')!, { kind: 'fourths' })).toBeNull();
  });

  test('a law of repetition holds on a neck in fourths', () => {
    const neck = neckWith('C1 F1 A#1 D#2 G#2 C#3 F#3 B3 E4 A4 D5 G5', 36);
    fc.assert(
      fc.property(anyScale, fc.integer({ min: 1, max: 4 }), (scale, count) => {
        const spec = { kind: 'count', counts: [count] } as const;
        const every = repeatStrings(scale, spec)!;
        const ps = layOut(neck, { root: key('C', 'major').root, scale }, spec);
        for (const p of ps.ok ? ps.value : [])
          for (let i = every; i < p.groups.length; i++)
            expect(p.groups[i]!.steps).toBe(p.groups[i - every]!.steps);
      }),
    );
  });

  test('groups that repeat are found', () => {
    const box = positions(key('A', 'minor-pentatonic'), { kind: 'count', counts: [2] }).find(
      (p) => p.lowFret === 5,
    )!;
    expect(repeatedGroups(box)).toEqual([
      { fingers: '1 4', strings: [6, 2, 1] },
      { fingers: '1 3', strings: [5, 4, 3] },
    ]);
  });
});

describe('instruments', () => {
  const with_ = (part: Partial<Instrument>): Instrument => ({ ...DEFAULT_INSTRUMENT, ...part });

  test('bounds are kept, and the refusal names the field', () => {
    expect(checkInstrument(DEFAULT_INSTRUMENT).ok).toBe(true);
    const bad: readonly [Partial<Instrument>, string][] = [
      [{ tuning: [40, 45] }, 'instrument.tuning'],
      [{ tuning: [40, 45, 8] }, 'instrument.tuning'],
      [{ frets: 11 }, 'instrument.frets'],
      [{ frets: 37 }, 'instrument.frets'],
      [{ scaleLength: 300 }, 'instrument.scaleLength'],
      [{ capo: 11 }, 'instrument.capo'],
      [{ capo: -1 }, 'instrument.capo'],
      [{ wound: 7 }, 'instrument.wound'],
    ];
    for (const [part, code] of bad)
      expect(checkInstrument(with_(part))).toMatchObject({ ok: false, error: { code } });
  });

  test('every tuning of the table makes a sound instrument and is recognised again', () => {
    for (const t of TUNINGS) {
      expect([t.id, checkInstrument(instrumentOf(t)).ok]).toEqual([t.id, true]);
      expect(tuningNamed(t.tuning)!.id).toBe(t.id);
    }
    expect(tuningNamed([40, 45, 50])).toBeUndefined();
    expect(crossings(tuningById('all-fifths')!.tuning).map((c) => c.jog)).toEqual([-2, -2, -2, -2, -2]);
    expect([0, 5, 7, 12, 13].map(intervalName)).toEqual([
      'unison',
      'fourth',
      'fifth',
      'octave',
      '13 half steps',
    ]);
  });

  test('a capo raises the pitches and shortens the neck; shapes stay as they are named from it', () => {
    const neck = neckOf(with_({ capo: 3 }));
    expect([pitchAt(neck, 6, 0), neck.frets]).toEqual([43, 19]);
    const spec = { kind: 'count', counts: [2] } as const;
    const open = positions(key('E', 'minor-pentatonic'), spec)[0]!;
    const raised = positions(key('G', 'minor-pentatonic'), spec, neck)[0]!;
    expect(raised.signature).toBe(open.signature);
    expect(raised.groups.map((g) => g.frets)).toEqual(open.groups.map((g) => g.frets));
    expect(raised.groups[0]!.reachMm).toBeLessThan(open.groups[0]!.reachMm);
  });

  test('the nearest place of a note on a string is never further than six frets, room allowing', () => {
    fc.assert(
      fc.property(
        tableNeck,
        fc.integer({ min: 0, max: 11 }),
        fc.integer({ min: 6, max: 12 }),
        (neck, pc, near) => {
          const fret = nearestFret(neck, 1, pc, near);
          expect(mod(pitchAt(neck, 1, fret), 12)).toBe(pc);
          if (near + 6 <= neck.frets) expect(Math.abs(fret - near)).toBeLessThanOrEqual(6);
        },
      ),
    );
  });
});

describe('own scales', () => {
  test('an id holds the whole scale', () => {
    const own = ownScale(spellOffsets([0, 1, 5, 6, 10]));
    expect(resolveScale(own.id)).toEqual({ ok: true, value: own });
    expect(resolveScale('own:1,x')).toMatchObject({ ok: false, error: { code: 'scale.unknown' } });
    expect(resolveScale('lydian')).toMatchObject({ ok: true, value: { id: 'lydian' } });
  });

  test('the steps of any scale read back as the same scale', () => {
    fc.assert(
      fc.property(anyScale, (scale) => {
        expect(parseFormula(stepText(scale), 'steps')).toMatchObject({
          ok: true,
          value: { offsets: scale.offsets },
        });
      }),
    );
  });

  test('a mode begun on a degree holds the same notes', () => {
    fc.assert(
      fc.property(anyScale, fc.nat(11), (scale, n) => {
        const start = n % scale.offsets.length;
        const back = rotate(scale.offsets, start).map((o) => mod(o + scale.offsets[start]!, 12));
        expect([...back].sort((a, b) => a - b)).toEqual(scale.offsets);
      }),
    );
  });

  test('every layout has a name, and its usual form suits the instrument', () => {
    const scale = scaleById('major')!;
    const said = LAYOUTS.map(({ kind }) => layoutName(usualSpec(kind, scale, 6, 6)));
    expect(new Set(said).size).toBe(LAYOUTS.length);
    expect(said[0]).toBe('three notes per string');
    expect(layoutName({ kind: 'count', counts: [3, 3, 2] })).toBe('3, 3 and 2 notes on the strings');
    expect(midiName(42)).toBe('F#2');
  });
});
