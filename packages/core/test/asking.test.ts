import fc from 'fast-check';
import {
  type Answer,
  type Card,
  CARD_KINDS,
  cardId,
  cardsOf,
  CATALOGUE,
  DEFAULT_INSTRUMENT,
  degreeIndex,
  degreeName,
  type Ground,
  groundOf,
  heardPlace,
  layOut,
  LESSONS,
  list,
  neckOf,
  note,
  noteName,
  nextLesson,
  pitchAt,
  pitchClass,
  type Place,
  placeId,
  pretty,
  type Question,
  refOf,
  ROOTS,
  spellScale,
  stringsAsked,
  stringsMissed,
  TUNINGS,
} from './core.ts';
import { HAND } from './helpers.ts';

type Base = Omit<Card, 'kind' | 'of'>;
/** A position by chance: any tuning, key and scale, two or three notes a string, with a capo at times. */
const anyBase = fc
  .record({
    tuning: fc.constantFrom(...TUNINGS),
    scale: fc.constantFrom(...CATALOGUE),
    root: fc.constantFrom(...ROOTS.map((names) => names.at(-1)!)),
    counts: fc.constantFrom([2], [3], [3, 2]),
    capo: fc.constantFrom(0, 0, 0, 3),
    at: fc.nat(),
  })
  .map(({ tuning, scale, root, counts, capo, at }): Base | null => {
    const instrument = { ...DEFAULT_INSTRUMENT, tuning: tuning.tuning, frets: 22, capo, wound: 2 };
    const layout = { kind: 'count', counts };
    const all = layOut(neckOf(instrument), { root: note(root), scale }, layout);
    if (!all.ok || !all.value.length) return null;
    const ref = refOf(all.value, all.value[at % all.value.length]!);
    return { root, scale: scale.id, layout, instrument, ref };
  })
  .filter((it) => it !== null);

function groundFor(base: Base): Ground {
  const ground = groundOf({ ...base, of: '' }, HAND);
  if (!ground.ok) throw new Error(ground.error.message);
  return ground.value;
}
/** What is right by plain enumeration: every place of the neck is asked whether it belongs. */
function plainly(kind: string, ground: Ground): (place: Place) => boolean {
  const { neck, key, position, positions, of } = ground;
  const degreeAt = ({ string, fret }: Place): number => degreeIndex(key, pitchAt(neck, string, fret));
  const inside = (p: typeof position, it: Place): boolean =>
    p.held.some((s) => s.string === it.string && s.fret === it.fret);
  const [a, b] = of.split('.').map(Number);
  const next = positions[position.index + 1];
  switch (kind) {
    case 'place':
      return (it) => inside(position, it);
    case 'roots':
      return (it) => it.fret <= 12 && degreeAt(it) === 0;
    case 'note-on':
      return (it) => it.fret <= 12 && it.string === a && degreeAt(it) === b;
    case 'degree-near':
      return (it) => inside(position, it) && degreeAt(it) === Number(of);
    case 'seam':
      return (it) => inside(position, it) && inside(next!, it);
    case 'chord-notes':
      return (it) => inside(position, it) && [0, 2, 4].some((by) => (Number(of) + by) % 7 === degreeAt(it));
    case 'same-shape': {
      // The shape where its roots are those of the other key, on the nearest frets.
      const by = Array.from({ length: 23 }, (_, i) => (i % 2 ? (i + 1) / 2 : -i / 2)).find(
        (n) =>
          n !== 0 &&
          (pitchClass(key.root) + n + 24) % 12 === pitchClass(note(of)) &&
          position.held.every((s) => s.fret > 0 && s.fret + n > 0 && s.fret + n <= neck.frets),
      )!;
      return (it) => inside(position, { string: it.string, fret: it.fret - by });
    }
    case 'next-begins':
      return (it) => placeId(it) === placeId(next!.spots[0]!);
    default:
      throw new Error(kind);
  }
}
function everywhere({ neck }: Ground): readonly Place[] {
  return neck.rising.flatMap((string) =>
    Array.from({ length: neck.frets + 1 }, (_, fret): Place => ({ string, fret })),
  );
}
const ids = (places: readonly Place[]): readonly number[] => places.map(placeId).sort((x, y) => x - y);
const ticks = (places: readonly Place[]): Answer => ({ by: 'ticks', places });

