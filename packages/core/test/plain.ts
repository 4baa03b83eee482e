import { type Alteration, type Key, type LayoutSpec, type Neck, pitchClass } from './core.ts';

/** A spot found as on paper. */
interface Found {
  readonly string: number;
  readonly fret: number;
  readonly midi: number;
}
type Shapes = readonly (readonly Found[])[];

/**
 * The same layouts worked out as on paper: up the strings fret by fret, asking at every fret whether its note is in the
 * scale. Each finds as many shapes as the layout of its kind.
 */
export function plainShapes(neck: Neck, key: Key, spec: LayoutSpec): Shapes {
  const pcs = key.scale.offsets.map((o) => (o + pitchClass(key.root)) % 12);
  const inScale = (midi: number): boolean => pcs.some((pc) => pc === midi % 12);
  const open = (string: number): number => neck.open[string - 1]!;
  const notes = (string: number): number[] => {
    const out: number[] = [];
    for (let fret = 0; fret <= neck.frets; fret++)
      if (inScale(open(string) + fret)) out.push(open(string) + fret);
    return out;
  };
  const next = (midi: number): number => {
    let at = midi + 1;
    while (!inScale(at)) at++;
    return at;
  };
  const onward = (midi: number, count: number): number => {
    let at = midi;
    for (let i = 0; i < count; i++) at = next(at);
    return at;
  };
  const on = (string: number, midi: number): Found => ({ string, fret: midi - open(string), midi });
  const fits = (shape: readonly Found[]): boolean => shape.every((s) => s.fret >= 0 && s.fret <= neck.frets);
  const [lowest] = neck.rising;
  /** Up the strings from every note of the lowest one, `take` notes on each. */
  const walks = (strings: readonly number[], take: (midi: number, place: number) => number): Shapes =>
    notes(strings[0]!).flatMap((start) => {
      const shape: Found[] = [];
      let midi = start;
      strings.forEach((string, place) => {
        for (let left = take(midi, place); left > 0; left--) {
          shape.push(on(string, midi));
          midi = next(midi);
        }
      });
      return fits(shape) ? [shape] : [];
    });
  const within =
    (reach: number) =>
    (midi: number): number => {
      let count = 1;
      for (let at = next(midi); at - midi <= reach; at = next(at)) count++;
      return count;
    };
  /** Notes that a group within a reach begins on again and again. */
  const recurrent = (reach: number): ((midi: number) => boolean) => {
    const starts = new Set<number>();
    for (const pc of pcs) {
      let at = pc + 12;
      for (let i = 0; i < 24; i++) at = onward(at, within(reach)(at));
      for (let i = 0; i < 12; i++) starts.add((at = onward(at, within(reach)(at))) % 12);
    }
    return (midi) => starts.has(midi % 12);
  };
  const octave = pcs.length + 1;
  const given = spec as unknown as Readonly<Record<string, never>>;
  switch (spec.kind) {
    case 'count': {
      const counts: readonly number[] = given['counts']!;
      return walks(neck.rising, (_, place) => counts[Math.min(place, counts.length - 1)]!);
    }
    case 'reach':
    case 'diagonal': {
      const reach = spec.kind === 'reach' ? given['reach']! : 4;
      const starts = recurrent(reach);
      return walks(neck.rising, within(reach)).filter(([first]) => starts(first!.midi));
    }
    case 'single':
      return walks([given['string']!], () => octave);
    case 'pair': {
      const at = Math.min(neck.rising.indexOf(given['lower']!), neck.rising.length - 2);
      const half = Math.ceil(octave / 2);
      return walks([neck.rising[at]!, neck.rising[at + 1]!], (_, place) => (place ? octave - half : half));
    }
    case 'relay': {
      const [count, per] = [given['notes']! as number, given['perString']! as number];
      const span = count / per;
      const firsts = [0];
      while (firsts.at(-1)! + span < neck.rising.length)
        firsts.push(Math.min(firsts.at(-1)! + span - 2, neck.rising.length - span));
      return notes(lowest!).flatMap((start) => {
        const shape = firsts.flatMap((first, leg) => {
          let midi = onward(start, leg + first * per);
          return neck.rising.slice(first, first + span).flatMap((string) =>
            Array.from({ length: per }, () => {
              const spot = on(string, midi);
              midi = next(midi);
              return spot;
            }),
          );
        });
        return fits(shape) ? [shape] : [];
      });
    }
    case 'skip': {
      const per: number = given['perString']!;
      const strings = neck.rising.filter((_, i) => i % 2 === given['from']!);
      if (strings.length < 2) return [];
      const altered: readonly Alteration[] = given['altered']!;
      const by = (midi: number): number => altered.find((a) => pcs[a.degree] === midi % 12)?.by ?? 0;
      return notes(lowest!).flatMap((start) => {
        const shape = strings.flatMap((string) => {
          let midi = onward(start, neck.rising.indexOf(string) * (per - 1));
          return Array.from({ length: per }, () => {
            const spot = on(string, midi + by(midi));
            const there = fits([on(string, midi)]);
            midi = next(midi);
            return there ? spot : { ...spot, fret: -1 };
          });
        });
        return fits(shape) ? [shape.sort((a, b) => a.midi - b.midi)] : [];
      });
    }
    case 'inPosition': {
      const frame = (p: number, anywhere: boolean): { shape: Found[]; stretches: number } | null => {
        const shape: Found[] = [];
        let stretches = 0;
        let last = -1;
        for (const [i, string] of neck.rising.entries()) {
          const low = open(string) + p;
          const below = neck.rising[i - 1];
          if (below !== undefined)
            for (let midi = open(below) + p + 4; midi < low; midi++) {
              if (!inScale(midi) || midi <= last) continue;
              const back = midi === low - 1 ? [on(string, midi)] : [];
              const forward = midi === open(below) + p + 4 ? [on(below, midi)] : [];
              const ways = given['school'] === 'index' ? [...back, ...forward] : [...forward, ...back];
              const way = ways.find((w) => anywhere || fits([w]));
              if (!way) return null;
              shape.push(way);
              if (p > 0) stretches++;
              last = midi;
            }
          for (let midi = low; midi <= low + 3; midi++)
            if (inScale(midi) && midi > last) shape.push(on(string, (last = midi)));
        }
        return { shape, stretches };
      };
      const counted = Array.from({ length: 12 }, (_, i) => frame(i + 1, true)?.stretches ?? Infinity);
      const even = counted.every((c) => c === counted[0]);
      const worth = counted.map((c, i) => {
        let end = i;
        while (counted[(end + 1) % 12] === c && end < i + 12) end++;
        return c < Infinity && (even || (c < counted[(i + 11) % 12]! && c < counted[(end + 1) % 12]!));
      });
      return Array.from({ length: neck.frets - 2 }, (_, p) => p).flatMap((p) => {
        const found = given['every'] || worth[(p + 11) % 12] ? frame(p, false) : null;
        return found && fits(found.shape) ? [found.shape] : [];
      });
    }
    case 'regions': {
      const out: Found[][] = [];
      const roots = new Set(neck.rising.flatMap(notes).filter((m) => m % 12 === pcs[0]));
      for (const root of roots) {
        const pitches = [root];
        while (pitches.length < octave) pitches.push(next(pitches.at(-1)!));
        const taken = new Set<number>();
        for (let width = 3; width <= 5; width++)
          for (let low = 0; low + width <= neck.frets; low++) {
            const shape = pitches.map((midi) => {
              const string = neck.rising.find((s) => midi - open(s) >= low && midi - open(s) <= low + width);
              return string === undefined ? null : on(string, midi);
            });
            const whole = shape.filter((s) => s !== null);
            if (whole.length < octave) continue;
            if (whole.filter((s) => taken.has(s.string * 100 + s.fret)).length * 2 > octave) continue;
            whole.forEach((s) => taken.add(s.string * 100 + s.fret));
            out.push(whole);
          }
      }
      return out;
    }
    case 'fourths': {
      const shifts = neck.rising.map((s, i) => open(lowest!) + 5 * i - open(s));
      const out: Found[][] = [];
      let before = '';
      for (let start = -Math.min(...shifts); start + 4 + Math.max(...shifts) <= neck.frets; start++) {
        const shape = neck.rising.flatMap((string, i) =>
          [0, 1, 2, 3, 4]
            .map((c) => on(string, open(string) + start + c + shifts[i]!))
            .filter((s) => inScale(s.midi)),
        );
        const same = shape.map((s) => `${s.string}:${s.fret}`).join();
        if (shape.length && same !== before) out.push(shape);
        before = same;
      }
      return out;
    }
    default:
      return [];
  }
}
