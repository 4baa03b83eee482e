import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { valueOf } from './examples.ts';

const SOURCE = join(import.meta.dirname, '../src');
const examples = readdirSync(SOURCE, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts'))
  .flatMap((file) =>
    [...readFileSync(join(SOURCE, file), 'utf8').matchAll(/@example (.*)$/gm)].map(([, text]) => {
      const [expression, value] = text!.split(' // ');
      return [expression!, value] as const;
    }),
  );

test.each(examples)('%s', (expression, value) => {
  expect(valueOf(expression)).toEqual(JSON.parse(value!));
});
