import { readFileSync } from 'node:fs';
import { type ChartPage } from '@crow-ladder/contract';
import { type Locator, type Page } from '@playwright/test';
import { FORMAT_KINDS, NAMED } from '@crow-ladder/formats/named';
import { readFile } from '@crow-ladder/formats';
import { writeMidi } from 'midi-file';
import { clean, fromMenu, makeChart, openPart, panel, part } from './player.ts';
import { expect, test } from './test.ts';

const VOICES = ['Bow', 'Beam', 'Stern', 'Hold'];
/** A tune of four voices in A minor, two bars each, as other programs write it. */
const SCORE = `<?xml version="1.0" encoding="UTF-8"?>
<score-partwise version="3.1"><work><work-title>Four decks</work-title></work><part-list>
${VOICES.map((name, i) => `<score-part id="P${i}"><part-name>${name}</part-name></score-part>`).join('\n')}
</part-list>
${VOICES.map(
  (_, i) =>
    `<part id="P${i}">${[1, 2]
      .map(
        (
          bar,
        ) => `<measure number="${bar}">${bar === 1 ? '<attributes><divisions>2</divisions><key><fifths>0</fifths><mode>minor</mode></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>' : ''}
${['A', 'C', 'E', 'G']
  .map(
    (step) =>
      `<note><pitch><step>${step}</step><octave>${5 - Math.ceil(i / 2)}</octave></pitch><duration>2</duration><voice>1</voice><type>quarter</type></note>`,
  )
  .join('\n')}</measure>`,
      )
      .join('')}</part>`,
).join('\n')}
</score-partwise>`;

const chart = (page: Page): Locator => page.getByRole('button', { name: /^Chart:/ });
const dialog = (page: Page, name: string): Locator => page.getByRole('dialog', { name, exact: true });
const chosen = (page: Page): Locator => dialog(page, 'Open a file').getByLabel('File', { exact: true });
async function opened(page: Page, request: Parameters<typeof makeChart>[0], name: string): Promise<string> {
  const id = await makeChart(request, name, {
    key: { root: 'A', scale: 'minor-pentatonic' },
    at: { string: 6, fret: 5 },
  });
  await page.goto(`/charts/${id}`);
  await expect(chart(page)).toBeVisible();
  return id;
}

test('a tune of four voices is opened from MusicXML, one voice of it is taken and practised', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Files: four voices');
  await fromMenu(page, 'Open a file');
  await chosen(page).setInputFiles({
    name: 'decks.musicxml',
    mimeType: 'text/xml',
    buffer: Buffer.from(SCORE),
  });
  const it = dialog(page, 'Open a file');
  await expect(it).toContainText(
    'Four decks, MusicXML, 4 lines of music: A minor, 4/4, 2 bars, 8 notes, C5 to A5.',
  );
  await clean(page, 'an opened file');
  await it.getByLabel('Take', { exact: true }).selectOption({ label: 'Stern: 8 notes, C4 to A4' });
  await it.getByLabel('Name of the phrase').fill('Stern line');
  await expect(it).toContainText('8 notes will be taken, in bars of 4/4: 1 ♭3 5 ♭7 1 ♭3 5 ♭7.');
  await it.getByRole('button', { name: 'Take it' }).click();
  await expect(panel(page, 'Phrases')).toBeVisible();
  await expect(part(page, 'Phrase')).toHaveText(/Stern line/);
  await page.getByRole('link', { name: 'Practice' }).click();
  const list = await openPart(page, 'Practised on');
  await list.getByRole('button', { name: 'the phrase “Stern line”' }).click();
  await expect(panel(page, 'Practice').locator('.vf-tabnote')).toHaveCount(8);
});

test('the same from MIDI, with the lower of two notes where they sound together', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Files: MIDI');
  const note = (deltaTime: number, type: 'noteOn' | 'noteOff', noteNumber: number) =>
    ({ deltaTime, type, channel: 0, noteNumber, velocity: 80 }) as const;
  const bytes = writeMidi({
    header: { format: 1, numTracks: 4, ticksPerBeat: 96 },
    tracks: VOICES.map((name, i) => [
      { deltaTime: 0, type: 'trackName', meta: true, text: name },
      ...[57, 60, 64, 67].flatMap((midi) => [
        note(0, 'noteOn', midi - 3 * i + 12),
        note(0, 'noteOn', midi - 3 * i),
        note(88, 'noteOff', midi - 3 * i + 12),
        note(0, 'noteOff', midi - 3 * i),
        note(8, 'noteOff', 1),
      ]),
      { deltaTime: 0, type: 'endOfTrack', meta: true },
    ]),
  });
  await fromMenu(page, 'Open a file');
  await chosen(page).setInputFiles({ name: 'decks.mid', mimeType: 'audio/midi', buffer: Buffer.from(bytes) });
  const it = dialog(page, 'Open a file');
  await it.getByLabel('Take', { exact: true }).selectOption({ label: 'Beam: 8 notes, F♯3 to E5' });
  await it.getByLabel('Where notes sound together').selectOption('bottom');
  await expect(it).toContainText('In 4 places notes sound together: the lowest is taken.');
  await expect(it).toContainText('4 notes will be taken');
  await it.getByLabel('Name of the phrase').fill('Beam line');
  await it.getByRole('button', { name: 'Take it' }).click();
  await expect(part(page, 'Phrase')).toHaveText(/Beam line/);
  // What was let go a little early is written as it is meant.
  await expect(panel(page, 'Phrases').locator('.vf-tabnote')).toHaveCount(4);
});

