import {
  type Chart,
  type ChartChange,
  type ChartDraft,
  DEFAULT_SETTINGS,
  FIRST_STATE,
} from '@crow-ladder/contract';
import fc from 'fast-check';
import { drawn } from '../../../../scripts/thorough.ts';
import { handBrowser } from '../../test/browser.ts';
import { storeOf } from '../../test/world.tsx';
import { serverCharts } from '../app/api.ts';
import { tabLock } from '../app/outbox.ts';
import { type Clock } from '../ports/clock.ts';
import { type Network, type Outside } from '../ports/outside.ts';
import { held } from './held.ts';
import { live } from './living.ts';
import { drafts } from './left.ts';
import { begin, openChart } from './opening.ts';
import { keepAsChart, nameOfMine, saveSession } from './saving.ts';
import {
  allSessions,
  changed,
  dropped,
  entered,
  keptMine,
  left,
  named,
  redone,
  sessionOf,
  tookTheirs,
  undone,
} from './sessions.ts';

/** Lets everything go on that waits for nothing but its turn. */
async function turns(many = 8): Promise<void> {
  for (let i = 0; i < many; i++) await new Promise((done) => setImmediate(done));
}

/** Marks that say of a text which changes are in it: each change of a chart puts one in, with the chart that it began with. */
const marksIn = (text: string): readonly string[] => text.split(' ').filter(Boolean);
const rootOf = (mark: string): string => mark.split(':')[0]!;

type Fault = 'none' | 'away' | 'lost' | 'late' | 'never';

/** A server of one library, as the real one keeps charts: by revision, made once, of no other library. */
function aServer() {
  let charts = new Map<string, Chart>();
  let library = 'first';
  let snapshot = new Map<string, Chart>();
  const refused = (status: number, code: string, current?: Chart) => ({
    status,
    body: { error: { code, message: code }, ...(current ? { current } : {}) },
  });
  const put = (id: string, { revision, ...draft }: ChartChange, meant: string | null) => {
    if (meant !== null && meant !== library) return refused(409, 'other-library');
    const is = charts.get(id);
    if (!is && revision > 0) return refused(404, 'not-found');
    const made = is?.revision === revision + 1 && held(is) === held(draft);
    if (is && is.revision !== revision && !made) return refused(409, 'conflict', is);
    const stamp = '2026-06-01T20:00:00.000Z';
    const chart: Chart = made
      ? is
      : { ...draft, id, revision: revision + 1, createdAt: stamp, updatedAt: stamp };
    charts.set(id, chart);
    return { status: 200, body: chart };
  };
  return {
    library: () => library,
    charts: (): readonly Chart[] => [...charts.values()],
    answer: (method: string, path: string, body: unknown, meant: string | null) => {
      const [, kind, id = '', look] = path.split('/');
      if (kind !== 'charts' || !id) return { status: 200, body: kind === 'settings' ? DEFAULT_SETTINGS : {} };
      if (look) return { status: 200, body: {} };
      if (method === 'PUT') return put(id, body as ChartChange, meant);
      const is = charts.get(id);
      return is ? { status: 200, body: is } : refused(404, 'not-found');
    },
    remember: () => (snapshot = new Map(charts)),
    /** Brings back what was remembered, as another library. Gives the marks that go with it. */
    restore: (): readonly string[] => {
      const before = [...charts.values()].flatMap((c) => marksIn(c.notes));
      charts = new Map(
        [...snapshot].map(([id, c]) => [
          id,
          { ...c, revision: (charts.get(id)?.revision ?? c.revision) + 1 },
        ]),
      );
      library = `${library}+`;
      const now = new Set([...charts.values()].flatMap((c) => marksIn(c.notes)));
      return before.filter((mark) => !now.has(mark));
    },
  };
}

