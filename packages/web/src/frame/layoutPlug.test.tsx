/** @jest-environment jsdom */
import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { readDocument } from '@crow-ladder/contract/schemas';
import { ok, spotsOf } from '@crow-ladder/core';
import { defineLayout, layoutName, LAYOUTS } from '@crow-ladder/core/layouts';
import { layersOf, svgText } from '@crow-ladder/picture';
import { fireEvent, render, screen, within } from '@testing-library/react';
import { stateFromQuery } from '../model/address.ts';
import { stateToQuery } from '../model/addressWords.ts';
import { figureOf, lookOf } from '../model/figure.ts';
import { marksOf } from '../model/marks.ts';
import { modelOf } from '../model/model.ts';
import { type Change } from '../model/moves.ts';
import { LayoutPart } from './sentence/LayoutPart.tsx';

// A layout that exists nowhere else: with this one value it has a schema, a word in the address, a form, a phrase in the
// sentence and a place on the neck.
const harbour = defineLayout<{ readonly berths: number; readonly side: 'quay' | 'water' }>({
  kind: 'harbour',
  name: 'harbour',
  rule: 'So many frets of every string, from the quay or from the water.',
  complete: false,
  options: {
    berths: { type: 'whole', min: 2, max: 5, label: 'Berths' },
    side: {
      type: 'choice',
      label: 'Side',
      values: [
        { id: 'quay', name: 'from the quay' },
        { id: 'water', name: 'from the water' },
      ],
    },
  },
  place: (neck, key, { berths, side }) => {
    const from = side === 'quay' ? 0 : neck.frets - berths;
    return ok([{ spots: spotsOf(neck, key).filter((s) => s.fret >= from && s.fret <= from + berths) }]);
  },
  usual: () => ({ berths: 3, side: 'quay' }),
  said: ({ berths, side }) => `${berths} berths ${side === 'quay' ? 'from the quay' : 'from the water'}`,
});
LAYOUTS.register(harbour);

const state: ChartState = { ...FIRST_STATE, layout: { kind: 'harbour', berths: 4, side: 'water' } };

test('schema: what its options allow is read, all else is refused by its field', () => {
  expect(readDocument(state)).toEqual({ ok: true, value: state });
  for (const [layout, field] of [
    [{ ...state.layout, berths: 9 }, 'layout.berths'],
    [{ ...state.layout, side: 'sky' }, 'layout.side'],
    [{ kind: 'harbour', berths: 4 }, 'layout.side'],
    [{ ...state.layout, mast: 1 }, 'layout.mast'],
  ] as const)
    expect(readDocument({ ...state, layout })).toMatchObject({ ok: false, error: { field } });
});

test('address: it comes back from its word', () => {
  const query = new URLSearchParams(stateToQuery(state).toString());
  expect(query.get('layout')).toBe('harbour.4.water');
  expect(stateFromQuery(query)).toEqual({ ok: true, value: state });
});

test('sentence: it is said', () => expect(layoutName(state.layout)).toBe('4 berths from the water'));

test('form: its fields show its options and change them', () => {
  let now = state;
  const onChange = (change: Change): void => {
    now = change(now);
  };
  const form = () => (
    <LayoutPart model={modelOf(now, DEFAULT_SETTINGS)} onChange={onChange} onDone={() => undefined} />
  );
  const { rerender } = render(form());
  const list = within(screen.getByRole('group', { name: 'Layouts' }));
  expect(list.getByRole('button', { name: /^harbour/ }).getAttribute('aria-pressed')).toBe('true');
  expect(list.getByLabelText<HTMLInputElement>('Berths').value).toBe('4');
  fireEvent.change(list.getByLabelText('Berths'), { target: { value: '2' } });
  rerender(form());
  fireEvent.change(list.getByLabelText('Side'), { target: { value: 'quay' } });
  expect(now.layout).toEqual({ kind: 'harbour', berths: 2, side: 'quay' });
  rerender(form());
  fireEvent.change(list.getByLabelText('Berths'), { target: { value: '9' } });
  expect(list.getByText('A whole number from 2 to 5.')).toBeTruthy();
  expect(now.layout['berths']).toBe(2);
});

test('neck: its position is in front', () => {
  const model = modelOf(state, DEFAULT_SETTINGS);
  const look = lookOf(state.instrument, DEFAULT_SETTINGS, null, false);
  const marks = marksOf(model, { labels: 'degree', rootsOnly: false, colours: 'plain' });
  const svg = svgText(
    { figure: figureOf(state.instrument, model.accidentals, look), layers: layersOf({ marks }) },
    { title: 'Harbour', css: '', values: {} },
  );
  const root = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement;
  const front = [...root.querySelectorAll('.mark-root, .mark-note')].map((g) =>
    g.getAttribute('aria-label')!,
  );
  expect(front.length).toBeGreaterThan(6);
  for (const name of front) expect(name).toMatch(/fret (18|19|20|21|22):/);
});
