import { CHART_FORMAT } from '../document/chartFile.ts';
import { BACKUP_FORMAT, chartSchema, headSchema } from '../document/readBackup.ts';
import { chartFileSchema } from '../document/readChartFile.ts';
import { stateSchema } from '../document/schema.ts';
import { keptCardSchema, reviewSchema } from '../recall/schema.ts';
import { keptRoundSchema } from '../roundSchema.ts';
import { type JsonSchema, jsonSchemaOf } from './convert.ts';

const DRAFT = 'http://json-schema.org/draft-07/schema#';
const state = stateSchema.required();
const row: JsonSchema = {
  type: 'object',
  required: ['id'],
  properties: { id: { type: 'string' } },
  additionalProperties: { type: ['string', 'number', 'null'] },
};

/** The JSON Schemas (draft 7) of what is written, by the names of their files; made from the schemas that read it. */
export function published(): Readonly<Record<'chart' | 'backup', JsonSchema>> {
  const head = jsonSchemaOf(headSchema);
  return {
    chart: {
      $schema: DRAFT,
      title: `A chart of Crow Ladder in a file (${CHART_FORMAT})`,
      ...jsonSchemaOf(chartFileSchema.shape({ state })),
    },
    backup: {
      $schema: DRAFT,
      title: `A backup of a library of Crow Ladder: charts, instruments, settings, practice (${BACKUP_FORMAT})`,
      ...head,
      properties: {
        ...head.properties,
        charts: { type: 'array', items: jsonSchemaOf(chartSchema.shape({ state })) },
        unreadable: { type: 'array', items: row },
        cards: { type: 'array', items: jsonSchemaOf(keptCardSchema) },
        reviews: { type: 'array', items: jsonSchemaOf(reviewSchema) },
        practice: { type: 'array', items: jsonSchemaOf(keptRoundSchema) },
      },
    },
  };
}
