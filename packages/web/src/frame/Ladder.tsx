import { type Instrument, plural, type Position } from '@crow-ladder/core';
import { type Seam, seams } from '@crow-ladder/core/ladder';
import { Check } from 'lucide-react';
import { type ComponentProps, type KeyboardEvent, memo, useMemo } from 'react';
import { type Geometry, layOutNeck, type NeckLook } from '@crow-ladder/picture';
import { walked } from '../ui/walked.ts';

interface LadderProps {
  readonly instrument: Instrument;
  readonly look: NeckLook;
  readonly positions: readonly Position[];
  readonly names: readonly string[];
  /** Indices of the positions whose shape the player knows. */
  readonly known: ReadonlySet<number>;
  readonly front: number | null;
  /** Folds into one slim row, for tasks that are about something else. */
  readonly slim: boolean;
  readonly onChoose: (index: number) => void;
}

/** Rows so that no two bars of a row overlap. */
function pack(positions: readonly Position[]): readonly number[] {
  const ends: number[] = [];
  return positions.map((p) => {
    const free = ends.findIndex((end) => end < p.lowFret);
    const row = free < 0 ? ends.length : free;
    ends[row] = p.highFret;
    return row;
  });
}

/** Start and end of a run of frets along the neck, as shares of its drawing. */
function span(g: Geometry, low: number, high: number): { start: number; size: number } {
  const clamp = (f: number): number => Math.max(Math.max(0, g.from - 1), Math.min(g.to, f));
  const a = low === 0 && g.from === 0 ? g.centre(0) - 15 * g.body : g.wire(clamp(low - 1));
  const b = g.wire(clamp(high));
  const long = g.vertical ? g.height : g.width;
  return { start: Math.min(a, b) / long, size: Math.abs(b - a) / long };
}

const short = (name: string): string =>
  name
    .replace(/^position /, '')
    .replace(/ position(?=,|$)/, '')
    .replace(', an octave', ', octave');
/** From rung to rung in px, less where there are many rows, and what is left between them. */
const rowHeight = (count: number): number => Math.max(24, Math.min(27, 144 / count));
const GAP = 5;
/** Beside an upright neck all rungs together leave most of the width to the neck, and more where it has many strings. */
const rungWidth = (count: number, strings: number): number =>
  Math.max(6, Math.min(12, (strings > 9 ? 30 : 40) / count));

/** What a button that brings a position forward does and says. */
type Choice = ComponentProps<'button'>;

/** Along the rungs by keys: to the next one, and to either end. */
function onRungKey(e: KeyboardEvent<HTMLElement>): void {
  const to = walked(e, [...e.currentTarget.querySelectorAll('button')], {
    next: ['ArrowRight', 'ArrowUp'],
    last: ['ArrowLeft', 'ArrowDown'],
  });
  to?.focus();
  to?.click();
}

