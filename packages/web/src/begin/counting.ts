// What counts, a piece in which the program begins (main.ts): this, and all that it needs.
export { FIRST_STATE } from '@crow-ladder/contract';
export { layOut } from '@crow-ladder/core/layouts';
export { fingers } from '@crow-ladder/core/run';