test('what is to be ticked is what plain enumeration of the neck finds, on any tuning; the judge tells what is missing and what is too much', () => {
  const met = new Map<string, number>();
  fc.assert(
    fc.property(anyBase, fc.nat(), (base, seed) => {
      const at = groundFor(base);
      const { neck } = at;
      for (const kind of CARD_KINDS.all()) {
        const all = kind.asks(at);
        const of = all[seed % Math.max(1, all.length)];
        if (of === undefined) continue;
        const ground = { ...at, of };
        const question = kind.ask(ground);
        if (question?.right.by !== 'ticks') continue;
        met.set(kind.kind, (met.get(kind.kind) ?? 0) + 1);
        const { places } = question.right;
        const right = everywhere(ground).filter(plainly(kind.kind, ground));
        // A relay may lie beyond what a neck of 22 frets enumerates; nothing else may.
        expect(ids(places)).toEqual(ids(right));
        expect(kind.judge(question, ticks([...places].reverse()))).toMatchObject({ right: true });
        const [first, ...rest] = places;
        const wrong = everywhere(ground).find((it) => !places.some((p) => placeId(p) === placeId(it)))!;
        expect(kind.judge(question, ticks([...rest, wrong, wrong]))).toMatchObject({
          right: false,
          missing: question.right.one && rest.length ? [] : [first],
          extra: [wrong],
        });
        const { missing, extra } = kind.judge(question, ticks([...rest, wrong]));
        expect(stringsMissed(question, { right: false, missing, extra, said: '' })).toEqual(
          [...new Set([...missing, ...extra].map(({ string }) => string))].sort((a, b) => a - b),
        );
        expect(stringsMissed(question, kind.judge(question, ticks(places)))).toEqual([]);
        expect(stringsAsked(question)).toEqual(
          neck.rising.filter((s) => places.some(({ string }) => string === s)).sort((a, b) => a - b),
        );
        // Played on the guitar in any order, each pitch ticks a spot that was asked for, and another pitch one that was not.
        const heard = [...places].reverse().reduce<readonly Place[]>((ticked, { string, fret }) => {
          const place = heardPlace(ground, question, ticked, pitchAt(ground.neck, string, fret));
          return place ? [...ticked, place] : ticked;
        }, []);
        expect(kind.judge(question, ticks(heard)).right).toBe(true);
        expect(
          heardPlace(ground, question, heard, pitchAt(ground.neck, places[0]!.string, places[0]!.fret)),
        ).toBeNull();
        const [low, high] = question.frets;
        for (const { fret } of [...places, ...question.given]) {
          expect(fret).toBeGreaterThanOrEqual(low);
          expect(fret).toBeLessThanOrEqual(high);
        }
      }
    }),
    { numRuns: 150 },
  );
  for (const kind of [
    'place',
    'roots',
    'note-on',
    'degree-near',
    'seam',
    'next-begins',
    'chord-notes',
    'same-shape',
  ])
    expect(met.get(kind)).toBeGreaterThan(15);
});

/** What is right to choose, by plain reading of the position. */
function chosenPlainly(kind: string, ground: Ground, question: Question): string {
  const { key, neck, position, of } = ground;
  const [spot] = question.look;
  const midi = spot && pitchAt(neck, spot.string, spot.fret);
  const names = spellScale(key).map((it) => pretty(noteName(it)));
  switch (kind) {
    case 'note-here':
      return names[degreeIndex(key, midi!)]!;
    case 'degree-here':
      return question.right.by === 'choice' ? question.right.choices[degreeIndex(key, midi!)]!.id : '';
    case 'root-finger':
      return String(ground.steps().find((it) => placeId(it.spot) === placeId(spot!))!.finger);
    case 'jogs': {
      // Neighbouring strings that are no fourth apart, from the lowest up.
      const strings = neck.rising.filter((s) => position.held.some((it) => it.string === s));
      const odd = strings.slice(1).flatMap((to, i) => {
        const from = strings[i]!;
        const isNext = neck.rising.indexOf(to) === neck.rising.indexOf(from) + 1;
        return isNext && neck.open[to - 1]! - neck.open[from - 1]! !== 5
          ? [`between strings ${from} and ${to}`]
          : [];
      });
      return list(odd) || 'nowhere';
    }
    case 'mode-turns': {
      const other = CATALOGUE.find((it) => it.id === of)!;
      const news = other.offsets.filter((it) => !key.scale.offsets.includes(it));
      expect(news).toHaveLength(1);
      return pretty(degreeName(other.degrees[other.offsets.indexOf(news[0]!)]!));
    }
    case 'root-string':
      return [...new Set(position.held.filter((it) => it.degree === 0).map((it) => it.string))]
        .sort((x, y) => y - x)
        .join(' and ');
    case 'groups': {
      const strings = [...new Set(ground.steps().map((it) => it.spot.string))];
      const on = ground.steps().filter((it) => it.spot.string === strings[Number(of)]);
      return on.map((it) => it.finger).join(' ');
    }
    default:
      throw new Error(kind);
  }
}

