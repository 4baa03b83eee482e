/** What a browser keeps by name. Where it keeps nothing, as in a private window, both throw. */
export type Keeping = Pick<Storage, 'getItem' | 'setItem'>;

/** What this browser keeps; it is asked for when it is used, as even the asking may be refused. */
export const browserKeeping: Keeping = {
  getItem: (name) => localStorage.getItem(name),
  setItem: (name, value) => localStorage.setItem(name, value),
};

/** Where drafts of new charts were kept before there was a journal: a list of `{ begun, at, query }`, the state as an address has it. */
export const OLD_DRAFTS = 'crow-ladder.drafts';
