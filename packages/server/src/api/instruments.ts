import { type InstrumentChange } from '@crow-ladder/contract';
import { instrumentChangeSchema, instrumentSchema, validate } from '@crow-ladder/contract/schemas';
import { type Instrument } from '@crow-ladder/core';
import { Hono } from 'hono';
import { type Library } from '../library.ts';
import { body, conflict, found, idOf, keyOf } from './reading.ts';

/** The player's own instruments. */
export function instrumentsOn(library: Library): Hono {
  const api = new Hono();
  api.get('/instruments', async (c) => c.json(await library.instruments()));
  api.post('/instruments', async (c) => {
    const instrument = await body(c, (data) => validate<Instrument>(instrumentSchema, data));
    return c.json(await library.createInstrument(instrument, await keyOf(c)), 201);
  });
  api.put('/instruments/:id', async (c) => {
    const id = idOf(c);
    const { instrument, revision } = await body(c, (data) =>
      validate<InstrumentChange>(instrumentChangeSchema, data),
    );
    const changed = await library.changeInstrument(id, instrument, revision, await keyOf(c));
    if (!changed)
      throw conflict('instrument', 'opened', found(await library.readInstrument(id), 'instrument'));
    return c.json(changed);
  });
  return api;
}
