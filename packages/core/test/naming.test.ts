import fc from 'fast-check';
import {
  ALIASES,
  CATALOGUE,
  checkInstrument,
  crossings,
  DEFAULT_INSTRUMENT,
  halfStepLaw,
  instrumentOf,
  intervalName,
  layOut,
  layoutName,
  list,
  midiName,
  mod,
  modeOn,
  namesOfPosition,
  nearestFret,
  neckOf,
  NUMBERING_SCHOOLS,
  ordinal,
  ownScale,
  plural,
  positionNames,
  fingers,
  repeatedGroups,
  repeatLaw,
  repeatStrings,
  resolveScale,
  roman,
  rootsIn,
  rotate,
  scaleById,
  spellOffsets,
  stepText,
  tuningById,
  tuningNamed,
  TUNINGS,
  usualSchool,
  usualOf,
  wideStepLaw,
  parseFormula,
  pitchAt,
  type Instrument,
  LAYOUTS,
} from './core.ts';
import { anyKey, anyScale, key, neckWith, positions, tableNeck } from './helpers.ts';

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

describe('names of positions', () => {
  const pent = key('A', 'minor-pentatonic');
  const two = { kind: 'count', counts: [2] };
  const three = { kind: 'count', counts: [3] };
  const boxes = positions(pent, two);
  /** The first word of each name, before positions of one name are told apart. */
  const bare = (names: readonly string[]): readonly string[] => names.map((n) => n.split(',')[0]!);

  test('every school names every position, and numbers run from 1 without a gap', () => {
    for (const { id } of NUMBERING_SCHOOLS)
      expect(positionNames(boxes, pent, id, two)).toHaveLength(boxes.length);
    for (const school of ['minorRoot', 'majorRoot'] as const)
      expect(new Set(bare(positionNames(boxes, pent, school, two)))).toEqual(
        new Set([1, 2, 3, 4, 5].map((n) => `position ${n}`)),
      );
    expect(Object.keys(namesOfPosition(boxes, pent, 0, two)).sort()).toEqual(
      NUMBERING_SCHOOLS.map((s) => s.id).sort(),
    );
  });

  test('no two positions of a ladder have the same name, in any layout and school', () => {
    fc.assert(
      fc.property(
        anyKey,
        tableNeck,
        fc.constantFrom(...LAYOUTS.all()),
        fc.constantFrom(...NUMBERING_SCHOOLS),
        (k, neck, layout, { id }) => {
          const spec = usualOf(layout, { scale: k.scale, string: 1, strings: neck.open.length });
          for (const asked of [spec, ...(layout.kind === 'inPosition' ? [{ ...spec, every: true }] : [])]) {
            const result = layOut(neck, k, asked);
            const names = result.ok ? positionNames(result.value, k, id, asked) : [];
            expect(new Set(names).size).toBe(names.length);
          }
        },
      ),
    );
  });

  test('repeats an octave up are told apart; regions and windows say where they lie', () => {
    const at = (low: number): string =>
      positionNames(boxes, pent, 'minorRoot', two)[boxes.findIndex((p) => p.lowFret === low)]!;
    expect([at(5), at(17)]).toEqual(['position 1', 'position 1, an octave up']);
    const regions = positions(key('A', 'major'), { kind: 'regions', boundary: 7 });
    const named = positionNames(regions, key('A', 'major'), 'mode', { kind: 'regions', boundary: 7 });
    expect(named[0]).toBe(`low, frets ${regions[0]!.lowFret} to ${regions[0]!.highFret}`);
    const any = { kind: 'inPosition', school: 'index', every: true };
    const every = positions(pent, any);
    expect(positionNames(every, pent, 'mode', any)).toContain('position V');
    expect(positionNames(every, pent, 'neck', any)[0]).toBe('position 1');
    const fourths = { kind: 'fourths' };
    expect(positionNames(positions(pent, fourths), pent, 'degree', fourths)).toContain('position V');
  });

  test('the relative major and minor share their numbers', () => {
    const minor = key('A', 'natural-minor');
    const major = key('C', 'major');
    for (const school of ['minorRoot', 'majorRoot', 'mode'] as const)
      expect(positionNames(positions(minor, three), minor, school, three)).toEqual(
        positionNames(positions(major, three), major, school, three),
      );
  });

  test('each position of C major bears the name of the mode that starts on its lowest note', () => {
    // Common practice, no source.
    const c = key('C', 'major');
    const shapes = positions(c, three);
    const named = new Map(
      bare(positionNames(shapes, c, 'mode', three)).map((name, i) => [shapes[i]!.start, name]),
    );
    expect([...named].sort(([a], [b]) => a - b).map(([, name]) => name.replace(' position', ''))).toEqual([
      'Ionian',
      'Dorian',
      'Phrygian',
      'Lydian',
      'Mixolydian',
      'Aeolian',
      'Locrian',
    ]);
  });

  test('where no position starts on the root, position 1 is the one that holds it', () => {
    // The reach-3 boxes of the diatonic scale: five of the seven degrees start one.
    const spec = { kind: 'reach', reach: 3 };
    for (const mode of CATALOGUE.filter((s) => s.family === 'major modes')) {
      const k = key('A', mode.id);
      const ps = positions(k, spec);
      const names = positionNames(ps, k, 'minorRoot', spec);
      const first = ps[names.indexOf('position 1')]!;
      expect(first.groups[0]!.degrees.length).toBeGreaterThan(0);
      expect(new Set(bare(names)).size).toBe(5);
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
    expect(repeatedGroups(fingers(neckWith(), box.spots, { school: 'onePerFret' }).steps)).toEqual([
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
  const read = (text: string) => {
    const formula = parseFormula(text, 'degrees');
    if (!formula.ok) throw new Error(formula.error.message);
    return ownScale(formula.value.degrees);
  };
  test('an id holds the whole scale', () => {
    const own = ownScale(spellOffsets([0, 1, 5, 6, 10]));
    expect(resolveScale(own.id)).toEqual({ ok: true, value: own });
    // However its notes were spelled or ordered, one set of notes has one id, and ids of before are read.
    for (const text of ['1 #1 4 b5 b7', '1 b2 b5 4 #6', 'b7 4 b2 #4 1'])
      expect([text, read(text).id]).toEqual([text, own.id]);
    expect(resolveScale('own:1,#1,4,#4,#6')).toEqual({ ok: true, value: own });
    expect(resolveScale('own:1,x')).toMatchObject({ ok: false, error: { code: 'scale.unknown' } });
    expect(resolveScale('lydian')).toMatchObject({ ok: true, value: { id: 'lydian' } });
  });

  test('a scale that was renamed is found by its old id', () => {
    expect(resolveScale('moonlit').ok).toBe(false);
    ALIASES.scale.set('moonlit', 'moonshine').set('moonshine', 'dorian');
    expect(resolveScale('moonlit')).toMatchObject({ ok: true, value: { id: 'dorian' } });
    ALIASES.scale.clear();
    // An alias that leads in a circle finds nothing, and comes to an end.
    ALIASES.scale.set('a', 'b').set('b', 'a');
    expect(resolveScale('a').ok).toBe(false);
    ALIASES.scale.clear();
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
    const said = LAYOUTS.all().map((l) => layoutName(usualOf(l, { scale, string: 6, strings: 6 })));
    expect(new Set(said).size).toBe(LAYOUTS.all().length);
    expect(said[0]).toBe('three notes per string');
    expect(layoutName({ kind: 'count', counts: [3, 3, 2] })).toBe('3, 3 and 2 notes on the strings');
    expect(midiName(42)).toBe('F#2');
  });
});
