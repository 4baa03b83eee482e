import {
  memo,
  type MouseEvent,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { lampPath } from '@crow-ladder/picture';
import { heardNow, type HeardNotes, heardOf } from '../hearing/heardNotes.ts';
import type { DrawnScore } from './draw.ts';
import { afterPaint } from '../ui/later.ts';
import { engraved } from './engraving.ts';
import type { Engraving } from '../workers/engraver.ts';

interface NotationProps extends Engraving {
  /** The note that is looked at or heard, from 0. */
  readonly step: number;
  readonly onStep: (step: number) => void;
  /** What is written, for screen readers. */
  readonly name: string;
  /** How large it is drawn beside its own size. */
  readonly scale: number;
  /** How notes were heard, by their step. */
  readonly heard?: HeardNotes | null;
}

/** Lines that are in sight at once. */
const IN_SIGHT = 2;

/** The note of a drawing that lies nearest to a place on it. */
function nearest({ lines, notes }: DrawnScore, x: number, y: number): number {
  const line = lines.findIndex((l) => y < l.top + l.height);
  const here = notes.flatMap((n, i) => (n.line === line ? [{ i, far: Math.abs(n.x - x) }] : []));
  return here.sort((a, b) => a.far - b.far)[0]?.i ?? -1;
}

/** How far the corners of the lamp are from the middle of a fret number, in px of the notation's own size. */
const LAMP = { wide: 17, high: 15, line: 2.5 };

/** The lamp around a note: moved by itself, so that the drawing under it is not painted again. */
function Lamp({
  drawn,
  step,
  next,
}: {
  readonly drawn: DrawnScore;
  readonly step: number;
  readonly next: boolean;
}) {
  const note = drawn.notes[step];
  if (!note) return null;
  const [wide, high] = [(LAMP.wide + LAMP.line) * drawn.by, (LAMP.high + LAMP.line) * drawn.by];
  return (
    <svg
      aria-hidden
      data-note={step + 1}
      className={`lamp ${next ? 'next' : 'lit'}`}
      width={2 * wide}
      height={2 * high}
      style={{ transform: `translate(${note.x - wide}px, ${note.y - high}px)` }}
    >
      <path
        className={`ring ring-${next ? 'next' : 'sounding'}`}
        d={lampPath(wide, high, LAMP.wide * drawn.by, LAMP.high * drawn.by)}
      />
    </svg>
  );
}

/** How far above the end of its line a sign lies, and how large it is, in px of the notation's own size. */
const SIGN = { above: 9, half: 5 };
/** Outlines of the signs around 0: a bar for right, a hook to the left or right for early or late, a cross for wrong, a gap for missed, a plus for too many. */
const OUTLINES = {
  'in time': 'M-5 0H5',
  early: 'M5 0H-4M-1 -3L-4 0L-1 3',
  late: 'M-5 0H4M1 -3L4 0L1 3',
  wrong: 'M-4 -4L4 4M-4 4L4 -4',
  missed: 'M-5 -2V2H-2M5 -2V2H2',
  extra: 'M0 -5V5M-3 0H3',
} as const;

/** How a note was heard, in a row under its line; what was heard `past` it, between it and the next one. */
const Sign = memo(function Sign({
  drawn,
  step,
  is,
  far = false,
  past = false,
}: {
  readonly drawn: DrawnScore;
  readonly step: number;
  readonly is: keyof typeof OUTLINES;
  readonly far?: boolean;
  readonly past?: boolean;
}) {
  const note = drawn.notes[Math.max(0, step)];
  if (!note) return null;
  const half = SIGN.half * drawn.by + 2;
  const { top, height } = drawn.lines[note.line]!;
  const y = top + height - SIGN.above * drawn.by;
  const next = drawn.notes[step + 1];
  const beside = next?.line === note.line && next !== note ? (next.x - note.x) / 2 : 3 * half;
  const x = note.x + (past ? (step < 0 ? -2 * half : beside) : 0);
  return (
    <svg
      aria-hidden
      className={`heard-sign ${far ? 'far' : ''}`}
      data-heard={is}
      data-note={step + 1}
      width={2 * half}
      height={2 * half}
      style={{ transform: `translate(${x - half}px, ${y - half}px)` }}
    >
      <path transform={`translate(${half} ${half}) scale(${drawn.by})`} d={OUTLINES[is]} />
    </svg>
  );
});

/** How the notes of a run were heard; while it is, drawn at once, and by themselves. */
function Signs({
  drawn,
  run,
  heard,
}: Pick<NotationProps, 'run'> & {
  readonly drawn: DrawnScore;
  readonly heard: HeardNotes | null;
}) {
  const now = heardOf(useSyncExternalStore(heardNow.subscribe, heardNow.now), run) ?? heard;
  if (!now) return null;
  return (
    <>
      {[...now.verdicts].map(([at, it]) => (
        <Sign
          key={at}
          drawn={drawn}
          step={at}
          is={it.is === 'right' ? it.timing : it.is}
          far={it.is === 'right' && !it.near}
        />
      ))}
      {now.extra.map(({ after }, i) => (
        <Sign key={`past ${i}`} drawn={drawn} step={after} is="extra" past />
      ))}
    </>
  );
}

/** A run on staff and tablature, with the note that is heard and the next one; a click on a note goes to it. */
export function Notation({
  run,
  inKey,
  as,
  strings,
  strokes,
  staff,
  scale,
  step,
  onStep,
  name,
  heard = null,
}: NotationProps) {
  const page = useRef<HTMLDivElement>(null);
  const host = useRef<HTMLDivElement>(null);
  const [drawn, setDrawn] = useState<DrawnScore | null>(null);
  const [width, setWidth] = useState(0);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)));
    watch.observe(page.current!);
    return () => watch.disconnect();
  }, []);
  useEffect(() => {
    if (!width) return;
    let wanted = true;
    // What stood there stays until the new drawing is done.
    void engraved({ run, inKey, as, strings, strokes, staff }, width, scale, () => wanted).then(
      (done) => {
        if (!wanted || !done) return;
        setDrawn(done);
        setFailed(false);
      },
      (error: unknown) => {
        if (!wanted) return;
        console.error(error);
        setFailed(true);
      },
    );
    return () => {
      wanted = false;
    };
  }, [run, inKey, as, strings, strokes, staff, scale, width]);
  // With all that goes by it, so that the page is laid out once; its first line first, so that the page is not held up.
  useLayoutEffect(() => {
    const at = host.current!;
    at.innerHTML = drawn?.html ?? '';
    at.classList.add('coming');
    return afterPaint(() => at.classList.remove('coming'));
  }, [drawn]);
  const line = drawn?.notes[step]?.line ?? 0;
  useEffect(() => {
    if (drawn) page.current!.scrollTop = drawn.lines[line]?.top ?? 0;
  }, [drawn, line]);
  const onClick = (e: MouseEvent): void => {
    if (!drawn) return;
    const { left, top } = host.current!.getBoundingClientRect();
    const at = nearest(drawn, e.clientX - left, e.clientY - top);
    if (at >= 0) onStep(at);
  };
  const high = drawn && drawn.lines.slice(0, IN_SIGHT).reduce((sum, l) => sum + l.height, 0);
  return (
    <div
      ref={page}
      className="relative overflow-y-auto [scrollbar-gutter:stable]"
      style={high ? { maxHeight: high } : undefined}
    >
      {drawn && [step, step + 1].map((at, i) => <Lamp key={i} drawn={drawn} step={at} next={i === 1} />)}
      {drawn && <Signs drawn={drawn} run={run} heard={heard} />}
      {/* Notes are reached by keyboard one by one, and read in a list, beside it. */}
      <div
        ref={host}
        role="img"
        aria-label={name}
        className="notation relative cursor-pointer"
        onClick={onClick}
      />
      {!drawn && !failed && <p className="text-soft">Getting the staff…</p>}
      {failed && <p className="error">The staff could not be loaded: open the page again.</p>}
    </div>
  );
}
