import { type Settings } from '@crow-ladder/contract';
import { layersOf, type Scene } from '@crow-ladder/picture';
import { settingsIn } from '../app/settings.ts';
import { figureOf, lookOf } from '../model/figure.ts';
import { marksOf, type Shown } from '../model/marks.ts';
import { fretsShown, type Model, modelOf } from '../model/model.ts';
import { sessionOf } from '../sessions/sessions.ts';
import { type State, type Store } from '../sessions/state.ts';
import { type SceneSource } from '../ui/neck/source.ts';
import { type AnyTask } from '../task/task.ts';

/** What the page says of the neck beside the store: the task in front with its parameters, and the room there is. */
export interface Told {
  readonly task: AnyTask | null;
  readonly params: unknown;
  readonly narrow: boolean;
  /** How long an upright neck is to be; null where that is not known yet. */
  readonly long: number | null;
}

/** What the neck is asked to show. */
export const shownIn = ({ view }: State, settings: Settings): Shown => ({
  labels: view.labels ?? settings.labels,
  rootsOnly: view.rootsOnly,
  colours: settings.colours,
});

function sceneOf(
  model: Model,
  state: State,
  settings: Settings,
  { task, params, narrow, long }: Told,
): Scene {
  const shown = shownIn(state, settings);
  const { instrument } = model.state;
  return {
    figure: figureOf(
      instrument,
      model.accidentals,
      lookOf(
        instrument,
        settings,
        fretsShown(model, state.view, narrow, () => task?.frets?.(model, params)),
        narrow,
        long,
      ),
    ),
    layers: layersOf(task ? task.scene(model, params, shown, settings) : { marks: marksOf(model, shown) }),
  };
}

/**
 * The neck of an open chart: its scene follows the store at once, ahead of the renders. The same scene is given until
 * something that it shows has changed.
 */
export function chartSource(
  store: Store,
  id: string,
  first: Told,
): SceneSource & { readonly tell: (told: Told) => void } {
  let told = first;
  const listeners = new Set<() => void>();
  let made: { readonly of: readonly unknown[]; readonly scene: Scene } | null = null;
  const get = (): Scene => {
    const state = store.getState();
    const chart = sessionOf(state, id)?.draft.state;
    if (!chart) return made!.scene;
    const settings = settingsIn(state);
    const of = [chart, state.view, settings, told.task, told.params, told.narrow, told.long];
    if (!made || of.some((part, i) => part !== made!.of[i]))
      made = { of, scene: sceneOf(modelOf(chart, settings), state, settings, told) };
    return made.scene;
  };
  return {
    get,
    subscribe: (changed) => {
      // A store that changed elsewhere gives the same scene, and nothing is drawn.
      let last = get();
      const look = (): void => {
        const now = get();
        if (now !== last) {
          last = now;
          changed();
        }
      };
      listeners.add(look);
      const leave = store.subscribe(look);
      return () => {
        leave();
        listeners.delete(look);
      };
    },
    tell: (next) => {
      told = next;
      for (const look of listeners) look();
    },
  };
}
