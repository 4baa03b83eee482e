import { convertSchema } from '@sodaru/yup-to-json-schema';
import { LIMITS } from '@crow-ladder/core';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { MOST_DEGREES, type Option } from '@crow-ladder/core/kinds';
import { LAYOUTS } from '@crow-ladder/core/layouts';
import { type Schema } from 'yup';

/** JSON Schema, draft 7. */
export type JsonSchema = ReturnType<typeof convertSchema>;

type Converters = NonNullable<NonNullable<Parameters<typeof convertSchema>[1]>['converters']>;
type Described = Parameters<Converters['mixed']>[0];
interface Meta {
  readonly is?: keyof typeof BY_HAND;
  /** Things that are told by their type. */
  readonly types?: Readonly<Record<string, Schema>>;
  /** Whether what a later application keeps stands there too. */
  readonly others?: boolean;
  /** What every value of an object by names is. */
  readonly each?: Schema;
}

const wholeJson = (minimum: number, maximum: number): JsonSchema => ({ type: 'integer', minimum, maximum });
/** What an option of a layout or a climb holds. */
function optionJson(option: Option): JsonSchema {
  switch (option.type) {
    case 'whole':
      return wholeJson(option.min, option.max);
    case 'wholes':
      return {
        type: 'array',
        items: wholeJson(option.min, option.max),
        minItems: 1,
        maxItems: option.most,
      };
    case 'choice':
      return { enum: option.values.map(({ id }) => id) };
    case 'switch':
      return { type: 'boolean' };
    case 'word':
      return { type: 'string' };
    case 'altered':
      return {
        type: 'array',
        items: {
          type: 'object',
          required: ['degree', 'by'],
          properties: {
            degree: wholeJson(0, MOST_DEGREES - 1),
            by: { enum: [-1, 1] },
            string: wholeJson(1, LIMITS.strings[1]),
          },
        },
      };
  }
}
interface Kinds {
  readonly all: () => readonly {
    readonly kind: string;
    readonly options: Readonly<Record<string, Option>>;
  }[];
}
const isOptional = (option: Option): boolean => option.type === 'choice' && option.optional === true;
const kindsJson = (kinds: Kinds): JsonSchema => ({
  type: 'object',
  anyOf: kinds.all().map(({ kind, options }) => ({
    required: ['kind', ...Object.keys(options).filter((name) => !isOptional(options[name]!))],
    properties: {
      kind: { const: kind },
      ...Object.fromEntries(Object.entries(options).map(([name, it]) => [name, optionJson(it)])),
    },
    additionalProperties: false,
  })),
});
const stringsJson: JsonSchema = {
  type: 'array',
  items: wholeJson(1, LIMITS.strings[1]),
  minItems: 2,
  maxItems: 2,
};

/** What a schema that reads by a rule of its own takes, by the name that it bears. */
const BY_HAND = {
  layout: kindsJson(LAYOUTS),
  climb: kindsJson(CLIMBS),
  end: { type: 'object', required: ['at'], properties: { at: { type: 'string' } } },
  anything: {},
  fields: { type: 'object' },
  true: { const: true },
  strings: stringsJson,
} as const satisfies Readonly<Record<string, JsonSchema>>;

/** Things that are told by their type, and what is of none of these types, which a later application keeps. */
function typedJson(types: Readonly<Record<string, Schema>>, others: boolean): JsonSchema {
  const later: JsonSchema = { type: 'object', properties: { type: { not: { enum: Object.keys(types) } } } };
  return { anyOf: [...Object.values(types).map(jsonSchemaOf), ...(others ? [later] : [])] };
}

const orNull = (json: JsonSchema, nullable: boolean): JsonSchema =>
  nullable ? { anyOf: [json, { type: 'null' }] } : json;

/** A schema that is none of the plain types, by what it says of itself. */
function mixedJson(described: Described): JsonSchema {
  const { meta = {}, nullable } = described as { readonly meta?: Meta; readonly nullable: boolean };
  if (meta.types) return orNull(typedJson(meta.types, meta.others ?? false), nullable);
  if (meta.each) return { type: 'object', additionalProperties: jsonSchemaOf(meta.each) };
  if (!meta.is) throw new Error('A schema does not say what it reads.');
  return orNull(BY_HAND[meta.is], nullable);
}

interface DescribedObject {
  readonly fields: Readonly<
    Record<string, Described & { readonly type: keyof Converters; readonly optional: boolean }>
  >;
  readonly tests: readonly { readonly name?: string }[];
  readonly nullable: boolean;
}
/** Fields of an object; the converter of the package tells neither that there are no others nor that its default is none. */
function objectJson(described: Described, converters: Converters): JsonSchema {
  const { fields, tests, nullable } = described as unknown as DescribedObject;
  const entries = Object.entries(fields);
  return {
    type: nullable ? ['object', 'null'] : 'object',
    required: entries.filter(([, { optional }]) => !optional).map(([name]) => name),
    properties: Object.fromEntries(
      entries.map(([name, field]) => [name, converters[field.type](field, converters)]),
    ),
    ...(tests.some(({ name }) => name === 'noUnknown') && { additionalProperties: false }),
  };
}

/** The JSON Schema of what a schema reads. Rules of what has to go together are left to the reader. */
export const jsonSchemaOf = (schema: Schema): JsonSchema =>
  convertSchema(schema as never, {
    converters: { object: objectJson, mixed: mixedJson } as unknown as Converters,
  });
