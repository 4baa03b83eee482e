import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Whether a version of Node is one that this runs on: 20 or later. */
export const isFit = (node) => Number(node.split('.')[0]) >= 20;

const markOf = (root) => join(root, 'node_modules/.crow-ladder');
/** What is installed is known by the lock file that it was installed from. */
const wanted = (root) =>
  createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
/** Whether the packages are there, as the lock file asks for them now. */
export const isInstalled = (root) =>
  existsSync(markOf(root)) && readFileSync(markOf(root), 'utf8') === wanted(root);
export const markInstalled = (root) => writeFileSync(markOf(root), wanted(root));

/** Time of the newest file under a folder or of one file, in ms; what is made of them is passed over. */
const newest = (path) =>
  statSync(path).isDirectory()
    ? Math.max(
        0,
        ...readdirSync(path)
          .filter((name) => name !== 'dist' && name !== 'node_modules')
          .map((name) => newest(join(path, name))),
      )
    : statSync(path).mtimeMs;
const SOURCES = [
  'packages/core/src',
  'packages/picture',
  'packages/formats/src',
  'packages/contract/src',
  'packages/web',
  'package-lock.json',
];
/** Whether the interface is built from its sources as they are now. */
export function isBuilt(root) {
  const built = join(root, 'packages/web/dist/index.html');
  if (!existsSync(built)) return false;
  return statSync(built).mtimeMs > Math.max(...SOURCES.map((source) => newest(join(root, source))));
}

/** Where Chromium is; undefined where it is not. */
export const browserIn = (env, exists = (path) => existsSync(path)) =>
  [env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => path && exists(path));

/** Programs that read what is written for others, with the packages of Debian that hold them. */
const OUTSIDE = [
  { program: 'midicsv', from: 'midicsv' },
  { program: 'abc2midi', from: 'abcmidi' },
  { program: 'xmllint', from: 'libxml2-utils' },
  { program: 'pdftotext', from: 'poppler-utils' },
];
/** Packages of those that are on no folder of the path. */
export const outsideMissing = (env, exists = (path) => existsSync(path)) =>
  OUTSIDE.filter(
    ({ program }) => !(env.PATH ?? '').split(':').some((folder) => exists(`${folder}/${program}`)),
  ).map(({ from }) => from);
