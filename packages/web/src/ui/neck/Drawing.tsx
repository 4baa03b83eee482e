import { geometryOf } from '@crow-ladder/picture';
import { useLayoutEffect, useRef } from 'react';
import { painter } from './painter.ts';
import { type SceneSource } from './source.ts';

/** A neck that is only looked at, such as a close-up. */
export function Drawing({ source, name }: { source: SceneSource; name: string }) {
  const { width, height, vertical } = geometryOf(source.get().figure);
  const canvas = useRef<SVGGElement>(null);
  useLayoutEffect(() => {
    const on = painter(canvas.current!);
    on.paint(source.get());
    return on.clear;
  }, [source]);
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={`neck block w-full select-none ${vertical ? 'upright mx-auto max-w-[420px]' : ''}`}
      role="img"
      aria-label={name}
    >
      <g ref={canvas} />
    </svg>
  );
}