/** The ladder: every position as a bar over the frets that it covers; seams show where neighbours meet. */
export const Ladder = memo(function Ladder({
  instrument,
  look,
  positions,
  names,
  known,
  front,
  slim,
  onChoose,
}: LadderProps) {
  const { tuning, frets, capo } = instrument;
  const geometry = useMemo(
    () => layOutNeck({ strings: tuning.length, frets, capo }, look),
    [tuning.length, frets, capo, look],
  );
  const rows = useMemo(() => pack(positions), [positions]);
  const joints = useMemo(() => seams(positions), [positions]);
  const count = Math.max(1, ...rows.map((r) => r + 1));
  const v = geometry.vertical;
  const rung = rungWidth(count, tuning.length);
  const step = rowHeight(count);
  const place = (start: number, size: number, row: number, thick: number) =>
    v
      ? { top: `${start * 100}%`, height: `${size * 100}%`, left: row * rung, width: rung - GAP }
      : { left: `${start * 100}%`, width: `${size * 100}%`, top: row * step, height: thick };
  const shown = (p: Position): boolean => p.highFret >= geometry.from && p.lowFret <= geometry.to;
  const told = (p: Position): string =>
    `${names[p.index]}, frets ${p.lowFret} to ${p.highFret}${known.has(p.index) ? ', known' : ''}`;
  const choice = (p: Position): Choice => ({
    type: 'button',
    'aria-pressed': p.index === front,
    // One of them is in the order of tabs; the arrow keys lead to the others.
    tabIndex: p.index === (front ?? 0) || !shown(positions[front ?? 0]!) ? 0 : -1,
    'aria-label': told(p),
    title: told(p),
    onClick: () => onChoose(p.index),
  });
  if (slim) return <Overview {...{ geometry, positions, names, front, choice }} />;
  const seamTitle = (s: Seam): string =>
    `Seam of ${names[s.lower]} and ${names[s.lower + 1]}: ${plural(s.spots.length, 'shared note')}`;
  const joined = (p: Position): string | undefined => {
    const seam = joints.find((s) => s.lower === p.index && s.spots.length);
    return seam && seamTitle(seam);
  };
  const bar = 'rung absolute truncate px-1 text-[13px] leading-none';
  return (
    <div
      {...(v
        ? { 'aria-hidden': true }
        : { role: 'group', 'aria-label': 'Ladder of positions', onKeyDown: onRungKey })}
      className={v ? 'relative shrink-0' : 'relative w-full'}
      style={v ? { width: count * rung } : { height: count * step }}
    >
      {/* Behind the rungs, so that each is seen between the two that it joins, and touches both. */}
      {joints.map((s) => {
        const [a, b] = [positions[s.lower]!, positions[s.lower + 1]!];
        const [from, to] = [rows[s.lower]!, rows[s.lower + 1]!].sort((m, n) => m - n) as [number, number];
        if (!s.spots.length || from === to || !shown(a) || !shown(b)) return null;
        const frets = s.spots.map((x) => x.fret);
        const { start, size } = span(geometry, Math.min(...frets), Math.max(...frets));
        const at = place(start, size, from, 0);
        const pitch = v ? rung : step;
        const [begins, across] = [(from + 1) * pitch - GAP, (to - from - 1) * pitch + GAP];
        return (
          <span
            key={s.lower}
            title={v ? undefined : seamTitle(s)}
            className={`seam absolute ${v ? 'seam-upright' : ''}`}
            style={v ? { ...at, left: begins, width: across } : { ...at, top: begins, height: across }}
          />
        );
      })}
      {positions.filter(shown).map((p) => {
        const { start, size } = span(geometry, p.lowFret, p.highFret);
        const style = place(start, size, rows[p.index]!, step - GAP);
        // Beside an upright neck the rungs are seen alone: positions are chosen in the dock, where the thumb is.
        if (v)
          return <div key={p.index} className="rung absolute" data-front={p.index === front} style={style} />;
        return (
          <button key={p.index} {...choice(p)} aria-description={joined(p)} className={bar} style={style}>
            {known.has(p.index) && <Check size={13} aria-hidden className="inline" />}{' '}
            {short(names[p.index]!)}
          </button>
        );
      })}
    </div>
  );
});

interface OverviewProps extends Pick<LadderProps, 'positions' | 'names' | 'front'> {
  readonly geometry: Geometry;
  readonly choice: (p: Position) => Choice;
}

/** Where each position's part of the slim row begins and ends: up to the next one, those at one fret side by side. */
function parts(
  g: Geometry,
  positions: readonly Position[],
): readonly { p: Position; start: number; size: number }[] {
  const shown = positions.filter((p) => p.highFret >= g.from && p.lowFret <= g.to);
  const lows = [...new Set(shown.map((p) => p.lowFret))];
  return lows.flatMap((low, i) => {
    const here = shown.filter((p) => p.lowFret === low);
    const { start, size } = span(g, low, Math.max(low, (lows[i + 1] ?? Infinity) - 1));
    return here.map((p, k) => ({ p, start: start + (k * size) / here.length, size: size / here.length }));
  });
}

/** The ladder in one slim row: a part for each position, from where it begins to where the next one does, and a bar over the frets of the one in front. */
function Overview({ geometry, positions, names, front, choice }: OverviewProps) {
  const ahead = positions.find((p) => p.index === front);
  const bar = ahead && span(geometry, ahead.lowFret, ahead.highFret);
  return (
    <div role="group" aria-label="Ladder of positions" className="relative h-6 w-full" onKeyDown={onRungKey}>
      {bar && (
        <span
          className="absolute top-0 z-1 h-[5px] bg-accent"
          style={{ left: `${bar.start * 100}%`, width: `${bar.size * 100}%` }}
        />
      )}
      {parts(geometry, positions).map(({ p, start, size }) => (
        <button
          key={p.index}
          {...choice(p)}
          className="part absolute inset-y-0 truncate"
          style={{ left: `${start * 100}%`, width: `${size * 100}%` }}
        >
          {short(names[p.index]!)}
        </button>
      ))}
    </div>
  );
}