/** Tabs of one browser on one server, walked at random. */
function aWorld(many: number) {
  const server = aServer();
  const browser = handBrowser();
  let now = Date.UTC(2026, 5, 1, 20);
  const due = new Set<{ readonly at: number; readonly work: () => void }>();
  const after = (ms: number, work: () => void): (() => void) => {
    const it = { at: now + ms, work };
    due.add(it);
    return () => void due.delete(it);
  };
  const advance = async (ms: number): Promise<void> => {
    const end = now + ms;
    for (;;) {
      await turns();
      const next = [...due].sort((a, b) => a.at - b.at)[0];
      if (!next || next.at > end) break;
      due.delete(next);
      now = Math.max(now, next.at);
      next.work();
    }
    now = end;
    await turns();
  };
  let fault: Fault = 'none';
  let nth = 0;
  let marks = 0;
  /** Marks that the player gave up knowingly, or that went with a library. */
  const excused = new Set<string>();
  const made: string[] = [];
  /** Marks that were made on another library and are not to be on this one, unless the player keeps them. */
  const apart = new Set<string>();
  /** Charts that were begun. */
  const ids = new Set<string>();

  const openTab = async () => {
    const tab = `tab-${nth++}`;
    const given = browser.tab(tab);
    let alive = true;
    const clock: Clock = { now: () => now, after: (ms, work) => after(ms, () => alive && work()) };
    const network: Network = {
      base: 'http://page.test/api',
      fetch: (input, init) =>
        new Promise<Response>((answers, fails) => {
          const request = new Request(input, init);
          const { pathname } = new URL(request.url);
          const how = fault;
          const meant = request.headers.get('crow-ladder-library');
          void request.text().then((text) => {
            const lose = (): void => fails(new TypeError('Failed to fetch'));
            const arrive = () =>
              server.answer(
                request.method,
                pathname.replace('/api', ''),
                text ? JSON.parse(text) : null,
                meant,
              );
            const give = ({ status, body }: ReturnType<typeof arrive>): void => {
              if (!alive) return;
              const headers = { 'content-type': 'application/json', 'crow-ladder-library': server.library() };
              answers(new Response(JSON.stringify(body), { status, headers }));
            };
            if (how === 'away') return void after(5, () => alive && lose());
            // It arrives and is answered, and nobody hears; it arrives long after, whoever sent it is there or not.
            if (how === 'lost') return void after(5, () => (arrive(), alive && lose()));
            if (how === 'late') return void after(4000, () => give(arrive()));
            if (how === 'never') return void after(9000, () => (arrive(), alive && lose()));
            after(5, () => give(arrive()));
          });
        }),
    };
    const outside: Outside = {
      ...given,
      clock,
      network,
      charts: serverCharts(network),
      keeping: { getItem: () => server.library(), setItem: () => undefined },
    };
    const letGo = await given.locks.hold(tabLock(tab));
    const store = storeOf(outside);
    void live(store, outside);
    let front: string | null = null;
    const enter = (id: string | null): void => {
      if (front !== null) store.dispatch(left(front));
      front = id;
      if (id !== null) store.dispatch(entered(id));
    };
    return {
      store,
      front: () => front,
      enter,
      session: () => (front === null ? undefined : sessionOf(store.getState(), front)),
      close: (): void => {
        alive = false;
        letGo();
        given.channel.tell({ is: 'gone' });
        browser.close(tab);
      },
    };
  };
  type Tab = Awaited<ReturnType<typeof openTab>>;
  const tabs: Tab[] = [];

  const excuse = (gone: readonly string[], stay: readonly string[]): void => {
    for (const mark of gone) if (!stay.includes(mark)) excused.add(mark);
  };
  const step = async ([kind, which, a]: Step): Promise<void> => {
    const tab = tabs[which % tabs.length]!;
    const { store, session } = tab;
    const it = session();
    const known = [...new Set([...server.charts().map((c) => c.id), ...ids])].sort();
    switch (kind) {
      case 'type': {
        if (!it) return;
        // A copy that was kept beside another one began with the same chart.
        const [first = it.id] = marksIn(it.draft.notes);
        const mark = `${rootOf(first)}:${marks++}`;
        made.push(mark);
        const notes = `${it.draft.notes} ${mark}`.trim();
        const state = a % 2 ? { state: { ...it.draft.state, at: { string: 6, fret: a % 12 } } } : {};
        return void store.dispatch(changed({ id: it.id, part: { notes, ...state } }));
      }
      case 'look':
        if (it)
          store.dispatch(
            changed({
              id: it.id,
              part: { state: { ...it.draft.state, front: { start: 0, low: a % 12, nth: 0 } } },
            }),
          );
        return;
      case 'rename':
        return void (
          it &&
          it.draft.name &&
          store.dispatch(changed({ id: it.id, part: { name: `name ${a}` } }))
        );
      case 'undo':
      case 'redo': {
        if (!it) return;
        store.dispatch(kind === 'undo' ? undone(it.id) : redone(it.id));
        const after = session()!;
        const [was, is] = [marksIn(it.draft.notes), marksIn(after.draft.notes)];
        excuse(was, is);
        for (const mark of is) if (!was.includes(mark)) excused.delete(mark);
        return;
      }
      case 'new': {
        const id = store.dispatch(begin({ name: '', tags: [], notes: '', state: FIRST_STATE }));
        ids.add(id);
        return tab.enter(id);
      }
      case 'newFrom': {
        if (!it) return;
        const id = store.dispatch(begin(it.draft, { touched: true }));
        for (const mark of marksIn(it.draft.notes)) apart.delete(mark);
        ids.add(id);
        return tab.enter(id);
      }
      case 'save':
        if (!it) return;
        if (!it.draft.name) store.dispatch(named({ id: it.id, name: `chart ${a}` }));
        return void store.dispatch(saveSession(it.id));
      case 'open':
      case 'addressOfBefore': {
        const id = known[a % Math.max(1, known.length)];
        if (id === undefined) return;
        const front = { start: 0, low: a % 5, nth: 0 };
        const opening = store.dispatch(openChart(id, kind === 'open' ? {} : { front }));
        await advance(40);
        if (!sessionOf(store.getState(), id)) return void opening.catch(() => undefined);
        return tab.enter(id);
      }
      case 'leave':
        return tab.enter(null);
      case 'reload':
      case 'close': {
        const id = tab.front();
        tab.close();
        const next = await openTab();
        tabs[which % tabs.length] = next;
        if (kind === 'close' || id === null) return;
        void next.store.dispatch(openChart(id));
        await advance(40);
        if (sessionOf(next.store.getState(), id)) next.enter(id);
        return;
      }
      case 'fault':
        return void (fault = FAULTS[a % FAULTS.length]!);
      case 'remember':
        return void server.remember();
      case 'restore':
        for (const mark of server.restore()) excused.add(mark);
        for (const { kept, draft } of browser.works())
          if (!kept && draft.name) for (const mark of marksIn(draft.notes)) apart.add(mark);
        // What a draft holds as well may be saved with it: it was on no library yet.
        const free = [...server.charts(), ...browser.works().flatMap((w) => (w.draft.name ? [] : [w.draft]))];
        for (const { notes } of free) for (const mark of marksIn(notes)) apart.delete(mark);
        return;
      case 'both': {
        if (it?.save !== 'conflict' && it?.save !== 'apart') return;
        const id = store.dispatch(keepAsChart({ ...it.draft, name: nameOfMine(it.draft.name) }));
        ids.add(id);
        for (const mark of marksIn(it.draft.notes)) apart.delete(mark);
        tab.enter(id);
        return void store.dispatch(dropped([it.id]));
      }
      case 'mine':
        if (it?.save !== 'conflict' || !it.theirs) return;
        excuse(marksIn(it.theirs.notes), marksIn(it.draft.notes));
        return void store.dispatch(keptMine(it.id));
      case 'theirs':
        if (it?.save !== 'conflict' || !it.theirs) return;
        excuse(marksIn(it.draft.notes), marksIn(it.theirs.notes));
        return void store.dispatch(tookTheirs(it.id));
      case 'wait':
        return advance([20, 300, 800, 4000][a % 4]!);
    }
  };

  /** Walks, then brings the server back, closes everything, opens it again, and says what is not where it should be. */
  const walk = async (steps: readonly Step[]) => {
    for (let i = 0; i < many; i++) tabs.push(await openTab());
    await advance(20);
    for (const it of steps) {
      await step(it);
      await turns(2);
    }
    fault = 'none';
    for (const tab of tabs.splice(0)) tab.close();
    await advance(20_000);
    const last = await openTab();
    await advance(200_000);
    const everything: readonly ChartDraft[] = [
      ...server.charts(),
      ...browser.works().map((w) => w.draft),
      ...allSessions(last.store.getState()).map((s) => s.draft),
    ];
    const there = new Set(everything.flatMap((c) => marksIn(c.notes)));
    const lost = made.filter((mark) => !there.has(mark) && !excused.has(mark));
    const mixed = everything
      .filter((c) => new Set(marksIn(c.notes).map(rootOf)).size > 1)
      .map((c) => c.notes);
    // What is on no server is where a player finds it: a draft, a conflict, or made on another library.
    const saved = new Set(server.charts().flatMap((c) => marksIn(c.notes)));
    const found = new Set(
      [
        ...(await last.store.dispatch(drafts())).map((d) => d.draft),
        ...allSessions(last.store.getState()).flatMap((s) => (s.save === 'saved' ? [] : [s.draft])),
        ...last.store.getState().outbox.apart.map((w) => w.draft),
      ].flatMap((d) => marksIn(d.notes)),
    );
    const hidden = made.filter((mark) => !saved.has(mark) && !found.has(mark) && !excused.has(mark));
    const blindly = [...apart].filter((mark) => saved.has(mark));
    const conflicts = allSessions(last.store.getState()).filter((s) => s.save === 'conflict').length;
    return {
      lost,
      mixed,
      hidden,
      blindly,
      conflicts,
      made: made.length,
      saved: made.filter((m) => saved.has(m)).length,
    };
  };
  return { walk };
}

