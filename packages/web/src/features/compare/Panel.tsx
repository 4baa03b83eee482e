import { memo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Picked } from '../../ui/Picked.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { Acts, AnotherScale, ScaleWords } from './AnotherScale.tsx';
import { Added } from './Added.tsx';
import { Altered } from './Altered.tsx';
import { Modes, ModeWords } from './Modes.tsx';
import { NamedNotes, NoteActs } from './NamedNotes.tsx';
import { type CompareParams, VIEWS, WHERE } from './params.ts';

const Comma = () => ',';
const Nothing = () => null;

/** What stands in the sentence after what it is compared with, what under it, and what is done about it. */
const PARTS = {
  scale: [ScaleWords, AnotherScale, Acts],
  alter: [Comma, Altered, Acts],
  added: [Nothing, Added, Nothing],
  parallel: [ModeWords, Modes, Acts],
  relative: [ModeWords, Modes, Acts],
  notes: [null, NamedNotes, NoteActs],
} as const;

/** The scale beside another one. */
export const Panel = memo(function Panel(props: PanelProps<CompareParams>) {
  const { params, onParams } = props;
  const [Words, Part, Does] = PARTS[params.view];
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence acts={<Does {...props} />}>
        {Words ? 'Compare it with ' : 'Name '}
        <Picked
          name="Compare with"
          weight="first"
          said={VIEWS.find(({ id }) => id === params.view)!.said}
          value={params.view}
          options={VIEWS}
          onPick={(view) => onParams({ ...params, view })}
        />
        {Words && params.view !== 'added' ? (
          <>
            <Words {...props} />{' '}
            <Picked
              name="Where"
              then="."
              value={params.where}
              options={WHERE}
              onPick={(where) => onParams({ ...params, where })}
            />
          </>
        ) : (
          '.'
        )}
      </TaskSentence>
      <Part {...props} />
    </div>
  );
});
