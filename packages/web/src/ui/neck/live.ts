import { type Scene } from '@crow-ladder/picture';
import { useLayoutEffect, useState } from 'react';
import { type SceneSource } from './source.ts';

/** A source that shows the newest of the scenes that a component makes. */
export function useSceneSource(scene: Scene): SceneSource {
  const [it] = useState(() => {
    let now = scene;
    const listeners = new Set<() => void>();
    return {
      source: {
        get: () => now,
        subscribe: (changed: () => void) => {
          listeners.add(changed);
          return () => void listeners.delete(changed);
        },
      },
      show: (next: Scene): void => {
        if (next === now) return;
        now = next;
        for (const changed of listeners) changed();
      },
    };
  });
  useLayoutEffect(() => it.show(scene), [it, scene]);
  return it.source;
}
