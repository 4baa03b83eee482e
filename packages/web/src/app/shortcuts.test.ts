import { SHORTCUTS, TASK_KEYS } from './shortcuts.ts';

test('no key does two things, and every action has a key and says what it does', () => {
  const keys = [...SHORTCUTS.flatMap((s) => s.keys), ...TASK_KEYS];
  expect(new Set(keys).size).toBe(keys.length);
  for (const s of SHORTCUTS) {
    expect(s.keys.length).toBeGreaterThan(0);
    expect(s.does).toMatch(/^[A-Z].+[^.]$/);
  }
  expect(new Set(SHORTCUTS.map((s) => s.action)).size).toBe(SHORTCUTS.length);
});

test('every action has a key that common keyboards type without AltGr, and shows that one', () => {
  // Letters, figures and these signs lie on their own or on Shift on US, UK, German, French, Nordic and Spanish keyboards;
  // brackets, braces, the backslash, @ and # need AltGr on at least one of them (keyboards of ISO/IEC 9995, from memory).
  for (const { action, keys } of SHORTCUTS)
    expect([action, keys[0]!.replace(/^(\$mod\+)?(Shift\+)?/, '')]).toEqual([
      action,
      expect.stringMatching(/^[a-z0-9+\-.,?]$/),
    ]);
});
