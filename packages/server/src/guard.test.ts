import { Hono } from 'hono';
import { addressesOf, guard, hostNames, isLoopback, standing } from './guard.ts';

test('a server answers to the names of its computer, to its address, and to those that it is told of', () => {
  expect([...hostNames('Deck.example', ' bow.local,stern.local:8080  [fd00::1]:80')].sort()).toEqual([
    '127.0.0.1',
    '[::1]',
    '[fd00::1]',
    'bow.local',
    'deck.example',
    'localhost',
    'stern.local',
  ]);
  expect(hostNames('localhost').size).toBe(3);
  expect(addressesOf('10.0.0.7')).toEqual(['10.0.0.7']);
  for (const host of ['localhost', '127.0.0.1', '127.8.0.1', '::1', '[::1]'])
    expect([host, isLoopback(host)]).toEqual([host, true]);
  for (const host of ['0.0.0.0', '10.0.0.7', 'deck.local'])
    expect([host, isLoopback(host)]).toEqual([host, false]);
});

describe('at the gangway', () => {
  const app = new Hono().use(guard(hostNames('localhost'))).all('*', (c) => c.text('in'));
  const ask = async (method: string, headers: Record<string, string>, url = 'http://localhost:4780/x') => {
    const res = await app.request(url, { method, headers });
    return res.ok ? 'in' : `${res.status} ${((await res.json()) as { error: { code: string } }).error.code}`;
  };

  test('what asks under another name is sent away, whatever it asks', async () => {
    for (const host of ['rebound.example', 'localhost.example', '127.0.0.2'])
      for (const method of ['GET', 'POST'])
        expect([host, await ask(method, { host })]).toEqual([host, '421 wrong-host']);
    for (const host of ['LOCALHOST:4780', '127.0.0.1:99', '[::1]:4780'])
      expect([host, await ask('POST', { host })]).toEqual([host, 'in']);
    // Without the header the address itself says it.
    expect([await ask('GET', {}), await ask('GET', {}, 'http://elsewhere.example/x')]).toEqual([
      'in',
      '421 wrong-host',
    ]);
  });

  test('pages of another origin may open the page, and neither read nor change the library', async () => {
    const host = 'localhost:4780';
    const foreign = [
      { origin: 'http://elsewhere.example' },
      { origin: 'http://localhost:9999' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site', origin: 'http://localhost:4780' },
    ] as readonly Record<string, string>[];
    for (const headers of foreign) {
      for (const method of ['POST', 'PUT', 'PATCH', 'DELETE'])
        expect([headers, await ask(method, { host, ...headers })]).toEqual([headers, '403 foreign-page']);
      for (const method of ['GET', 'OPTIONS'])
        expect([headers, await ask(method, { host, ...headers })]).toEqual([headers, 'in']);
      for (const method of ['GET', 'HEAD', 'OPTIONS'])
        for (const path of ['api/backup', 'api', '%61pi/charts'])
          expect([
            headers,
            (await app.request(`http://${host}/${path}`, { method, headers })).status,
          ]).toEqual([headers, 403]);
    }
    for (const headers of [
      {},
      { origin: 'http://localhost:4780' },
      { 'sec-fetch-site': 'same-origin', origin: 'http://localhost:4780' },
      { 'sec-fetch-site': 'none' },
    ] as readonly Record<string, string>[])
      for (const method of ['GET', 'POST'])
        expect([
          headers,
          await ask(method, { host, ...headers }, 'http://localhost:4780/api/charts'),
        ]).toEqual([headers, 'in']);
    expect(await ask('POST', { host: 'LOCALHOST:4780', origin: 'http://localhost:4780' })).toBe('in');
  });
});

test('changes wait while the library is replaced, and are refused once a file of it is gone or the server stops', async () => {
  const trouble = (isKept: boolean) => ({ error: { code: 'library-gone', message: 'It is gone.' }, isKept });
  const is = { files: [] as (ReturnType<typeof trouble> | null)[], stopping: false };
  let waited = 0;
  const app = new Hono()
    .use(
      standing(
        () => Promise.resolve(is.files.shift() ?? null),
        () => is.stopping,
        () => Promise.resolve(waited++),
      ),
    )
    .all('/refused', (c) => c.text('no', 422))
    .all('*', (c) => c.text('in'));
  const ask = async (method: string, path = '/x', ...files: typeof is.files) => {
    is.files = files;
    return (await app.request(path, { method })).status;
  };
  expect([await ask('GET'), waited]).toEqual([200, 0]);
  expect([await ask('PUT'), waited]).toEqual([200, 1]);
  for (const isKept of [false, true]) {
    expect([
      await ask('GET', '/x', trouble(isKept)),
      await ask('PUT', '/x', trouble(isKept)),
      waited,
    ]).toEqual([200, 503, 1]);
    expect(await ask('GET', '/api/backup', trouble(isKept))).toBe(503);
  }
  // What went while a change was made is asked for again: it stands if it could be brought where it belongs.
  expect(await ask('PUT', '/x', null, trouble(true))).toBe(200);
  expect(await ask('PUT', '/x', null, trouble(false))).toBe(503);
  expect(await ask('PUT', '/refused', null, trouble(false))).toBe(422);
  is.stopping = true;
  const stopping = await app.request('/x');
  expect([stopping.status, stopping.headers.get('connection')]).toEqual([503, 'close']);
});
