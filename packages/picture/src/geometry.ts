import { fretDistance } from '@crow-ladder/core';
import { type Figure, type NeckLook } from './scene.ts';

/** What a drawing needs to know of an instrument: frets counted from the nut, and the fret of the capo, 0 without one. */
export interface NeckSize {
  readonly strings: number;
  readonly frets: number;
  readonly capo: number;
}

/** Where strings and frets lie in a drawing of a neck; lengths in user units, about a CSS pixel each. */
export interface Geometry {
  readonly width: number;
  readonly height: number;
  readonly vertical: boolean;
  readonly from: number;
  readonly to: number;
  /** Half the length and half the thickness of a mark. */
  readonly mark: { readonly half: number; readonly tall: number };
  /** From string to string. */
  readonly gap: number;
  /** Centre of a spot. */
  readonly at: (string: number, fret: number) => { readonly x: number; readonly y: number };
  /** Place of a fret wire (0 is the nut) along the neck. */
  readonly wire: (fret: number) => number;
  /** Centre of a fret along the neck. */
  readonly centre: (fret: number) => number;
  /** Place of a string across the neck. */
  readonly across: (string: number) => number;
  /** First and last string across the neck. */
  readonly edges: readonly [number, number];
  readonly spotAt: (x: number, y: number) => { readonly string: number; readonly fret: number };
  /** Signs of "towards the body" and "towards string 1" on the screen. */
  readonly body: 1 | -1;
  readonly first: 1 | -1;
}

const LONG = 1240;
const OPEN = 34;
const NAMES = 30;
const NUMBERS = 24;
/** From the first string of an upright neck to the last, where they are not too many: a narrow screen has no more. */
const UPRIGHT = 230;
/** From the first string of a lying neck to the last, as far as strings are neither too near nor too far from each other. */
const ACROSS = 214;
/** The shortest fret of an upright neck that a mark and the next one have room in. */
const SHORTEST = 27;
/** Below this width a fret with true spacing cannot hold a mark with its label. */
const NARROWEST = 19;

/** Lays a neck out. Frets count from the capo; their true spacing takes the capo into account. */
export function layOutNeck({ strings, frets: all, capo }: NeckSize, look: NeckLook): Geometry {
  const { vertical } = look;
  const frets = all - capo;
  const [from, to] = look.zoom ?? [0, frets];
  const gap = vertical
    ? Math.min(46, Math.max(27, UPRIGHT / Math.max(strings - 1, 1)))
    : look.roomy
      ? 44
      : Math.max(30, Math.min(42, ACROSS / Math.max(strings - 1, 1)));
  const shown = to - from + (from === 0 ? 0 : 1);
  const upright = (fret: number): number => OPEN + NAMES + Math.max(shown, 4) * fret;
  const long = vertical ? Math.max(look.long ?? upright(46), upright(SHORTEST)) : (look.long ?? LONG);
  const start = NAMES + (from === 0 ? OPEN : 6);
  const room = long - start - 8;
  const first = Math.max(0, from - 1);
  const even = (f: number): number => (f - first) / (to - first || 1);
  const base = fretDistance(1, first + capo);
  const real = (f: number): number =>
    (fretDistance(1, f + capo) - base) / (fretDistance(1, to + capo) - base || 1);
  const narrowest = (real(to) - real(to - 1)) * room;
  const share = look.even || vertical || narrowest < NARROWEST ? even : real;
  const flipLong = look.leftHanded && !vertical;
  const turn = (u: number): number => (flipLong ? long - u : u);
  const wire = (f: number): number => turn(start + share(f) * room);
  const centre = (f: number): number => (f === 0 ? turn(start - OPEN / 2) : (wire(f - 1) + wire(f)) / 2);

  const centres = Array.from({ length: frets + 1 }, (_, f) => centre(f));

  // Room for a mark, and over the first string of a lying neck for the arcs of steps.
  const pad = vertical ? 23 : look.roomy ? 31 : 26;
  const wide = pad * 2 + gap * (strings - 1) + NUMBERS;
  // Upright, the lowest string lies on the left of a right-handed neck; lying, the highest lies on top unless asked otherwise.
  const lowFirst = vertical ? !look.leftHanded : look.lowOnTop;
  const across = (string: number): number =>
    (vertical ? NUMBERS : 0) + pad + gap * (lowFirst ? strings - string : string - 1);
  const smallest = from === to ? room : Math.min(Math.abs(wire(to) - wire(to - 1)), room);
  const half = Math.max(9, Math.min(17, (vertical ? gap - 6 : smallest - 2) / 2));
  return {
    width: vertical ? Math.max(wide, 200) : long,
    height: vertical ? long : wide,
    vertical,
    from,
    to,
    mark: { half, tall: 11.5 },
    gap,
    at: (string, fret) =>
      vertical ? { x: across(string), y: centres[fret]! } : { x: centres[fret]!, y: across(string) },
    wire,
    centre,
    across,
    edges: [across(lowFirst ? strings : 1), across(lowFirst ? 1 : strings)],
    spotAt: (x, y) => {
      const [u, v] = vertical ? [y, x] : [x, y];
      let fret = from;
      for (let f = from; f <= to; f++) if (Math.abs(centre(f) - u) < Math.abs(centre(fret) - u)) fret = f;
      const row = Math.max(0, Math.min(strings - 1, Math.round((v - (vertical ? NUMBERS : 0) - pad) / gap)));
      return { string: lowFirst ? strings - row : row + 1, fret };
    },
    body: flipLong ? -1 : 1,
    first: lowFirst ? 1 : -1,
  };
}

/** The geometries used last: a neck keeps its size from scene to scene while its pitches and marks change. */
const KEPT = new Map<string, Geometry>();
const MOST_KEPT = 12;

/** The geometry of a figure; the same one as long as its size and look are the same. */
export function geometryOf({ strings, frets, capo, look }: Figure): Geometry {
  const { vertical, even, lowOnTop, leftHanded, zoom, long, roomy } = look;
  const id = [strings.length, frets, capo, vertical, even, lowOnTop, leftHanded, zoom, long, roomy].join('|');
  const geometry = KEPT.get(id) ?? layOutNeck({ strings: strings.length, frets, capo }, look);
  // Put at the end again: the one that goes is the one not asked for longest.
  KEPT.delete(id);
  KEPT.set(id, geometry);
  if (KEPT.size > MOST_KEPT) KEPT.delete(KEPT.keys().next().value!);
  return geometry;
}
