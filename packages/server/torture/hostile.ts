import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { connect as connectTo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FIRST_STATE } from '@crow-ladder/contract';
import { endAll, running } from '../../../scripts/running.ts';
import { checkLibrary } from '../src/check.ts';

// Requests that no page sends, over plain connections: odd methods, paths, ranges, hosts, lengths and keys, bodies that are cut,
// nested or not JSON, heads, answers that nobody reads. HOSTILE is how many. None of them may be answered with 500, and afterwards
// files, log and memory stand as they did.
const MANY = Number(process.env['HOSTILE'] ?? 10_000);
const AT_ONCE = 12;
const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-hostile-'));
const path = join(folder, 'library.sqlite');
const server = running({ CROW_LADDER_DB: path });
const { hostname, port, host } = new URL(await server.ready);
const pid = server.child.pid!;

let seed = 20_260_601;
const chance = (): number => {
  seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
  return seed / 2 ** 32;
};
const one = <T>(of: readonly T[]): T => of[Math.floor(chance() * of.length)]!;
const deep = (n: number): string => '['.repeat(n) + ']'.repeat(n);
const draft = { name: 'Fog', tags: [], notes: '', state: FIRST_STATE };

const METHODS = 'GET GET GET HEAD HEAD POST PUT PATCH DELETE OPTIONS TRACE PROPFIND LOCK get REPORT'.split(
  ' ',
);
const PATHS = [
  '/',
  '/index.html',
  '/charts/x',
  '/assets/',
  '/assets/../../package.json',
  '/%2e%2e/%2e%2e/etc/passwd',
  '/api',
  '/api/',
  '//api/charts',
  '/api/charts',
  '/api/charts?find=%00&from=1e9',
  '/api/charts?order=__proto__&tag=%ff',
  '/api/charts/x',
  '/api/charts/x/raw',
  '/api/charts/x/look',
  '/api/charts/%2e%2e%2fx/restore',
  '/api/charts/a%00b',
  '/api/instruments',
  '/api/instruments/x',
  '/api/settings',
  '/api/known',
  '/api/practice?drill=x&shape=y&perBeat=NaN',
  '/api/practice/constructor',
  '/api/practice/things',
  '/api/bin',
  '/api/bin/charts/x',
  '/api/demo',
  '/api/visit',
  '/api/health',
  '/api/tags',
  '/api/backup',
  '/api/restores/hostile-1',
  '/api/restores/hostile-1/replace',
  `/api/charts/${'y'.repeat(5000)}`,
  '/api/charts/%',
  '/\\',
];
const BODIES: readonly string[] = [
  '',
  'null',
  '"',
  '{"a":',
  JSON.stringify(draft),
  JSON.stringify({ ...draft, name: 'Other', revision: 0 }),
  JSON.stringify({ ...draft, revision: 1e300 }),
  `{"name":"x","name":"y","tags":[],"notes":"","state":{},"state":${JSON.stringify(FIRST_STATE)}}`,
  deep(4000),
  `{"format":"crow-ladder-backup","version":3,"charts":${deep(3000)}}`,
  `{"format":"crow-ladder-backup","version":3,"madeAt":"x","charts":[],"charts":[{}],"practice":[1]}`,
  `{"format":"crow-ladder-backup","version":-1}`,
  `{"from":{},"to":{"spanMm":1e309}}`,
  `{"shape":${JSON.stringify('z'.repeat(3000))}}`,
  `{"__proto__":{"a":1},"constructor":{"prototype":1}}`,
  'x'.repeat(400_000),
  '\ufeff{}',
  '{"front":{"start":1,"low":4,"nth":0}}',
];
const HEADERS: readonly (() => string)[] = [
  () => `Range: ${one(['bytes=9-2', 'bytes=-', 'bytes=1-,5-', 'x', 'bytes=999999999999-', '\u0001'])}`,
  () => `Idempotency-Key: ${one(['hostile-key-1', 'hostile-key-2', 'x', ''])}`,
  () => `If-Match: ${one(['"1"', '*', 'W/"1"', '"999999999999999"', ''])}`,
  () => `If-None-Match: ${one(['*', '"x"', 'W/'])}`,
  () => `Content-Type: ${one(['application/json', 'text/plain', 'multipart/form-data; boundary=x', ''])}`,
  () => `Origin: ${one(['null', 'http://elsewhere.example', `http://${host}`, '::'])}`,
  () => `Sec-Fetch-Site: ${one(['cross-site', 'same-site', 'none', 'x'])}`,
  () => `Crow-Ladder-Library: ${one(['x', '', 'y'.repeat(2000)])}`,
  () => `Cookie: ${one(['crow-ladder-4780=x', '=;=', ';;;', 'a=%'])}`,
  () => `Accept-Encoding: ${one(['gzip', 'br;q=0', 'zstd, gzip', '*'])}`,
  () => `Expect: ${one(['100-continue', 'x'])}`,
  () => `X-Long: ${'z'.repeat(4000)}`,
  () => `Connection: ${one(['keep-alive', 'upgrade', 'close'])}`,
];

