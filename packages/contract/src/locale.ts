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
  object: { noUnknown: 'There is something here that Crow Ladder does not know: ${unknown}.' },
});