/** A chart that is saved and open in both tabs. */
const BEGINNING = [
  ['new', 0, 0],
  ['type', 0, 0],
  ['save', 0, 0],
  ['wait', 0, 2],
  ['open', 1, 0],
] as const satisfies readonly Step[];
const FAULTS = ['none', 'none', 'away', 'lost', 'late', 'never'] as const satisfies readonly Fault[];
const KINDS = [
  ...Array.from({ length: 14 }, () => 'type' as const),
  ...['look', 'rename', 'undo', 'redo', 'new', 'newFrom', 'save', 'save', 'save'],
  ...['open', 'open', 'open', 'addressOfBefore', 'leave', 'reload', 'reload', 'close', 'fault', 'fault'],
  ...['remember', 'restore', 'both', 'mine', 'theirs', 'wait', 'wait', 'wait', 'wait'],
] as const;
type Kind =
  | ('type' | 'look' | 'rename' | 'undo' | 'redo' | 'new' | 'newFrom' | 'save' | 'open' | 'addressOfBefore')
  | ('leave' | 'reload' | 'close' | 'fault' | 'remember' | 'restore' | 'both' | 'mine' | 'theirs' | 'wait');
type Step = readonly [kind: Kind, tab: number, a: number];

const stepsOf = (kinds: readonly Kind[]) =>
  fc.array(fc.tuple(fc.constantFrom(...kinds), fc.nat(1), fc.nat(50)), {
    minLength: 20,
    maxLength: 60,
    size: 'max',
  });

