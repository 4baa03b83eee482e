import { type Place } from '@crow-ladder/core';
import { type Geometry, geometryOf, ringShape } from '@crow-ladder/picture';
import {
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type Ref,
  useId,
  useLayoutEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { useAfterPaint } from '../later.ts';
import { painter } from './painter.ts';
import { type SceneSource } from './source.ts';

interface NeckProps {
  readonly source: SceneSource;
  readonly name: string;
  /** Where the root was put. */
  readonly root?: Place;
  readonly onPick?: (place: Place) => void;
  /** Everything worth saying about a spot, for hovering and the keyboard. */
  readonly describe?: (place: Place) => string;
  /** Other spots of the same pitch, ringed while one is looked at. */
  readonly echoes?: (place: Place) => readonly Place[];
  /** What stands beside an upright neck, as high as it. */
  readonly beside?: ReactNode;
  readonly ref?: Ref<SVGSVGElement>;
}

/** A frame around a spot: the one looked at, or another one of the same pitch. */
function Ring({ place, geometry, kind }: { place: Place; geometry: Geometry; kind: string }) {
  const { d, class: looks } = ringShape(place, kind, geometry);
  return <path className={looks} d={d} pointerEvents="none" />;
}

/** What is said about a spot follows the marks. */
function Description({ describe, place }: { describe: (place: Place) => string; place: Place }) {
  return useAfterPaint(describe)(place);
}

/** Where a key takes the keyboard's spot, on a neck that lies or stands. */
function moved(key: string, here: Place, g: Geometry): Place | null {
  const along = (by: number): Place => ({ ...here, fret: here.fret + by * g.body });
  const over = (by: number): Place => ({ ...here, string: here.string - by * g.first });
  switch (key) {
    case 'ArrowRight':
      return g.vertical ? over(1) : along(1);
    case 'ArrowLeft':
      return g.vertical ? over(-1) : along(-1);
    case 'ArrowDown':
      return g.vertical ? along(1) : over(1);
    case 'ArrowUp':
      return g.vertical ? along(-1) : over(-1);
    case 'Home':
      return { ...here, fret: g.from };
    case 'End':
      return { ...here, fret: g.to };
    case 'PageUp':
      return { ...here, fret: here.fret + 12 };
    case 'PageDown':
      return { ...here, fret: here.fret - 12 };
    default:
      return null;
  }
}

/** A neck that shows what its source gives: clicked, or walked over with the arrow keys, Enter putting the root on the spot. */
export function Neck(props: NeckProps) {
  const { source, name, root, onPick, describe, echoes, beside, ref } = props;
  const geometry = useSyncExternalStore(source.subscribe, () => geometryOf(source.get().figure));
  const canvas = useRef<SVGGElement>(null);
  // The one way to the screen: every scene goes through the painter, in the frame of its change.
  useLayoutEffect(() => {
    const on = painter(canvas.current!);
    const paint = (): void => on.paint(source.get());
    paint();
    const leave = source.subscribe(paint);
    return () => {
      leave();
      on.clear();
    };
  }, [source]);

  const [cursor, setCursor] = useState<Place | null>(null);
  const [focused, setFocused] = useState(false);
  const said = useId();
  const strings = source.get().figure.strings.length;
  const clamp = (p: Place): Place => ({
    string: Math.min(strings, Math.max(1, p.string)),
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
    const next = moved(e.key, here, geometry);
    if (next) setCursor(clamp(next));
    else if (e.key === 'Enter' || e.key === ' ') onPick?.(here);
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
      className={`neck block w-full touch-manipulation select-none ${geometry.vertical ? 'upright mx-auto max-w-[420px]' : ''}`}
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
              onPick(p);
            },
            onPointerMove: (e: PointerEvent<SVGSVGElement>) => {
              const p = under(e);
              if (p.string !== cursor?.string || p.fret !== cursor.fret) setCursor(p);
            },
            onPointerLeave: () => !focused && setCursor(null),
          }
        : { role: 'img', 'aria-label': name })}
    >
      <g ref={canvas} />
      {shown && (
        <>
          {echoes?.(shown)
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
