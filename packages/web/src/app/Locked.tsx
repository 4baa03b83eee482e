import { PASSCODE_LIMIT } from '@crow-ladder/contract';
import { Dialog as Radix } from 'radix-ui';
import { useState } from 'react';
import { Field } from '../ui/fields.tsx';
import { server } from './api.ts';
import { type Trouble } from './trouble.ts';
import { cameIn } from './standing.ts';
import { useSend } from './state.ts';

/** Asks for the passcode, over a page that keeps all that is on it. */
export function Locked() {
  const send = useSend();
  const [passcode, setPasscode] = useState('');
  const [comeIn, { error, isLoading }] = server.useComeInMutation();
  const go = async (): Promise<void> => {
    const done = await comeIn(passcode);
    if (!done.error) send(cameIn());
  };
  return (
    <Radix.Root open>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ground" />
        <Radix.Content className="panel fixed top-[22vh] left-1/2 z-50 w-[min(26rem,calc(100vw-24px))] -translate-x-1/2 p-6">
          <p className="mb-4 font-reading text-lg font-bold">Crow Ladder</p>
          <Radix.Title className="mb-1 text-xl font-semibold">The passcode, please</Radix.Title>
          <Radix.Description className="mb-4 text-soft">
            Whoever started Crow Ladder has it. This browser is asked once.
          </Radix.Description>
          <form
            className="flex flex-col gap-3"
            onSubmit={(e) => {
              e.preventDefault();
              if (passcode.trim()) void go();
            }}
          >
            <Field label="Passcode" error={(error as Trouble | undefined)?.message}>
              <input
                type="password"
                className="input"
                autoComplete="current-password"
                autoCapitalize="none"
                maxLength={PASSCODE_LIMIT}
                value={passcode}
                onChange={(e) => setPasscode(e.target.value)}
              />
            </Field>
            <button
              type="submit"
              className="button button-strong self-start"
              disabled={!passcode.trim() || isLoading}
            >
              Come in
            </button>
          </form>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
