import { type Place } from '@crow-ladder/core';
import { type Geometry, geometryOf, ringShape } from '@crow-ladder/picture';
import {
  type FocusEvent,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
  type Ref,
  useEffect,
  useEffectEvent,
  useId,
  useImperativeHandle,
  useLayoutEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { useAfterPaint } from '../later.ts';
import { type Cells, cellsOn } from './cells.ts';
import { painter } from './painter.ts';
import { type SceneSource } from './source.ts';

/** How much larger than it is made an upright neck is drawn at most: one of few strings still shows its frets. */
export const LARGEST = 1.25;

/** What is said about a spot: what it is, and, when asked for, all else that is worth knowing. */
export interface SpotSaid {
  readonly head: string;
  readonly more: () => string;
}

/** A neck that can be asked to take the keyboard. */
export interface NeckHandle {
  readonly focus: () => void;
}

interface NeckProps {
  readonly source: SceneSource;
  readonly name: string;
  /** Where the root was put. */
  readonly root: Place;
  readonly onPick: (place: Place) => void;
  readonly say: (place: Place) => SpotSaid;
  /** What choosing a spot does, in a word and in a sentence; it makes it the root where this is left out. */
  readonly picks?: {
    readonly word: string;
    readonly said?: string;
    /** Whether the first tap chooses, and not only tells of the spot. */
    readonly atOnce?: true;
  };
  /** Other spots of the same pitch, ringed while one is looked at. */
  readonly echoes: (place: Place) => readonly Place[];
  /** What stands beside an upright neck, as high as it. */
  readonly beside?: ReactNode;
  readonly ref?: Ref<NeckHandle>;
}

/** A frame around a spot: the one looked at, or another one of the same pitch. */
function Ring({ place, geometry, kind }: { place: Place; geometry: Geometry; kind: string }) {
  const { d, class: looks } = ringShape(place, kind, geometry);
  return <path className={looks} d={d} pointerEvents="none" />;
}

/** What is said about a spot follows the marks. */
function Description({ say, place, id }: Pick<NeckProps, 'say'> & { place: Place; id: string }) {
  const { head, more } = useAfterPaint(say)(place);
  return (
    <span>
      {head}. <span id={id}>{more()}</span>
    </span>
  );
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

const ROOTS: NonNullable<NeckProps['picks']> = {
  word: 'Make it the root',
  said: 'A click or Enter makes it the root.',
};

const same = (a: Place | null, b: Place | null): boolean => a?.string === b?.string && a?.fret === b?.fret;

/**
 * A neck that shows what its source gives. A click makes a spot the root, a tap tells of it first and makes it the root when
 * it comes again; the arrow keys walk over it as over a grid, and Enter makes a spot the root.
 */
export function Neck(props: NeckProps) {
  const { source, name, root, onPick, say, picks = ROOTS, echoes, beside, ref } = props;
  const geometry = useSyncExternalStore(source.subscribe, () => geometryOf(source.get().figure));
  const drawing = useRef<SVGGElement>(null);
  const grid = useRef<SVGGElement>(null);
  const cells = useRef<Cells>(null);
  const latest = useRef(say);
  useLayoutEffect(() => {
    latest.current = say;
  });
  // The one way to the screen: every scene goes through the painter, in the frame of its change.
  useLayoutEffect(() => {
    const on = painter(drawing.current!);
    const over = cellsOn(grid.current!, () => (place) => latest.current(place).head);
    cells.current = over;
    const paint = (): void => {
      const scene = source.get();
      on.paint(scene);
      over.paint(scene, geometryOf(scene.figure));
    };
    paint();
    const leave = source.subscribe(paint);
    return () => {
      leave();
      on.clear();
      over.clear();
    };
  }, [source]);

  /** The spot that the keyboard is on, or the one that was tapped or moved to last; null before any. */
  const [cursor, setCursor] = useState<Place | null>(null);
  const [hover, setHover] = useState<Place | null>(null);
  const [focused, setFocused] = useState(false);
  const more = useId();
  const { strings: open, frets, capo } = source.get().figure;
  const strings = open.length;
  const columns = frets - capo + 1;
  const clamp = (p: Place): Place => ({
    string: Math.min(strings, Math.max(1, p.string)),
    fret: Math.min(geometry.to, Math.max(geometry.from, p.fret)),
  });
  const at = clamp(cursor ?? root);
  useEffect(() => cells.current?.go(at, false));
  useImperativeHandle(ref, () => ({ focus: () => cells.current?.go(at, true) }));
  // The line below tells of the root wherever it goes, and the keyboard goes along; a root that was chosen here lands a moment
  // later, and the keyboard may have gone on by then.
  const [rootWas, setRootWas] = useState(root);
  const [chosen, setChosen] = useState<Place | null>(null);
  if (!same(root, rootWas)) {
    setRootWas(root);
    setChosen(null);
    if (!same(root, chosen)) setCursor(root);
  }
  const follow = useEffectEvent((to: Place) => {
    if (focused && same(cursor, to)) cells.current?.go(clamp(to), true);
  });
  useLayoutEffect(() => follow(root), [root]);
  const choose = (place: Place): void => {
    setChosen(place);
    onPick(place);
  };

  const under = (e: PointerEvent<SVGSVGElement>): Place => {
    const matrix = e.currentTarget.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix);
    return geometry.spotAt(x, y);
  };
  const onKey = (e: KeyboardEvent): void => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const next = moved(e.key, at, geometry);
    if (next) cells.current?.go(clamp(next), true);
    else if (e.key === 'Enter' || e.key === ' ') choose(at);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const onClick = (e: PointerEvent<SVGSVGElement>): void => {
    const place = under(e);
    const told = same(place, cursor);
    cells.current?.go(place, true);
    if (e.nativeEvent.pointerType !== 'touch' || told || picks.atOnce) choose(place);
  };

  const shown = hover ?? (cursor && clamp(cursor));
  const seen = (p: Place): boolean => p.fret >= geometry.from && p.fret <= geometry.to;
  const svg = (
    <svg
      viewBox={`0 0 ${geometry.width} ${geometry.height}`}
      className={`neck block w-full touch-manipulation select-none ${geometry.vertical ? 'upright mx-auto' : ''}`}
      {...(geometry.vertical && { style: { maxWidth: geometry.width * LARGEST } })}
      role="grid"
      aria-label={name}
      aria-rowcount={strings}
      aria-colcount={columns}
      onKeyDown={onKey}
      onFocus={(e: FocusEvent<SVGSVGElement>) => {
        setFocused(true);
        setCursor((c) => cells.current?.placeOf(e.target) ?? c);
        e.target.setAttribute('aria-describedby', more);
      }}
      onBlur={(e: FocusEvent<SVGSVGElement>) => {
        setFocused(false);
        e.target.removeAttribute('aria-describedby');
      }}
      onClick={onClick}
      onPointerMove={(e: PointerEvent<SVGSVGElement>) => {
        if (e.pointerType === 'touch') return;
        const place = under(e);
        if (!same(place, hover)) setHover(place);
      }}
      onPointerLeave={() => setHover(null)}
    >
      <g ref={drawing} aria-hidden />
      <g aria-hidden>
        {(hover ?? focused) &&
          shown &&
          echoes(shown)
            .filter(seen)
            .map((p) => <Ring key={`${p.string}/${p.fret}`} place={p} geometry={geometry} kind="echo" />)}
        {hover && seen(hover) && <Ring place={hover} geometry={geometry} kind="hover" />}
        {focused && <Ring place={at} geometry={geometry} kind="focus" />}
      </g>
      <g ref={grid} role="rowgroup" />
    </svg>
  );
  return (
    <>
      {/* The same elements whether something stands beside it or not: a screen that is turned keeps its drawing. */}
      <div className={beside ? 'flex items-stretch gap-2' : ''}>
        <div className="min-w-0 grow">{svg}</div>
        {beside}
      </div>
      {(shown || (picks !== ROOTS && picks.said)) && (
        <p className="spot-line flex min-h-9 flex-wrap items-center px-1 text-sm text-soft">
          {shown ? <Description say={say} place={shown} id={more} /> : picks.said}
          {shown && !hover && (picks !== ROOTS || !same(shown, root)) && (
            <button type="button" className="button ml-2" onClick={() => onPick(shown)}>
              {picks.word}
            </button>
          )}
        </p>
      )}
    </>
  );
}
