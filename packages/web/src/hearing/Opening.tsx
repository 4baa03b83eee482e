import { DEAF, type Deaf } from './source.ts';

/** That the browser asks for the microphone, or why there is none, with what to do. */
export const Opening = ({ state }: { readonly state: string }) => (
  <>
    <p role="status" className="text-sm empty:hidden">
      {state === 'opening' && 'The browser asks whether this page may hear you: allow it.'}
    </p>
    {state in DEAF && (
      <p role="alert" className="error">
        {DEAF[state as Deaf]}
      </p>
    )}
  </>
);
