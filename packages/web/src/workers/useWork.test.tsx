/** @jest-environment ./packages/web/test/environment.mjs */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { type Endpoint, expose } from 'comlink';
import { useWork } from './useWork.ts';

/** Workers that do what the test says, in this thread. */
const workers: { ended: boolean; fail: () => void }[] = [];
function start(work: (task: string, told: (done: number) => void) => unknown): () => Worker {
  return () => {
    const { port1, port2 } = new MessageChannel();
    const it = { ended: false, fail: () => worker.onerror?.(new ErrorEvent('error')) };
    expose({ work }, port2 as unknown as Endpoint);
    const worker = Object.assign(port1 as unknown as Worker, {
      terminate: () => {
        it.ended = true;
        port1.close();
        port2.close();
      },
    });
    workers.push(it);
    return worker;
  };
}
function Page({ begin, task }: { begin: () => Worker; task: string | null }) {
  const { work, cancel, again } = useWork<string, string>(begin, task);
  return (
    <div>
      <output>
        {work.is === 'done' ? work.answer : work.is === 'working' ? `working ${work.done}` : work.is}
      </output>
      <button onClick={cancel}>cancel</button>
      <button onClick={again}>again</button>
    </div>
  );
}
const says = (): string | null => screen.getByRole('status').textContent;
const until = async (text: string): Promise<void> => {
  for (let turns = 0; says() !== text && turns < 500; turns++)
    await act(() => new Promise((done) => setTimeout(done, 2)));
  expect(says()).toBe(text);
};
const never = () => new Promise(() => undefined);
beforeEach(() => void (workers.length = 0));

test('a task is worked on with word of how far it is, answered, and its worker ended', async () => {
  let finish: (answer: string) => void = () => undefined;
  const begin = start((task, told) => {
    told(3);
    return new Promise((done) => (finish = () => done(`${task}, done`)));
  });
  render(<Page begin={begin} task="plan" />);
  expect(says()).toBe('working 0');
  await until('working 3');
  finish('');
  await until('plan, done');
  expect(workers).toMatchObject([{ ended: true }]);
});

test('a task that throws is told as failed, its worker ended, and can be tried again', async () => {
  const logged = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  let tries = 0;
  const begin = start(() => {
    if (++tries === 1) throw new Error('Out of strings.');
    return 'done';
  });
  render(<Page begin={begin} task="plan" />);
  await until('failed');
  expect(workers).toMatchObject([{ ended: true }]);
  expect(logged).toHaveBeenCalled();
  fireEvent.click(screen.getByText('again'));
  await until('done');
  logged.mockRestore();
});

test('a worker that cannot be started is told as failed', async () => {
  render(<Page begin={start(never)} task="plan" />);
  act(() => workers[0]!.fail());
  await until('failed');
});

test('called off, it is ended and said so; another task begins anew, and no task begins nothing', async () => {
  const begin = start((task) => (task === 'long' ? never() : task));
  const { rerender } = render(<Page begin={begin} task="long" />);
  fireEvent.click(screen.getByText('cancel'));
  await until('calledOff');
  expect(workers[0]!.ended).toBe(true);
  rerender(<Page begin={begin} task="short" />);
  await until('short');
  rerender(<Page begin={begin} task="long" />);
  expect(says()).toBe('working 0');
  rerender(<Page begin={begin} task={null} />);
  expect(workers[2]!.ended).toBe(true);
  expect(workers).toHaveLength(3);
});
