import { openDatabase } from './database.ts';
import { clearDemoLog } from './demo.ts';
import { addRound, eachRound } from './practice.ts';
import { CHART_COLUMNS, eachRow } from './rows.ts';

test('all charts and all rounds come once each and in order, in pieces; what is in the bin does not', async () => {
  const { db } = await openDatabase(':memory:');
  try {
    await clearDemoLog(db);
    const row = (await db('charts').first())!;
    const ids = Array.from({ length: 250 }, (_, i) => `z-${String(i).padStart(3, '0')}`);
    for (const id of ids) await db('charts').insert({ ...row, id });
    await db('charts').where({ id: 'z-007' }).update({ deleted_at: '2026-06-01T20:00:00.000Z' });
    const all: string[] = [];
    let pieces = 0;
    for await (const rows of eachRow(db)) {
      pieces++;
      all.push(...rows.map((r) => r.id));
      expect(Object.keys(rows[0]!).sort()).toEqual([...CHART_COLUMNS].sort());
    }
    expect(all.filter((id) => id.startsWith('z-'))).toEqual(ids.filter((id) => id !== 'z-007'));
    expect([pieces > 2, new Set(all).size]).toEqual([true, all.length]);

    const round = {
      drill: 'up',
      shape: 'box',
      name: 'Box',
      perBeat: 2,
      tempo: 90,
      at: '2026-06-01T20:00:00Z',
      day: '2026-06-01',
      ms: 61_234,
      note: 'with the drummer',
    };
    const on = { chart: 'c', chartName: 'Bow', root: 'F#', scale: 'dorian', start: 4, back: 'root=F%23' };
    const kept = [true, false, null].map((clean, i) => ({
      ...round,
      id: `r${i}`,
      clean,
      on: i ? on : null,
    }));
    for (const it of kept) await addRound(it, db);
    const rounds: unknown[] = [];
    for await (const some of eachRound(db)) rounds.push(...some);
    expect(rounds).toEqual(kept);
  } finally {
    await db.destroy();
  }
});
