import { type Accidentals, type Instrument, midiName, pretty } from '@crow-ladder/core';
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  useId,
  useState,
  type Ref,
  useLayoutEffect,
  useRef,
} from 'react';
import { useAfterPaint } from '../../app/later.ts';
import { Board, OpenNames } from './Board.tsx';
import { type Geometry, type NeckLook, useGeometry } from './geometry.ts';
import { Links, type NeckLink, type Place } from './Links.tsx';
import { type NeckMark } from './Mark.ts';
import { type Painter, painter } from './paint.ts';

interface NeckProps {
  readonly instrument: Instrument;
  readonly look: NeckLook;
  readonly marks: readonly NeckMark[];
  readonly name: string;
  /** How open strings are named. */
  readonly accidentals?: Accidentals;
  /** Where the root was put. */
  readonly root?: Place;
  readonly links?: readonly NeckLink[];
  readonly onPick?: (string: number, fret: number) => void;
  /** Everything worth saying about a spot, for hovering and the keyboard. */
  readonly describe?: (string: number, fret: number) => string;
  /** Other spots of the same pitch, ringed while one is looked at. */
  readonly echoes?: (string: number, fret: number) => readonly Place[];
  /** What stands beside an upright neck, as high as it. */
  readonly beside?: ReactNode;
  readonly ref?: Ref<SVGSVGElement>;
}

/** The marks, a group for each string, read string by string from the highest. */
function Marks({
  marks,
  instrument,
  geometry,
}: {
  marks: readonly NeckMark[];
  instrument: Instrument;
  geometry: Geometry;
}) {
  const layer = useRef<SVGGElement>(null);
  const strings = instrument.tuning.length;
  const on = useRef<Painter>(null);
  useLayoutEffect(() => {
    const rows = [...layer.current!.children] as SVGGElement[];
    on.current = painter(rows);
    return () => rows.forEach((row) => row.replaceChildren());
  }, [strings]);
  useLayoutEffect(() => {
    on.current!.paint(marks, geometry);
    const naming = setTimeout(() => on.current!.name());
    return () => clearTimeout(naming);
  }, [marks, geometry, strings]);
  return (
    <g ref={layer}>
      {Array.from({ length: strings }, (_, i) => (
        <g
          key={i}
          role="group"
          aria-label={`String ${i + 1}, ${pretty(midiName(instrument.tuning[strings - 1 - i]!))}`}
        />
      ))}
    </g>
  );
}

/** A frame around a spot: the one looked at, or another one of the same pitch. */
function Ring({
  place,
  geometry,
  kind,
}: {
  place: Place;
  geometry: Geometry;
  kind: 'focus' | 'hover' | 'echo';
}) {
  const { x, y } = geometry.at(place.string, place.fret);
  const { half, tall } = geometry.mark;
  return (
    <rect
      className={`ring-${kind}`}
      x={x - half - 5}
      y={y - tall - 4}
      width={2 * half + 10}
      height={2 * tall + 8}
      rx="5"
      fill="none"
      pointerEvents="none"
    />
  );
}

/** What is said about a spot follows the marks. */
function Description({
  describe,
  place,
}: {
  describe: (string: number, fret: number) => string;
  place: Place;
}) {
  return useAfterPaint(describe)(place.string, place.fret);
}

