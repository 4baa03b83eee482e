/** @jest-environment ./packages/web/test/environment.mjs */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Whole } from './fields.tsx';
import { onLeaving } from './later.ts';
import { useTyped } from './useTyped.ts';

const kept: string[] = [];
function Text({ refuses = '', pauseMs = null }: { refuses?: string; pauseMs?: number | null }) {
  const [value, setValue] = useState('first');
  const typed = useTyped(
    value,
    (text) => {
      if (text === refuses) return false;
      kept.push(text);
      setValue(text);
      return true;
    },
    pauseMs,
  );
  return (
    <input
      aria-label="text"
      value={typed.text}
      onChange={(e) => typed.onText(e.target.value)}
      onBlur={typed.onBlur}
    />
  );
}
const field = (): HTMLInputElement => screen.getByLabelText('text');
const type = (text: string): boolean => fireEvent.change(field(), { target: { value: text } });
beforeEach(() => {
  jest.useFakeTimers();
  kept.length = 0;
});
afterEach(() => jest.useRealTimers());

test('what is typed is shown at once and kept once its field is left, and only where it differs', () => {
  render(<Text />);
  fireEvent.blur(field());
  type('second');
  expect([field().value, ...kept]).toEqual(['second']);
  fireEvent.blur(field());
  expect(kept).toEqual(['second']);
  fireEvent.blur(field());
  expect(kept).toEqual(['second']);
});

test('where a pause is given it is kept at each pause, from the last letter on', () => {
  render(<Text pauseMs={600} />);
  type('one');
  act(() => void jest.advanceTimersByTime(599));
  type('one two');
  act(() => void jest.advanceTimersByTime(599));
  expect(kept).toEqual([]);
  act(() => void jest.advanceTimersByTime(1));
  expect(kept).toEqual(['one two']);
  act(() => void jest.advanceTimersByTime(6000));
  expect(kept).toEqual(['one two']);
});

test('without a pause nothing is kept while it is typed', () => {
  render(<Text />);
  type('one');
  act(() => void jest.advanceTimersByTime(60_000));
  expect(kept).toEqual([]);
});

test('leaving the view keeps what was typed', () => {
  const { unmount } = render(<Text />);
  type('a moment ago');
  unmount();
  expect(kept).toEqual(['a moment ago']);
});

test.each([
  ['pagehide', 'gone'],
  ['beforeunload', 'not yet'],
])(
  'a page that may be going (%s) keeps it, before what sends it goes, and says whether it is %s',
  (event, is) => {
    render(<Text />);
    type('a moment ago');
    const order: string[] = [];
    const stop = onLeaving(
      (gone) => order.push(`sent after ${kept.length}`, gone ? 'gone' : 'not yet'),
      'last',
    );
    const first = onLeaving(() => order.push('first'));
    act(() => void window.dispatchEvent(new Event(event)));
    expect(order).toEqual(['first', 'sent after 1', is]);
    stop();
    first();
    act(() => void window.dispatchEvent(new Event(event)));
    expect(order).toHaveLength(3);
  },
);

test('so does one that is hidden, but not one that comes back', () => {
  render(<Text />);
  let hidden = false;
  jest.spyOn(document, 'hidden', 'get').mockImplementation(() => hidden);
  type('a moment ago');
  const change = (): void => act(() => void document.dispatchEvent(new Event('visibilitychange')));
  change();
  expect(kept).toEqual([]);
  hidden = true;
  change();
  expect(kept).toEqual(['a moment ago']);
  jest.restoreAllMocks();
});

test('what could not be kept stays on show, until it can be', () => {
  render(<Text refuses="too long" />);
  type('too long');
  fireEvent.blur(field());
  expect([field().value, ...kept]).toEqual(['too long']);
  type('short');
  fireEvent.blur(field());
  expect([field().value, ...kept]).toEqual(['short', 'short']);
});

describe('a whole number', () => {
  const used: number[] = [];
  function Number({ none }: { none?: number }) {
    const [value, setValue] = useState(5);
    return (
      <Whole
        aria-label="text"
        value={value}
        min={2}
        max={9}
        {...(none === undefined ? {} : { none })}
        onChange={(n) => {
          used.push(n);
          setValue(n);
        }}
      />
    );
  }
  beforeEach(() => void (used.length = 0));

  test('within its bounds it is used as it is typed; outside them it stays on show, is told, and is not used', () => {
    render(<Number />);
    for (const [typed, uses] of [
      ['2', 2],
      ['9', 9],
      ['1', null],
      ['10', null],
      ['3.5', null],
      ['', null],
    ] as const) {
      used.length = 0;
      type(typed);
      expect([typed, used]).toEqual([typed, uses === null ? [] : [uses]]);
      fireEvent.blur(field());
      expect(field().value).toBe(typed);
      expect(screen.queryAllByText('A whole number from 2 to 9.')).toHaveLength(uses === null ? 1 : 0);
      expect(field().getAttribute('aria-invalid')).toBe(String(uses === null));
    }
  });

  test('where it may be empty, an empty one means any', () => {
    render(<Number none={0} />);
    type('');
    fireEvent.blur(field());
    expect([field().value, field().placeholder, ...used]).toEqual(['', 'any', 0]);
  });
});