test('what is to be chosen is what the position says, it is among the choices, and the judge takes nothing else', () => {
  const met = new Map<string, number>();
  fc.assert(
    fc.property(anyBase, fc.nat(), (base, seed) => {
      const at = groundFor(base);
      for (const kind of CARD_KINDS.all()) {
        const all = kind.asks(at);
        const of = all[seed % Math.max(1, all.length)];
        if (of === undefined) continue;
        const question = kind.ask({ ...at, of });
        if (question?.right.by !== 'choice') continue;
        const { id, choices } = question.right;
        expect(choices.filter((it) => it.id === id)).toHaveLength(1);
        expect(new Set(choices.map((it) => it.id)).size).toBe(choices.length);
        for (const it of choices)
          expect(kind.judge(question, { by: 'choice', id: it.id }).right).toBe(it.id === id);
        // Signs of slides and stretches stand between fingers.
        const plain = kind.kind === 'groups' ? id.replace(/[^\d]+/gu, ' ').trim() : id;
        if (kind.kind === 'groups' && /s|\|/u.test(id)) continue;
        expect(plain).toBe(chosenPlainly(kind.kind, { ...at, of }, question));
        met.set(kind.kind, (met.get(kind.kind) ?? 0) + 1);
      }
    }),
    { numRuns: 150 },
  );
  for (const kind of [
    'note-here',
    'degree-here',
    'root-finger',
    'root-string',
    'groups',
    'jogs',
    'mode-turns',
  ])
    expect(met.get(kind)).toBeGreaterThan(15);
});

const BOX: Base = {
  root: 'A',
  scale: 'minor-pentatonic',
  layout: { kind: 'count', counts: [2] },
  instrument: DEFAULT_INSTRUMENT,
  ref: { start: 0, low: 5, nth: 0 },
};

test('cards come in the order in which people learn: the roots, the position at hand, its seam, the next one, then other keys; each once', () => {
  const all = cardsOf(
    BOX,
    LESSONS.map(({ id }) => id),
    HAND,
  );
  const kinds = [...new Set(all.map(({ card }) => card.kind))];
  expect(kinds.slice(0, 3)).toEqual(['roots', 'place', 'root-string']);
  expect(kinds.indexOf('seam')).toBeGreaterThan(kinds.indexOf('place'));
  const places = all.filter(({ card }) => card.kind === 'place');
  expect(places.slice(0, 3).map(({ card, name }) => [card.ref.low, name])).toEqual([
    [5, 'A minor pentatonic, position 1: place the position'],
    [7, 'A minor pentatonic, position 2: place the position'],
    [9, 'A minor pentatonic, position 3: place the position'],
  ]);
  // Around the circle of fifths, each key once.
  const roots = all.filter(({ card }) => card.kind === 'same-shape').map(({ card }) => card.of);
  expect(roots.slice(0, 3)).toEqual(['E', 'D', 'B']);
  expect(new Set(roots).size).toBe(11);
  expect(all.map(({ id, card }) => id === cardId(card))).not.toContain(false);
  expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
  expect(cardsOf(BOX, [], HAND)).toEqual([]);
  // Every kind is learned by some lesson.
  const modal = cardsOf(
    { ...BOX, scale: 'dorian', layout: { kind: 'count', counts: [3] } },
    LESSONS.map(({ id }) => id),
    HAND,
  );
  expect(new Set(modal.map(({ card }) => card.kind))).toEqual(
    new Set(CARD_KINDS.all().map(({ kind }) => kind)),
  );
});

