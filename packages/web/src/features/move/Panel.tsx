import { memo, type ReactNode } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Picked } from '../../ui/Picked.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { AllKeys, KeyOrderWord } from './AllKeys.tsx';
import { FindTuning } from './FindTuning.tsx';
import { Fourths, WindowWord } from './Fourths.tsx';
import { MoveForm } from './MoveForm.tsx';
import { type MoveParams, type Tool, views } from './params.ts';
import { asked } from './seen.ts';
import { Tension, TensionWords } from './Tension.tsx';

type Part = (props: PanelProps<MoveParams>) => ReactNode;
/** What stands in the sentence after a tool, and what under it. */
const PARTS: Readonly<Record<Tool, readonly [words: Part, part: Part]>> = {
  fourths: [WindowWord, Fourths],
  keys: [KeyOrderWord, AllKeys],
  find: [() => ' on which it lies best.', FindTuning],
  tension: [TensionWords, Tension],
};

/** What is moved, where to, and what comes of it. */
export const Panel = memo(function Panel(props: PanelProps<MoveParams>) {
  const { params, onParams, model } = props;
  const now = asked(model, params);
  const { before, said } = views().find(({ id }) => id === params.view)!;
  const view = (
    <>
      {before}
      <Picked
        name="What to move"
        weight="first"
        said={said}
        value={params.view}
        options={views()}
        onPick={(to) => {
          if (to !== params.view) onParams({ ...params, view: to, move: null });
        }}
      />
    </>
  );
  if (now && model.front)
    return <MoveForm key={now.it.kind} {...props} move={now.it} spec={now.spec} view={view} />;
  const [Words, Under] = PARTS[params.view as Tool] ?? [() => '.', () => null];
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence>
        {view}
        {model.front ? <Words {...props} /> : '.'}
      </TaskSentence>
      {model.front ? <Under {...props} /> : <p>There is no position to move: choose another layout.</p>}
    </div>
  );
});
