import { type Instrument, list, midiName, pretty, TUNINGS, tuningSaid } from '@crow-ladder/core';
import { MOST_RAISED, retuning, type StringTension } from '@crow-ladder/core/moves';
import { server } from '../../app/api.ts';
import { type PanelProps } from '../../task/task.ts';
import { Word } from '../../ui/Word.tsx';
import { type MoveParams } from './params.ts';
import { TargetField } from './TargetField.tsx';
import { targetOf } from './target.ts';
import { Wide } from '../../ui/Wide.tsx';

const NONE: readonly never[] = [];
const byString = (tuning: readonly number[]): readonly number[] => [...tuning].reverse();
const percent = (share: number): string =>
  `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(100 * share).toFixed(1)} %`;

const CAUTIONS: Readonly<Record<NonNullable<StringTension['caution']>, string>> = {
  high: 'may break, or strain the neck',
  slack: 'so slack that it rattles',
};

/** The usual tuning of so many strings: the first of the table, else the present one. */
const usualOf = ({ tuning }: Instrument): readonly number[] =>
  TUNINGS.find((t) => t.tuning.length === tuning.length)?.tuning ?? tuning;

/** What it is retuned to, and what the set was made for. */
export function TensionWords({ model, params, onParams }: PanelProps<MoveParams>) {
  const own = server.useInstrumentsQuery().data ?? NONE;
  const { state, accidentals } = model;
  const { instrument } = state;
  const named = (word: string | null, none: string): string =>
    targetOf(word, instrument, own)?.instrument.name ?? none;
  const usual = `the usual tuning, ${tuningSaid(usualOf(instrument), accidentals)}`;
  return (
    <>
      {' '}
      retuned to{' '}
      <Word
        name="Retune to"
        then=", with strings for"
        body={
          <TargetField
            label="Retune to"
            value={params.to}
            on={instrument}
            own={own}
            none="as it is now"
            onValue={(next) => onParams({ ...params, to: next })}
          />
        }
      >
        {named(params.to, 'what it is now')}
      </Word>{' '}
      <Word
        name="The set was made for"
        then="."
        body={
          <TargetField
            label="The set was made for"
            value={params.madeFor}
            on={instrument}
            own={own}
            none={usual}
            onValue={(next) => onParams({ ...params, madeFor: next })}
          />
        }
      >
        {named(params.madeFor, 'the usual tuning')}
      </Word>
    </>
  );
}

/** What retuning does to the strings: the change of tension, the order, the cautions. */
export function Tension({ model, params }: PanelProps<MoveParams>) {
  const own = server.useInstrumentsQuery().data ?? NONE;
  const { state, accidentals } = model;
  const { instrument } = state;
  const many = instrument.tuning.length;
  const to = targetOf(params.to, instrument, own)?.instrument.tuning ?? instrument.tuning;
  const madeFor = targetOf(params.madeFor, instrument, own)?.instrument.tuning ?? usualOf(instrument);
  const odd =
    to.length !== many ? 'tuning to go to' : madeFor.length !== many ? 'tuning the set was made for' : null;
  const it = odd ? null : retuning(byString(instrument.tuning), byString(to), byString(madeFor));
  const name = (midi: number): string => pretty(midiName(midi, accidentals));
  const high = it?.strings.filter((s) => s.caution === 'high') ?? [];
  return (
    <>
      {!it ? (
        <p className="error">
          The {odd} has another number of strings than this instrument, which has {many}: choose one with{' '}
          {many}.
        </p>
      ) : (
        <div className="flex flex-col gap-3">
          <Wide name="Tension">
            <table className="listing" aria-label="Tension string by string">
              <thead>
                <tr>
                  <th scope="col">String</th>
                  <th scope="col">Now</th>
                  <th scope="col">Then</th>
                  <th scope="col">Made for</th>
                  <th scope="col">Tension against that</th>
                </tr>
              </thead>
              <tbody>
                {it.strings.map((s) => (
                  <tr key={s.string}>
                    <th scope="row">{s.string}</th>
                    <td>{name(s.from)}</td>
                    <td>{name(s.to)}</td>
                    <td>{name(s.madeFor)}</td>
                    <td>
                      {percent(s.change)}
                      {s.caution && <span className="error ml-2">{CAUTIONS[s.caution]}</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Wide>
          <p className="text-sm text-soft">
            Tension goes with the square of the frequency; every string is taken to pull alike in the tuning
            that the set was made for.
          </p>
          {it.order.length > 1 && (
            <p>
              Retune in this order, so that the neck’s pull changes least at once:{' '}
              {list(it.order.map((s) => `string ${s}`))}. On the way it changes by at most{' '}
              {percent(it.most).replace('+', '')} of one string’s tension.
            </p>
          )}
          {high.length > 0 && (
            <p className="error">
              More than {MOST_RAISED} half steps above what the set was made for can break a string or strain
              the neck: use lighter strings there, and ask a luthier. Protect your eyes when you change
              strings.
            </p>
          )}
        </div>
      )}
    </>
  );
}
