import { type Scene } from '@crow-ladder/picture';

/** Where a neck gets what it shows: the newest scene, and word of changes. It gives the same scene until it changes. */
export interface SceneSource {
  readonly get: () => Scene;
  readonly subscribe: (changed: () => void) => () => void;
}

/** A scene that does not change. */
export const still = (scene: Scene): SceneSource => ({ get: () => scene, subscribe: () => () => undefined });
