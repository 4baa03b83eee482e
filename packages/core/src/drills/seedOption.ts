import { type Option } from '../kinds/option.ts';

/** Which of the lines that chance makes: the same number is the same line. */
export const seedOption: Option = {
  type: 'whole',
  min: 1,
  max: 9999,
  label: 'Seed',
  hint: 'Another number is another line.',
};
