/** @jest-environment ./packages/web/test/environment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import { Listens } from './Heard.tsx';
import { type Level } from '../workers/listening.ts';
import { told } from './told.ts';

afterEach(cleanup);

/** What is said once levels came in, ten a second. */
function saidOf(rms: (seconds: number) => number, seconds: number, before = true, peak = 0.5): string {
  const loud = told<Level>();
  render(<Listens loud={loud} before={before} />);
  for (let i = 0; i <= 10 * seconds; i++) act(() => loud.tell({ rms: rms(i / 10), peak, at: 7 + i / 10 }));
  return screen.getByRole('status').textContent;
}

test('silence is said after four seconds, and too much at once', () => {
  expect(saidOf(() => 0.0004, 3.5)).toBe('');
  cleanup();
  expect(saidOf(() => 0.0004, 4.5)).toMatch(/^Nothing is heard/);
  cleanup();
  expect(saidOf(() => 0.2, 0, true, 1)).toMatch(/^Too loud/);
});

test('a steady noise is said before anything was played, a string that rings is none', () => {
  const hiss = (t: number): number => 0.012 + 0.001 * Math.sin(40 * t);
  expect(saidOf(hiss, 1)).toBe('');
  cleanup();
  expect(saidOf(hiss, 2)).toMatch(/^There is a steady noise/);
  cleanup();
  expect(saidOf(hiss, 2, false)).toBe('');
  cleanup();
  // The lowest string of a bass falls by 60 dB in nine seconds.
  expect(saidOf((t) => 0.2 * 10 ** ((-60 * t) / 9 / 20), 2)).toBe('');
});