/** A neck with marks on it: clicked, or walked over with the arrow keys, Enter putting the root on the spot. */
export function Neck(props: NeckProps) {
  const {
    instrument,
    look,
    marks,
    name,
    accidentals = 'sharps',
    root,
    links,
    onPick,
    describe,
    echoes,
    beside,
    ref,
  } = props;
  const geometry = useGeometry(instrument, look);
  const [cursor, setCursor] = useState<Place | null>(null);
  const [focused, setFocused] = useState(false);
  const said = useId();
  const top = instrument.tuning.length;
  const clamp = (p: Place): Place => ({
    string: Math.min(top, Math.max(1, p.string)),
    fret: Math.min(geometry.to, Math.max(geometry.from, p.fret)),
  });

  const under = (e: PointerEvent<SVGSVGElement>): Place => {
    const matrix = e.currentTarget.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix);
    return geometry.spotAt(x, y);
  };
  const onKey = (e: KeyboardEvent): void => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const here = cursor ?? root ?? { string: 1, fret: geometry.from };
    const along = (by: number): Place => ({ ...here, fret: here.fret + by * geometry.body });
    const over = (by: number): Place => ({ ...here, string: here.string - by * geometry.first });
    const v = geometry.vertical;
    const move: Record<string, () => Place> = {
      ArrowRight: () => (v ? over(1) : along(1)),
      ArrowLeft: () => (v ? over(-1) : along(-1)),
      ArrowDown: () => (v ? along(1) : over(1)),
      ArrowUp: () => (v ? along(-1) : over(-1)),
      Home: () => ({ ...here, fret: geometry.from }),
      End: () => ({ ...here, fret: geometry.to }),
      PageUp: () => ({ ...here, fret: here.fret + 12 }),
      PageDown: () => ({ ...here, fret: here.fret - 12 }),
    };
    const go = move[e.key];
    if (go) setCursor(clamp(go()));
    else if (e.key === 'Enter' || e.key === ' ') onPick?.(here.string, here.fret);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };

  const interactive = onPick !== undefined;
  const shown = cursor && describe ? clamp(cursor) : null;
  const seen = (p: Place): boolean => p.fret >= geometry.from && p.fret <= geometry.to;
  const drawing = (
    <svg
      ref={ref}
      viewBox={`0 0 ${geometry.width} ${geometry.height}`}
      className={`block w-full touch-manipulation select-none font-marks ${geometry.vertical ? 'upright mx-auto max-w-[420px]' : ''}`}
      {...(interactive
        ? {
            role: 'application',
            'aria-roledescription': 'neck',
            'aria-label': name,
            'aria-describedby': said,
            tabIndex: 0,
            onKeyDown: onKey,
            onFocus: () => {
              setFocused(true);
              setCursor((c) => c ?? root ?? null);
            },
            onBlur: () => setFocused(false),
            onClick: (e: PointerEvent<SVGSVGElement>) => {
              const p = under(e);
              setCursor(p);
              onPick(p.string, p.fret);
            },
            onPointerMove: (e: PointerEvent<SVGSVGElement>) => {
              const p = under(e);
              if (p.string !== cursor?.string || p.fret !== cursor.fret) setCursor(p);
            },
            onPointerLeave: () => !focused && setCursor(null),
          }
        : { role: 'img', 'aria-label': name })}
    >
      <Board strings={top} capo={instrument.capo} wound={instrument.wound} geometry={geometry} />
      <OpenNames {...instrument} accidentals={accidentals} geometry={geometry} />
      {links && <Links links={links} geometry={geometry} />}
      <Marks marks={marks} instrument={instrument} geometry={geometry} />
      {shown && (
        <>
          {echoes?.(shown.string, shown.fret)
            .filter(seen)
            .map((p) => (
              <Ring key={`${p.string}/${p.fret}`} place={p} geometry={geometry} kind="echo" />
            ))}
          <Ring place={shown} geometry={geometry} kind={focused ? 'focus' : 'hover'} />
        </>
      )}
    </svg>
  );
  if (!interactive) return drawing;
  return (
    <>
      {beside ? (
        <div className="flex items-stretch gap-2">
          <div className="min-w-0 grow">{drawing}</div>
          {beside}
        </div>
      ) : (
        drawing
      )}
      <p id={said} aria-live="polite" className="min-h-6 px-1 text-sm text-soft">
        {shown ? (
          <Description describe={describe!} place={shown} />
        ) : (
          'Point at a spot, or walk over the neck with the arrow keys. A click or Enter makes it the root.'
        )}
      </p>
    </>
  );
}
