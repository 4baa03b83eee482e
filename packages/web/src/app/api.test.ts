/** @jest-environment ./packages/web/test/environment.mjs */
import { DEFAULT_INSTRUMENT } from '@crow-ladder/core';
import { CHART, handNetwork, refusal, storeOf } from '../../test/world.tsx';
import { server, serverCharts } from './api.ts';
import { cameIn } from './standing.ts';
import { UNREACHABLE } from './trouble.ts';

const { name, tags, notes, state } = CHART;
const draft = { name, tags, notes, state };
/** A store on a server that answers the first so many times as said, and then does what it is asked. */
function lossy(...answers: readonly (ReturnType<typeof refusal> | 'lost')[]) {
  const left = [...answers];
  const network = handNetwork(() => left.shift() ?? { body: {} });
  const keys = () => network.asked.map((a) => a.headers.get('idempotency-key'));
  return { network, keys, store: storeOf({ network }) };
}

test('a copy whose answer was lost is asked for again under its key, until it is answered', async () => {
  const { store, keys } = lossy('lost', 'lost');
  const copy = () => store.dispatch(server.endpoints.createChart.initiate(draft));
  expect(await copy()).toMatchObject({ error: { code: UNREACHABLE } });
  await copy();
  await copy();
  await copy();
  const [first, second, third, fourth] = keys();
  expect(first).toMatch(/^[\w-]{8,}$/);
  expect([second, third]).toEqual([first, first]);
  expect(fourth).not.toBe(first);
});

test('another thing has another key, and what the server refused is asked for anew', async () => {
  const { store, keys } = lossy('lost', 'lost', refusal(507, 'disk-full'));
  const make = (frets: number) =>
    store.dispatch(server.endpoints.createInstrument.initiate({ ...DEFAULT_INSTRUMENT, frets }));
  await make(22);
  await make(24);
  expect(await make(22)).toMatchObject({ error: { code: 'disk-full', message: 'Refused: disk-full.' } });
  await make(22);
  const [first, second, third, fourth] = keys();
  expect(second).not.toBe(first);
  expect(third).toBe(first);
  expect(fourth).not.toBe(first);
});

test('reading, settings and deletions have no key', async () => {
  const { store, keys } = lossy();
  await store.dispatch(server.endpoints.instruments.initiate());
  await store.dispatch(server.endpoints.changeSettings.initiate({ from: {}, to: {} }));
  await store.dispatch(server.endpoints.remove.initiate({ kind: 'chart', id: 'one', revision: 1 }));
  expect(keys()).toEqual([null, null, null]);
});

test('a shape that is said to be known is sent alone, whatever was read before', async () => {
  const { store, network } = lossy();
  for (const known of [true, false])
    await store.dispatch(server.endpoints.setKnown.initiate({ shape: 'dorian 5:0 2', known }));
  expect(network.asked.map((a) => [a.method, a.path, a.body])).toEqual([
    ['POST', '/known', { shape: 'dorian 5:0 2' }],
    ['DELETE', '/known', { shape: 'dorian 5:0 2' }],
  ]);
});

test('the charts of the server are made and changed by id and revision, without a key, and on leaving outlive the page', async () => {
  const { store, network, keys } = lossy();
  let outlives: (boolean | undefined)[] = [];
  const { fetch } = network;
  const charts = serverCharts(network)(store.dispatch);
  Object.assign(network, {
    fetch: (...asked: Parameters<typeof fetch>) => {
      outlives = [...outlives, (asked[0] as Request).keepalive];
      return fetch(...asked);
    },
  });
  await charts.put('two', { ...draft, revision: 0 });
  await charts.put('one', { ...draft, revision: 4 }, { leaving: true });
  expect(network.asked.map((a) => [a.method, a.path, a.body])).toEqual([
    ['PUT', '/charts/two', { ...draft, revision: 0 }],
    ['PUT', '/charts/one', { ...draft, revision: 4 }],
  ]);
  expect(keys()).toEqual([null, null]);
  expect(outlives).toEqual([false, true]);
  expect(await charts.isThere()).toBe(true);
  const away = handNetwork(() => 'lost');
  expect(await serverCharts(away)(store.dispatch).isThere()).toBe(false);
});

test('what is refused is given with its code, and what stands there now', async () => {
  const { store } = lossy(refusal(409, 'conflict', { current: CHART }), refusal(401, 'locked'));
  const change = () =>
    store.dispatch(server.endpoints.changeChart.initiate({ id: 'one', change: { ...draft, revision: 1 } }));
  expect(await change()).toMatchObject({ error: { code: 'conflict', current: CHART } });
  expect(store.getState().standing.locked).toBe(false);
  await change();
  expect(store.getState().standing.locked).toBe(true);
});

test('a server of another version than the first one is told, once and for good', async () => {
  let version = 'one';
  const network = handNetwork(() => ({ body: [] }));
  const store = storeOf({
    network: {
      ...network,
      fetch: async (...asked) => {
        const answer = await network.fetch(...asked);
        answer.headers.set('crow-ladder-version', version);
        return answer;
      },
    },
  });
  const ask = () => store.dispatch(server.endpoints.known.initiate(undefined, { forceRefetch: true }));
  const outdated: boolean[] = [];
  for (const next of ['one', 'one', 'two', 'one']) {
    version = next;
    await ask();
    outdated.push(store.getState().standing.outdated);
  }
  expect(outdated).toEqual([false, false, true, true]);
});

test('what was sent before the passcode was given and is refused after it is asked once more, and locks nothing', async () => {
  let answer: (it: ReturnType<typeof refusal>) => void = () => undefined;
  const late = new Promise<ReturnType<typeof refusal>>((done) => (answer = done));
  let times = 0;
  const network = handNetwork(() => (times++ ? { body: [] } : late));
  const store = storeOf({ network });
  const asked = store.dispatch(server.endpoints.instruments.initiate());
  store.dispatch(cameIn());
  answer(refusal(401, 'locked'));
  expect(await asked).toMatchObject({ data: [] });
  expect([times, store.getState().standing.locked]).toEqual([2, false]);
  // Where nobody came in meanwhile, it locks.
  const shut = storeOf({ network: handNetwork(() => refusal(401, 'locked')) });
  await shut.dispatch(server.endpoints.instruments.initiate());
  expect(shut.getState().standing.locked).toBe(true);
});
