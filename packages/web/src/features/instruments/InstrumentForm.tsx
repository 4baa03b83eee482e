import { CHART_LIMITS, DEFAULT_SETTINGS, type KeptInstrument } from '@crow-ladder/contract';
import { instrumentSchema, nameOf } from '@crow-ladder/contract/schemas';
import {
  checkInstrument,
  crossings,
  DEFAULT_INSTRUMENT,
  type Instrument,
  instrumentOf,
  intervalName,
  type Key,
  LIMITS,
  midiName,
  neckOf,
  note,
  pretty,
  readTuning,
  scaleById,
  spotsOf,
  tuningById,
  tuningNamed,
  TUNINGS,
  tuningText,
} from '@crow-ladder/core';
import { layersOf, type Mark } from '@crow-ladder/picture';
import { yupResolver } from '@hookform/resolvers/yup';
import { useMemo, useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import { number, type NumberSchema, object, string } from 'yup';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/state.ts';
import { figureOf, lookOf } from '../../model/figure.ts';
import { spotNamed } from '../../model/wording.ts';
import { nameOfMine } from '../../sessions/saving.ts';
import { Conflict } from '../../ui/Conflict.tsx';
import { Choice, Field } from '../../ui/fields.tsx';
import { HANDS } from '../../ui/labels.ts';
import { Drawing } from '../../ui/neck/Drawing.tsx';
import { still } from '../../ui/neck/source.ts';
import { useNarrow } from '../../ui/useNarrow.ts';

interface FormValues {
  name: string;
  strings: string;
  frets: number;
  scaleLength: number;
  capo: number;
  wound: number;
  handed: 'right' | 'left';
}

/** What strings without octaves are compared with. */
const STANDARD = DEFAULT_INSTRUMENT.tuning;

const whole = (what: string) =>
  number()
    .typeError(`${what} is a number.`)
    .integer(`${what} is a whole number.`)
    .required(`${what} is missing.`);
/** One number of the form against the bounds of an instrument, whatever stands in the other fields. */
const bounded = <S extends NumberSchema>(field: 'frets' | 'scaleLength' | 'wound', schema: S): S =>
  schema.test('bounds', (value, c) => {
    const most = { ...DEFAULT_INSTRUMENT, tuning: Array<number>(LIMITS.strings[1]).fill(40) };
    const checked = checkInstrument({ ...most, [field]: value ?? 0 });
    return checked.ok || c.createError({ message: checked.error.message });
  }) as S;
const formSchema = object({
  name: nameOf('The name', 'Give the instrument a name.', CHART_LIMITS.name).trim(),
  strings: string()
    .required('Write the strings, lowest first.')
    .test('tuning', (v, c) => {
      const read = readTuning(v ?? '', STANDARD);
      return read.ok || c.createError({ message: read.error.message });
    }),
  frets: bounded('frets', whole('The number of frets')),
  scaleLength: bounded(
    'scaleLength',
    number().typeError('The scale length is a number of mm.').required('The scale length is missing.'),
  ),
  capo: whole('The capo'),
  wound: bounded('wound', whole('The number of wound strings')),
  handed: string()
    .oneOf(['right', 'left'] as const)
    .required(),
}).test('instrument', (v, c) => {
  const read = readTuning(v.strings, STANDARD);
  if (!read.ok) return true;
  const checked = checkInstrument({ ...v, tuning: read.value.tuning });
  if (checked.ok) return true;
  const field = checked.error.code.split('.')[1]!;
  return c.createError({ path: field === 'tuning' ? 'strings' : field, message: checked.error.message });
});

function toInstrument(v: FormValues): Instrument | null {
  const read = readTuning(v.strings ?? '', STANDARD);
  if (!read.ok) return null;
  const { name, frets, scaleLength, capo, wound, handed } = v;
  const checked = checkInstrument({
    name,
    tuning: read.value.tuning,
    frets: Number(frets),
    scaleLength: Number(scaleLength),
    capo: Number(capo),
    wound: Number(wound),
    handed,
  });
  return checked.ok && instrumentSchema.isValidSync({ ...checked.value, name: name || 'x' })
    ? checked.value
    : null;
}
const NATURALS: Key = { root: note('C'), scale: scaleById('major')! };
const toForm = (it: Instrument): FormValues => ({ ...it, strings: tuningText(it.tuning) });

/** The natural notes of a neck: they show at a glance whether a tuning is the one that was meant. */
const naturals = (it: Instrument): readonly Mark[] =>
  spotsOf(neckOf(it), NATURALS).map(({ string, fret, midi }) => {
    const label = midiName(midi).replace(/-?\d+$/, '');
    return {
      string,
      fret,
      kind: 'outside',
      label,
      name: () => `${spotNamed({ string, fret })}: ${label}`,
    };
  });

/** The form of one instrument, with its neck live beside it. */
export function InstrumentForm({ kept }: { kept: KeptInstrument | null }) {
  const send = useSend();
  const navigate = useNavigate();
  const narrow = useNarrow();
  const [create] = server.useCreateInstrumentMutation();
  const [put] = server.useChangeInstrumentMutation();
  const [trouble, setTrouble] = useState<Trouble<KeptInstrument> | null>(null);
  // What the form began with: another tab may change the instrument meanwhile.
  const [opened] = useState(kept);
  const { register, handleSubmit, control, reset, getValues, setValue, formState } = useForm<FormValues>({
    defaultValues: toForm(kept?.instrument ?? { ...DEFAULT_INSTRUMENT, name: '' }),
    resolver: yupResolver(formSchema) as never,
    mode: 'onChange',
  });
  const { errors } = formState;
  const values = useWatch({ control }) as FormValues;
  const live = toInstrument(values);
  const told = live && JSON.stringify(live);
  const neck = useMemo(() => {
    if (!told) return null;
    const it = JSON.parse(told) as Instrument;
    const look = lookOf(it, { ...DEFAULT_SETTINGS, handed: 'instrument' }, null, narrow);
    return still({ figure: figureOf(it, 'sharps', look), layers: layersOf({ marks: naturals(it) }) });
  }, [told, narrow]);
  const save = async (instrument: Instrument, over: KeptInstrument | null): Promise<void> => {
    const done = over
      ? await put({ id: over.id, change: { instrument, revision: over.revision } })
      : await create(instrument);
    setTrouble((done.error as Trouble<KeptInstrument> | undefined) ?? null);
    if (done.error) return;
    send(
      said({
        text: `Saved “${instrument.name}”.${over ? ' Charts made before keep the instrument as it was.' : ''}`,
      }),
    );
    void navigate('/instruments');
  };
  const mine = (): Instrument => toInstrument(getValues())!;
  const read = readTuning(values.strings ?? '', STANDARD);
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => void handleSubmit(() => save(mine(), opened))(e)}
      aria-label={kept ? `Edit ${kept.instrument.name}` : 'New instrument'}
    >
      <div className="grid grid-cols-2 gap-4 lg:grid-cols-4">
        <div className="max-lg:col-span-2">
          <Field label="Start from">
            <Choice
              value={read.ok ? (tuningNamed(read.value.tuning)?.id ?? '') : ''}
              options={[
                { id: '', name: 'own tuning' },
                ...TUNINGS.map((t) => ({ id: t.id, name: `${t.group}: ${t.name}` })),
              ]}
              onChange={(id) => {
                const named = tuningById(id);
                if (named)
                  reset(
                    {
                      ...toForm(instrumentOf(named)),
                      name: getValues('name') || named.name,
                      handed: getValues('handed'),
                    },
                    { keepDefaultValues: true },
                  );
              }}
            />
          </Field>
        </div>
        <div className="max-lg:col-span-2">
          <Field label="Name" error={errors.name?.message}>
            <input className="input" {...register('name')} />
          </Field>
        </div>
        <div className="max-lg:col-span-2">
          <Field
            label="Strings, lowest first"
            error={errors.strings?.message}
            hint={read.ok ? `Read as ${pretty(tuningText(read.value.tuning))}.` : undefined}
          >
            <input className="input" {...register('strings')} />
          </Field>
        </div>
        <Field label="Frets" error={errors.frets?.message}>
          <input type="number" className="input" {...register('frets', { valueAsNumber: true })} />
        </Field>
        <Field label="Scale length in mm" error={errors.scaleLength?.message}>
          <input
            type="number"
            step="any"
            className="input"
            {...register('scaleLength', { valueAsNumber: true })}
          />
        </Field>
        <Field label="Capo" error={errors.capo?.message} hint="0 is none.">
          <input type="number" className="input" {...register('capo', { valueAsNumber: true })} />
        </Field>
        <Field label="Wound strings, from the lowest" error={errors.wound?.message}>
          <input type="number" className="input" {...register('wound', { valueAsNumber: true })} />
        </Field>
        <Field label="Hand">
          <Choice value={values.handed} options={HANDS} onChange={(v) => setValue('handed', v)} />
        </Field>
      </div>
      {live ? (
        <>
          <Drawing source={neck!} name="The neck of this instrument, with its natural notes" />
          <p className="text-sm text-soft">
            {crossings(live.tuning)
              .map(
                (c) =>
                  `${pretty(midiName(live.tuning[live.tuning.length - c.from]!))} to ${pretty(midiName(live.tuning[live.tuning.length - c.to]!))}: ${c.interval < 0 ? 'down a ' : ''}${intervalName(c.interval)}${c.jog ? `, jog ${c.jog > 0 ? '+' : '−'}${Math.abs(c.jog)}` : ''}`,
              )
              .join(' · ')}
          </p>
        </>
      ) : (
        <p className="text-sm text-soft">The neck is drawn once the numbers fit together.</p>
      )}
      {trouble && <p className="error">{trouble.message}</p>}
      {trouble?.current && (
        <Conflict
          what="instrument"
          onBoth={() => void save({ ...mine(), name: nameOfMine(mine().name) }, null)}
          onTheirs={() => void navigate('/instruments')}
          onMine={() => void save(mine(), trouble.current!)}
        />
      )}
      <div className="flex gap-2">
        <button type="submit" className="button button-strong">
          Save instrument
        </button>
        <Link to="/instruments" className="button">
          Cancel
        </Link>
      </div>
    </form>
  );
}
