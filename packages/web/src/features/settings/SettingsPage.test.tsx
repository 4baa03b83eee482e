/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_SETTINGS, type SettingsPatch } from '@crow-ladder/contract';
import { fireEvent, screen } from '@testing-library/react';
import { type Answer, follows, handNetwork, shown, storeOf } from '../../../test/world.tsx';
import { SettingsPage } from './SettingsPage.tsx';

/** The page, with settings that are read when the test says so. */
async function page() {
  let read: () => void = () => undefined;
  const held = new Promise<void>((done) => (read = done));
  const patches: SettingsPatch['to'][] = [];
  let is = { ...DEFAULT_SETTINGS, spanMm: 98, letterKeys: false };
  const network = handNetwork(async ({ path, method, body }): Promise<Answer> => {
    if (path !== '/settings') return { body: path === '/visit' ? { asks: false, in: true } : [] };
    if (method === 'GET') await held;
    else {
      const { to } = body as SettingsPatch;
      patches.push(to);
      is = { ...is, ...to };
    }
    return { body: is };
  });
  shown(<SettingsPage />, { store: storeOf({ network }) });
  await follows();
  const span = screen.getByLabelText<HTMLInputElement>('Your comfortable span in mm');
  return { patches, span, read };
}
const type = (field: Element, value: string): boolean => fireEvent.change(field, { target: { value } });

test('a span that is typed before the settings are read stays, and is kept once its field is left', async () => {
  const { patches, span, read } = await page();
  type(span, '120');
  read();
  await follows();
  expect(screen.getByRole('switch', { name: /^A single letter/ }).getAttribute('aria-checked')).toBe('false');
  expect(span.value).toBe('120');
  expect(patches).toEqual([]);
  fireEvent.blur(span);
  await follows();
  expect(patches).toEqual([{ spanMm: 120 }]);
  fireEvent.blur(span);
  await follows();
  expect(patches).toHaveLength(1);
});

test('a span out of its bounds stays on show with what is allowed, and is not kept', async () => {
  const { patches, span, read } = await page();
  read();
  await follows();
  for (const bad of ['49', '201', '', 'wide']) {
    type(span, bad);
    fireEvent.blur(span);
    expect([bad, span.value, span.getAttribute('aria-invalid')]).toEqual([bad, bad, 'true']);
  }
  for (const good of ['50', '200']) {
    type(span, good);
    fireEvent.blur(span);
    await follows();
  }
  expect(patches).toEqual([{ spanMm: 50 }, { spanMm: 200 }]);
});

test('each choice is kept by itself', async () => {
  const { patches, read } = await page();
  read();
  await follows();
  type(screen.getByLabelText('Theme'), 'stage');
  await follows();
  fireEvent.click(screen.getByRole('switch', { name: /^A single letter/ }));
  await follows();
  expect(patches).toEqual([{ theme: 'stage' }, { letterKeys: true }]);
});
