import { type Served, served } from '../test/served.ts';
import { doorOf, ownPasscode } from './door.ts';
import { environmentOf } from './environment.ts';
import { addressesOf, hostNames, isLoopback } from './guard.ts';

let it: Served;
let locked: Served;
beforeAll(async () => {
  it = await served();
  locked = await served({ door: doorOf(it.db, 'sea shanty', 4780) });
});
afterAll(async () => {
  await locked.close();
  await it.close();
});
const come = (passcode: unknown, headers = {}) => locked.call('POST', '/visit', { passcode }, headers);
const cookieOf = (headers: Headers): string => headers.get('set-cookie')!.split(';')[0]!;

test('without the passcode nothing of the library is read or changed; with it a browser comes in, until it leaves', async () => {
  for (const [method, to] of [
    ['GET', '/charts'],
    ['GET', '/backup'],
    ['POST', '/charts'],
    ['GET', '/nowhere'],
    ['PUT', '/restores/abcdefgh1'],
    ['DELETE', '/bin/charts/x'],
  ] as const)
    expect(await locked.call(method, to, method === 'GET' ? undefined : {})).toMatchObject({
      status: 401,
      body: { error: { code: 'locked' } },
    });
  expect((await locked.call('GET', '/visit')).body).toEqual({ asks: true, in: false });
  for (const wrong of ['sea', 'sea shanty ', ''])
    if (wrong !== 'sea shanty ') expect((await come(wrong)).body.error.code).toBe('wrong-passcode');
  for (const odd of [7, null, ['sea shanty'], 'x'.repeat(500)]) expect((await come(odd)).status).toBe(422);
  expect(await come('x'.repeat(5000))).toMatchObject({ status: 413, body: { error: { code: 'too-large' } } });
  const let_in = await come(' sea shanty ');
  expect(let_in.status).toBe(200);
  const set = let_in.headers.get('set-cookie')!;
  expect(set).toMatch(/; HttpOnly/);
  expect(set).toMatch(/; SameSite=Strict/);
  expect(set).not.toMatch(/; Secure/);
  const cookie = cookieOf(let_in.headers);
  expect((await locked.call('GET', '/charts', undefined, { cookie })).status).toBe(200);
  expect((await locked.call('GET', '/charts', undefined, { cookie: `${cookie}x` })).status).toBe(401);
  await locked.call('DELETE', '/visit', undefined, { cookie });
  expect((await locked.call('GET', '/charts', undefined, { cookie })).status).toBe(401);
  const tls = await come('sea shanty', { origin: 'https://galley', host: 'galley' });
  expect(tls.headers.get('set-cookie')).toMatch(/; Secure/);
});

test('a visit ends with its time and with the passcode that it was begun with', async () => {
  const cookie = cookieOf((await come('sea shanty')).headers);
  const other = await served({ door: doorOf(it.db, 'another one', 4780) });
  expect((await other.call('GET', '/charts', undefined, { cookie })).status).toBe(401);
  await other.close();
  await it.db('visits').update({ until: '2020-01-01T00:00:00.000Z' });
  expect((await locked.call('GET', '/charts', undefined, { cookie })).status).toBe(401);
});

test('guessing is slowed, and the right passcode has to wait as well', async () => {
  const codes: string[] = [];
  for (let i = 0; i < 8; i++) codes.push((await come(`guess ${i}`)).body.error.code);
  expect(codes.slice(0, 5)).toEqual(Array(5).fill('wrong-passcode'));
  expect(codes.slice(5)).toEqual(Array(3).fill('too-many-guesses'));
  expect(await come('sea shanty')).toMatchObject({
    status: 429,
    body: {
      error: { message: expect.stringMatching(/^Too many wrong passcodes: try again in \d+ seconds\.$/) },
    },
  });
});

test('a library that is served beyond its computer makes one passcode and keeps it', async () => {
  const made = await ownPasscode(it.db);
  expect(made).toMatch(/^[a-z2-9]{4}-[a-z2-9]{4}$/);
  expect(await ownPasscode(it.db)).toBe(made);
  expect(await ownPasscode(locked.db)).not.toBe(made);
  // It is no part of a backup.
  expect(JSON.stringify((await it.call('GET', '/backup')).body)).not.toContain(made);
  for (const own of ['localhost', '127.0.0.1', '127.0.0.2', '::1', '[::1]'])
    expect([own, isLoopback(own)]).toEqual([own, true]);
  for (const far of ['0.0.0.0', '::', '192.168.1.20', 'galley'])
    expect([far, isLoopback(far)]).toEqual([far, false]);
  expect(() => environmentOf({ CROW_LADDER_PASSCODE: 'short' })).toThrow(
    /has 5 characters: set it to one of 8 to 200/,
  );
  expect(environmentOf({ CROW_LADDER_PASSCODE: ' sea shanty ' }).passcode).toBe('sea shanty');
  // Beyond the computer it answers to its addresses, and still to no other name.
  for (const address of addressesOf('0.0.0.0')) expect(hostNames('0.0.0.0')).toContain(address);
  expect(hostNames('0.0.0.0')).not.toContain('galley');
});