test('a broken file that is dropped is refused with its place, and the chart is as it was; a good one then is taken', async ({
  page,
  request,
}) => {
  const id = await opened(page, request, 'Files: dropped');
  const drop = (name: string, text: string) =>
    page.evaluate(
      ([called, inside]) => {
        const data = new DataTransfer();
        data.items.add(new File([inside!], called!));
        window.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      [name, text],
    );
  await drop('decks.musicxml', SCORE.slice(0, SCORE.length / 2));
  await expect(dialog(page, 'Open a file').getByRole('alert')).toHaveText(
    /^Line \d+, column \d+: this is not well-formed XML/,
  );
  await page.keyboard.press('Escape');
  await expect(dialog(page, 'Open a file')).toBeHidden();
  const { state } = (await (await request.get(`/api/charts/${id}`)).json()) as {
    state: { phrases: unknown[] };
  };
  expect(state.phrases).toEqual([]);
  await drop('ramp.abc', 'X:1\nT:Ramp\nM:4/4\nL:1/4\nK:Am\nA c e ?a|\n');
  const it = dialog(page, 'Open a file');
  await expect(it).toContainText('“?” is not understood');
  await it.getByRole('button', { name: 'Take it' }).click();
  await expect(part(page, 'Phrase')).toHaveText(/Ramp/);
});

test('a phrase is saved in each format from its word, and each file says what it is', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Files: saved');
  await page.keyboard.press('8');
  await panel(page, 'Phrases').getByRole('button', { name: 'New phrase' }).click();
  await page.getByRole('button', { name: 'Open a file, or paste tablature' }).click();
  const it = dialog(page, 'Open a file');
  await it
    .getByLabel('Or paste text')
    .fill('Gangway\ne|-5h8-7b9-|\nB|--------|\nG|--------|\nD|--------|\nA|--------|\nE|--------|');
  await it.getByRole('button', { name: 'Take it' }).click();
  await expect(part(page, 'Phrase')).toHaveText(/Gangway/);
  for (const kind of FORMAT_KINDS) {
    const word = await openPart(page, 'Phrase');
    await word.getByRole('button', { name: 'Save as a file' }).click();
    const save = dialog(page, 'Save as');
    await expect(save.getByLabel('What')).toHaveValue('phrase.Gangway');
    await save.getByLabel('As').selectOption(kind);
    const file = page.waitForEvent('download');
    await save.getByRole('button', { name: 'Save the file' }).click();
    const download = await file;
    expect(download.suggestedFilename()).toBe(`files-saved-gangway.${NAMED[kind].extensions[0]}`);
    const read = readFile(download.suggestedFilename(), readFileSync(await download.path()));
    expect(read).toMatchObject({ ok: true, value: { title: 'Gangway' } });
    const notes = read.ok ? read.value.parts[0]!.voices[0]!.notes : [];
    expect(notes.map(({ midi }) => midi)).toEqual([69, 72, 71]);
    await expect(save).toBeHidden();
  }
});

test('a chart is saved as JSON, and opened again as a chart of its own; a file that is none is refused', async ({
  page,
  request,
}) => {
  await opened(page, request, 'Files: a chart');
  await fromMenu(page, 'Save as');
  const save = dialog(page, 'Save as');
  await save.getByLabel('What').selectOption('the whole chart');
  const file = page.waitForEvent('download');
  await save.getByRole('button', { name: 'Save the file' }).click();
  const download = await file;
  expect(download.suggestedFilename()).toBe('files-a-chart.json');
  const buffer = readFileSync(await download.path());
  await fromMenu(page, 'Open a file');
  const it = dialog(page, 'Open a file');
  await chosen(page).setInputFiles({
    name: 'torn.json',
    mimeType: 'application/json',
    buffer: buffer.subarray(0, 90),
  });
  await expect(it.getByRole('alert')).toContainText('This file is no whole JSON');
  await chosen(page).setInputFiles({ name: 'kept.json', mimeType: 'application/json', buffer });
  await expect(it.getByRole('status')).toHaveText(/^Files: a chart, a chart: A minor pentatonic/);
  await it.getByRole('button', { name: 'Take it into the library' }).click();
  await expect(it).toBeHidden();
  await expect(chart(page)).toHaveText(/Files: a chart/);
  const { charts } = (await (await request.get('/api/charts?find=Files: a chart')).json()) as ChartPage;
  expect(charts).toHaveLength(2);
  const schema = await request.get('/schema/chart.json');
  expect(schema.headers()['content-type']).toContain('application/json');
  expect(await schema.json()).toHaveProperty('properties.state');
});
