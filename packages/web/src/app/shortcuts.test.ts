import { SHORTCUTS } from './shortcuts.ts';

test('no key does two things, and every action has a key and says what it does', () => {
  const keys = SHORTCUTS.flatMap((s) => s.keys);
  expect(new Set(keys).size).toBe(keys.length);
  for (const s of SHORTCUTS) {
    expect(s.keys.length).toBeGreaterThan(0);
    expect(s.does).toMatch(/^[A-Z].+[^.]$/);
  }
  expect(new Set(SHORTCUTS.map((s) => s.action)).size).toBe(SHORTCUTS.length);
});
