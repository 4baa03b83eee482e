import { type Accidentals, type Instrument, midiName, pitchClassName, pretty } from '@crow-ladder/core';
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type Ref,
  useCallback,
  useId,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import { afterPaint, useAfterPaint } from '../../app/later.ts';
import { Board } from './Board.tsx';
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
  readonly repaint?: Ref<Repaint>;
}

/** What a change of the chart changes on a neck of the same size. */
export type Played = Required<Pick<NeckProps, 'instrument' | 'marks' | 'accidentals'>>;

/** Shows another chart on a neck of the same size before the props say so; null once they do. */
export type Repaint = (played: Played | null) => void;

/** Names of the open strings, string 1 first. */
const openNames = ({ instrument: { tuning, capo }, accidentals }: Played): readonly string[] =>
  tuning.map((midi) => pretty(pitchClassName(midi + capo, accidentals))).reverse();

/**
 * The names of the open strings beside the nut, and the marks, a group for each string, read string by string from the
 * highest. `repaint` shows another chart ahead of the renders, until it is told that they have caught up.
 */
function Marks({
  instrument,
  marks,
  accidentals,
  geometry: g,
  repaint,
}: Played & { geometry: Geometry; repaint: Ref<Repaint> | undefined }) {
  const layer = useRef<SVGGElement>(null);
  const nut = useRef<SVGGElement>(null);
  const on = useRef<Painter>(null);
  const ahead = useRef<Played>(null);
  const callOff = useRef<() => void>(null);
  const strings = instrument.tuning.length;
  const paint = useCallback(
    (played: Played) => {
      on.current!.paint(played.marks, openNames(played), g);
      callOff.current?.();
      callOff.current = afterPaint(() => on.current?.name());
    },
    [g],
  );
  useLayoutEffect(() => {
    const rows = [...layer.current!.children] as SVGGElement[];
    on.current = painter(rows, [...nut.current!.children]);
    return () => {
      callOff.current?.();
      rows.forEach((row) => row.replaceChildren());
    };
  }, [strings]);
  useLayoutEffect(
    () => paint(ahead.current ?? { instrument, marks, accidentals }),
    [paint, instrument, marks, accidentals, strings],
  );
  useImperativeHandle(
    repaint,
    () => (played) => {
      ahead.current = played;
      if (played) paint(played);
    },
    [paint],
  );
  const along = g.vertical || g.body > 0 ? 14 : g.width - 14;
  const each = Array.from({ length: strings }, (_, i) => i + 1);
  return (
    <>
      <g
        ref={nut}
        aria-hidden="true"
        className="fill-soft text-[13px]"
        textAnchor="middle"
        dominantBaseline="central"
      >
        {each.map((string) => {
          const across = g.across(string);
          return <text key={string} x={g.vertical ? across : along} y={g.vertical ? along : across} />;
        })}
      </g>
      <g ref={layer}>
        {each.map((string) => (
          <g
            key={string}
            role="group"
            aria-label={`String ${string}, ${pretty(midiName(instrument.tuning[strings - string]!))}`}
          />
        ))}
      </g>
    </>
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
    repaint,
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
      {links && <Links links={links} geometry={geometry} />}
      <Marks
        instrument={instrument}
        marks={marks}
        accidentals={accidentals}
        geometry={geometry}
        repaint={repaint}
      />
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