const statuses = new Map<string, number>();
/** Sends one and gives its status; what is cut, or hangs up, has none. */
const send = (): Promise<string> =>
  new Promise((done) => {
    const method = one(METHODS);
    const body = method === 'GET' && chance() < 0.8 ? '' : one(BODIES);
    const bytes = Buffer.byteLength(body);
    const how = one([
      'whole',
      'whole',
      'whole',
      'whole',
      'cut',
      'less',
      'chunked',
      'unread',
      'wrong-host',
      'none',
    ]);
    const lines = [
      `${method} ${one(PATHS)} HTTP/1.1`,
      ...(how === 'none' ? [] : [`Host: ${how === 'wrong-host' ? 'rebound.example' : host}`]),
      ...(chance() < 0.7 ? ['Content-Type: application/json'] : []),
      ...(how === 'chunked'
        ? ['Transfer-Encoding: chunked']
        : [`Content-Length: ${how === 'less' ? bytes + 9 : bytes}`]),
      ...Array.from({ length: Math.floor(chance() * 3) }, () => one(HEADERS)()),
    ];
    const socket = connectTo(Number(port), hostname);
    let heard = '';
    const end = (): void => {
      socket.destroy();
      done(/^HTTP\/1\.1 (\d{3})/.exec(heard)?.[1] ?? 'none');
    };
    socket.on('data', (some) => {
      if (how === 'unread') return end();
      if (heard.length < 100) heard += some.toString('latin1');
      // The rest of an answer is not of interest.
      if (heard.length >= 12) setImmediate(end);
    });
    socket.on('error', end);
    socket.on('close', end);
    socket.setTimeout(how === 'less' ? 30 : 8000, end);
    socket.write(`${lines.join('\r\n')}\r\n\r\n`);
    if (how === 'cut') {
      socket.write(body.slice(0, bytes / 2));
      setImmediate(end);
    } else if (how === 'chunked')
      socket.write(`${bytes.toString(16)}\r\n${body}\r\n${chance() < 0.9 ? '0\r\n\r\n' : ''}`);
    else socket.write(body);
  });

const standing = () => ({
  files: readdirSync(`/proc/${pid}/fd`).length,
  log: statSync(`${path}-wal`).size,
  memory: Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024),
});
async function pour(many: number): Promise<void> {
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (many-- > 0) {
        const status = await send();
        statuses.set(status, (statuses.get(status) ?? 0) + 1);
      }
    }),
  );
}
/** Once nothing is under way any more; a change has the log taken in. */
async function settled(): Promise<ReturnType<typeof standing>> {
  const base = `http://${host}/api`;
  for (let i = 0; i < 100; i++) {
    const { status } = await fetch(`${base}/charts`);
    if (status !== 200) throw new Error(`The list is answered with ${status}.`);
  }
  await new Promise((later) => setTimeout(later, 2000));
  return standing();
}

const began = Date.now();
const first = standing();
// Memory that a server takes for good as it warms up is none that is lost.
await pour(Math.ceil(MANY / 2));
const half = await settled();
await pour(Math.floor(MANY / 2));
const last = await settled();
const health = (await fetch(`http://${host}/api/backup`)).status;
server.child.kill('SIGTERM');
const { code } = await server.ended;
const left = readdirSync(folder).filter((n) => !/\.restore-/.test(n));
const whole = await checkLibrary(path);
const wrong = [
  (statuses.get('500') ?? 0) > 0 && `${statuses.get('500')} answers of 500`,
  last.files > half.files + 4 && `open files went from ${half.files} to ${last.files}`,
  last.log > half.log * 2 + 8_000_000 && `the log went from ${half.log} to ${last.log} bytes`,
  last.memory > half.memory * 1.1 && `memory went from ${half.memory} to ${last.memory} MB`,
  health !== 200 && `a backup is answered with ${health}`,
  code !== 0 && `it ended with ${code}`,
  left.length !== 1 && `a stop left ${left.join(', ')}`,
  !whole && 'the library is not whole',
].filter((it) => it !== false);
await endAll();
rmSync(folder, { recursive: true, force: true });
console.log(
  `${MANY} requests in ${Math.round((Date.now() - began) / 1000)} s, by status:`,
  Object.fromEntries([...statuses].sort()),
);
console.log('At first, after half of them, at last:', first, half, last);
for (const line of wrong) console.log(`Wrong: ${line}.`);
process.exit(wrong.length ? 1 : 0);
