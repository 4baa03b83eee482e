/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS } from '@crow-ladder/contract';
import { fireEvent, screen } from '@testing-library/react';
import { follows, handNetwork, shown, storeOf } from '../../test/world.tsx';
import { type Actions, SHORTCUTS, TASK_KEYS, useShortcuts } from './shortcuts.ts';

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

describe('on a page', () => {
  const ran: string[] = [];
  const all = Object.fromEntries(SHORTCUTS.map(({ action }) => [action, () => ran.push(action)]));
  const actions = { ...all, task: (place: number) => ran.push(`task ${place}`) } as Actions;
  function Page({ open = false }: { open?: boolean }) {
    useShortcuts(actions);
    return (
      <main>
        <input aria-label="text" />
        <input aria-label="box" type="checkbox" />
        <select aria-label="list">
          <option>minor</option>
        </select>
        <textarea aria-label="notes" />
        {open && <div role="dialog" />}
      </main>
    );
  }
  async function page(letterKeys = true, open = false): Promise<void> {
    ran.length = 0;
    const settings = { ...DEFAULT_SETTINGS, letterKeys };
    shown(<Page open={open} />, { store: storeOf({ network: handNetwork(() => ({ body: settings })) }) });
    await follows();
  }
  const press = (key: string, more: object = {}, on: Element = document.body): boolean =>
    fireEvent.keyDown(on, { key, ...more });

  test('every key of the table does what it says, with Shift where a keyboard asks for it', async () => {
    await page();
    for (const { action, keys } of SHORTCUTS)
      for (const key of keys) {
        ran.length = 0;
        const [last, ...mods] = key.split('+').reverse();
        // The sign plus itself is split away with its mark.
        const typed = key === '+' ? '+' : last!;
        press(typed, { ctrlKey: mods.includes('$mod'), shiftKey: mods.includes('Shift') });
        expect([key, ...ran]).toEqual([key, action]);
        if (/^[^a-z$]/.test(key)) {
          press(typed, { shiftKey: true });
          expect(ran).toEqual([action, action]);
        }
      }
    ran.length = 0;
    TASK_KEYS.forEach((key) => press(key));
    expect(ran).toEqual(TASK_KEYS.map((_, place) => `task ${place}`));
  });

  test('what is typed in a field or chosen by letter in a list runs nothing but saving; undo belongs to a text', async () => {
    await page();
    for (const name of ['text', 'list', 'notes']) {
      const field = screen.getByLabelText(name);
      for (const { keys } of SHORTCUTS)
        for (const key of keys.filter((k) => !k.includes('$mod'))) press(key, {}, field);
      press('3', {}, field);
      expect([name, ...ran]).toEqual([name]);
      press('s', { ctrlKey: true }, field);
      expect(ran.splice(0)).toEqual(['save']);
    }
    press('z', { ctrlKey: true }, screen.getByLabelText('text'));
    expect(ran).toEqual([]);
    press('z', { ctrlKey: true }, screen.getByLabelText('list'));
    press('r', {}, screen.getByLabelText('box'));
    expect(ran).toEqual(['undo', 'root']);
  });

  test('single keys can be switched off, and those with Ctrl stay', async () => {
    await page(false);
    for (const key of ['m', '.', '?', '1', '+']) press(key);
    expect(ran).toEqual([]);
    press('z', { ctrlKey: true });
    expect(ran).toEqual(['undo']);
  });

  test('a key that somebody else has taken, or over which a dialog is open, does nothing', async () => {
    await page();
    const taking = (e: Event): void => e.preventDefault();
    document.body.addEventListener('keydown', taking);
    press('m');
    document.body.removeEventListener('keydown', taking);
    expect(ran).toEqual([]);
    expect(press('m')).toBe(false);
    expect(ran).toEqual(['nextRoot']);
  });

  test('nothing runs while a dialog is open', async () => {
    await page(true, true);
    press('m');
    press('z', { ctrlKey: true });
    expect(ran).toEqual([]);
  });
});
