/** @jest-environment ./packages/web/test/environment.mjs */
import { fireEvent, render, screen } from '@testing-library/react';
import { type Pickable, Picks } from './Picks.tsx';

const OPTIONS: readonly Pickable[] = [
  { id: 'fog', name: 'fog horn' },
  { id: 'bell', name: 'bell', note: 'It is heard in fog.' },
  { id: 'light', name: 'light' },
  { id: 'buoy', name: 'buoy', off: true, note: 'There is no room.' },
];
const picked: string[] = [];
beforeEach(() => {
  picked.length = 0;
  render(
    <Picks name="Signals" options={OPTIONS} value="bell" onPick={(id) => picked.push(id)}>
      <input aria-label="strokes" />
    </Picks>,
  );
});
const focused = (): string | null => document.activeElement!.getAttribute('aria-label');
const press = (key: string, on: Element = document.activeElement!): boolean => fireEvent.keyDown(on, { key });

test('a list begins at what is chosen; arrows, ends and letters walk it', () => {
  expect(focused()).toBe('bell');
  expect(screen.getByRole('button', { pressed: true }).getAttribute('aria-description')).toBe(
    'It is heard in fog.',
  );
  const walked = ['ArrowDown', 'ArrowUp', 'End', 'Home', 'l', 'b', 'b', 'B', 'x', 'ArrowDown'].map((key) => {
    press(key);
    return focused();
  });
  expect(walked).toEqual([
    'light',
    'bell',
    'buoy',
    'fog horn',
    'light',
    'buoy',
    'bell',
    'buoy',
    'buoy',
    'buoy',
  ]);
});

test('what cannot be chosen says why and is not; letters typed into a field are the field’s', () => {
  fireEvent.click(screen.getByRole('button', { name: 'buoy' }));
  fireEvent.click(screen.getByRole('button', { name: 'light' }));
  expect(picked).toEqual(['light']);
  const field = screen.getByLabelText('strokes');
  field.focus();
  expect([press('l', field), focused()]).toEqual([true, 'strokes']);
});