test('whatever two tabs do, no change is lost, taken over unseen, mixed up with another chart’s, or sent to another library', async () => {
  const seen = { made: 0, saved: 0, walks: 0 };
  await fc.assert(
    fc.asyncProperty(stepsOf(KINDS), async (steps) => {
      const end = await aWorld(2).walk([...BEGINNING, ...steps]);
      seen.walks++;
      seen.made += end.made;
      seen.saved += end.saved;
      expect(end).toMatchObject({ lost: [], mixed: [], hidden: [], blindly: [] });
    }),
    { numRuns: drawn(2000), seed: 20_261_127, endOnFailure: true },
  );
  // The walks met what they are about.
  expect(seen.made / seen.walks).toBeGreaterThan(3);
  expect(seen.saved / seen.walks).toBeGreaterThan(1);
});

test('a tab alone is never in conflict with itself, whatever becomes of its requests', async () => {
  const alone = KINDS.filter((kind) => kind !== 'restore' && kind !== 'remember');
  await fc.assert(
    fc.asyncProperty(stepsOf(alone), async (steps) => {
      const end = await aWorld(1).walk([...BEGINNING, ...steps]);
      expect(end).toMatchObject({ lost: [], mixed: [], hidden: [], conflicts: 0 });
    }),
    { numRuns: drawn(500), seed: 20_261_127 },
  );
});
