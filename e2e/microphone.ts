import { type Browser, chromium } from '@playwright/test';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import config from './playwright.config.ts';

/** Writes samples from −1 to 1 at a rate in Hz as a file of 16-bit sound (WAVE), and gives its path. */
export function soundFile(folder: string, samples: Float32Array, rate: number): string {
  const bytes = Buffer.alloc(44 + 2 * samples.length);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + 2 * samples.length, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(2 * rate, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(2 * samples.length, 40);
  samples.forEach((s, i) =>
    bytes.writeInt16LE(Math.round(32_000 * Math.max(-1, Math.min(1, s))), 44 + 2 * i),
  );
  const path = join(folder, 'guitar.wav');
  writeFileSync(path, bytes);
  return path;
}

/** A browser whose microphone plays a file once, from when it is opened. */
export const browserHearing = (file: string): Promise<Browser> =>
  chromium.launch({
    ...config.use!.launchOptions,
    args: [
      ...config.use!.launchOptions!.args!,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream',
      `--use-file-for-fake-audio-capture=${file}%noloop`,
    ],
  });
