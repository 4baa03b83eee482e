import { setLocale } from 'yup';

// Imported before any schema is built, as a schema takes its messages when it is made.
setLocale({
  mixed: {
    required: 'Something is missing here: ${path}.',
    defined: 'Something is missing here: ${path}.',
    oneOf: 'Pick one of: ${values}.',
    notType: 'This cannot be read: ${path}.',
    notNull: 'Something is missing here: ${path}.',
    default: 'This cannot be read: ${path}.',
  },
  string: {
    max: 'This is longer than ${max} characters: ${path}.',
    min: 'This is shorter than ${min} characters: ${path}.',
    matches: 'This cannot be read: ${path}.',
  },
  number: {
    min: 'This is less than ${min}: ${path}.',
    max: 'This is more than ${max}: ${path}.',
    integer: 'This is no whole number: ${path}.',
  },
  array: {
    max: 'There are more than ${max} of these: ${path}.',
    min: 'There are fewer than ${min} of these: ${path}.',
  },
  object: { noUnknown: 'There is something here that Crow Ladder does not know: ${unknown}.' },
});