test('the same question of the same neck is the same card, whatever the instrument is called; another one is another', () => {
  const card: Card = { kind: 'place', ...BOX, of: '' };
  const same: Card = { ...card, instrument: { ...DEFAULT_INSTRUMENT, name: 'other', handed: 'left' } };
  expect(cardId(same)).toBe(cardId(card));
  const others: readonly Card[] = [
    { ...card, of: '1' },
    { ...card, kind: 'roots' },
    { ...card, root: 'B' },
    { ...card, ref: { ...BOX.ref, low: 7 } },
    { ...card, instrument: { ...DEFAULT_INSTRUMENT, capo: 2 } },
    { ...card, layout: { kind: 'count', counts: [3] } },
  ];
  expect(new Set([card, ...others].map(cardId)).size).toBe(others.length + 1);
});

test('a card whose position is not on its neck any more is told, not asked', () => {
  expect(groundOf({ ...BOX, ref: { start: 0, low: 6, nth: 0 }, of: '' }, HAND)).toMatchObject({
    error: { code: 'asking.gone' },
  });
  expect(groundOf({ ...BOX, scale: 'nowhere', of: '' }, HAND)).toMatchObject({
    error: { code: 'asking.scale' },
  });
});

test('what comes next is the position at hand until it holds, then its neighbour up, then down, then other keys; never two at once', () => {
  const laid = layOut(
    neckOf(DEFAULT_INSTRUMENT),
    { root: note('A'), scale: CATALOGUE.find((it) => it.id === BOX.scale)! },
    BOX.layout,
  );
  const positions = laid.ok ? laid.value : [];
  const at = positions.findIndex((p) => p.lowFret === BOX.ref.low);
  /** Positions that are placed, from one index to another, each holding for so many days. */
  const placed = (from: number, to: number, holds: number) =>
    positions.slice(from, to + 1).map((p) => ({
      card: { kind: 'place', ...BOX, ref: refOf(positions, p), of: '' },
      holds,
    }));
  const lows = (next: ReturnType<typeof nextLesson>) => [
    ...new Set(next!.cards.filter(({ card }) => card.kind === 'place').map(({ card }) => card.ref.low)),
  ];
  expect(nextLesson([], HAND)).toBeNull();
  // Roots alone: their position.
  const roots = { card: { kind: 'roots', ...BOX, of: '' }, holds: 30 };
  const first = nextLesson([roots], HAND)!;
  expect([lows(first), first.cards.some(({ card }) => card.kind === 'roots')]).toEqual([[5], false]);
  expect(nextLesson(placed(at, at, 0), HAND)).toMatchObject({
    cards: [],
    why: expect.stringContaining('not answered yet'),
  });
  expect(nextLesson(placed(at, at, 3.2), HAND)).toMatchObject({
    cards: [],
    why: expect.stringContaining('3 days'),
  });
  const up = nextLesson(placed(at, at, 9), HAND)!;
  expect([lows(up), up.why]).toEqual([
    [7],
    'position 1 holds for 9 days. This one lies next above it and shares 6 spots with it.',
  ]);
  // One of those below it that is weak comes first.
  expect(nextLesson([...placed(at, at, 2), ...placed(at + 1, at + 1, 20)], HAND)).toMatchObject({
    cards: [],
  });
  const top = positions.length - 1;
  expect(lows(nextLesson(placed(at, top, 20), HAND))).toEqual([positions[at - 1]!.lowFret]);
  const keys = nextLesson(placed(0, top, 20), HAND)!;
  expect(new Set(keys.cards.map(({ card }) => card.kind))).toEqual(new Set(['same-shape']));
  // Another ladder has no say in it.
  const other = placed(at, at, 0).map((it) => ({ ...it, card: { ...it.card, root: 'C' } }));
  expect(lows(nextLesson([...other, ...placed(at, at, 9)], HAND))).toEqual([7]);
});
