/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { type Place } from '@crow-ladder/core';
import { layersOf } from '@crow-ladder/picture';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { figureOf, lookOf } from '../model/figure.ts';
import { modelOf } from '../model/model.ts';
import { Neck } from '../ui/neck/Neck.tsx';
import { still } from '../ui/neck/source.ts';
import { Opened } from '../ui/Opened.tsx';

// Keys that come faster than a busy page follows them.
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('what opens the moment another thing has closed stays open when focus is handed back', () => {
  let opens: (name: string) => void = () => undefined;
  function Two() {
    const [open, setOpen] = useState('');
    opens = setOpen;
    return ['first', 'second'].map((name) => (
      <Opened
        key={name}
        name={name}
        label={name}
        buttonClass=""
        panelClass=""
        body={<button type="button">in the {name}</button>}
        open={open === name}
        onOpenChange={(is) => setOpen(is ? name : '')}
      >
        {name}
      </Opened>
    ));
  }
  render(<Two />);
  const rest = (): void => act(() => void jest.advanceTimersByTime(100));
  screen.getByRole('button', { name: 'first' }).focus();
  act(() => opens('first'));
  rest();
  fireEvent.keyDown(screen.getByRole('button', { name: 'in the first' }), { key: 'Escape' });
  expect(screen.queryByRole('dialog')).toBeNull();
  act(() => opens('second'));
  rest();
  expect(screen.getByRole('button', { name: 'in the second' })).toBe(document.activeElement);
  fireEvent.keyDown(document.activeElement!, { key: 'Escape' });
  rest();
  expect(screen.getByRole('button', { name: 'second' })).toBe(document.activeElement);
});

test('a root that lands late does not take the keyboard back from where it has gone since', () => {
  const model = modelOf(FIRST_STATE, DEFAULT_SETTINGS);
  const look = lookOf(FIRST_STATE.instrument, DEFAULT_SETTINGS, null, false);
  const source = still({
    figure: figureOf(FIRST_STATE.instrument, model.accidentals, look),
    layers: layersOf({}),
  });
  const picked: Place[] = [];
  const neck = (root: Place) => (
    <Neck
      source={source}
      name="Neck"
      root={root}
      onPick={(p) => picked.push(p)}
      say={() => ({ head: '', more: () => '' })}
      echoes={() => []}
    />
  );
  const { rerender } = render(neck({ string: 6, fret: 5 }));
  const focused = (): (string | null)[] => [
    document.activeElement!.closest('[role="row"]')!.getAttribute('aria-rowindex'),
    document.activeElement!.getAttribute('aria-colindex'),
  ];
  const key = (key: string): boolean => fireEvent.keyDown(document.activeElement!, { key });
  act(() =>
    screen
      .getAllByRole('gridcell')
      .find((c) => c.getAttribute('tabindex') === '0')!
      .focus(),
  );
  key('ArrowRight');
  key('Enter');
  expect(picked).toEqual([{ string: 6, fret: 6 }]);
  key('End');
  rerender(neck(picked[0]!));
  expect(focused()).toEqual(['6', '23']);
  // A root that goes elsewhere by another way takes the keyboard along.
  rerender(neck({ string: 5, fret: 7 }));
  expect(focused()).toEqual(['5', '8']);
});
