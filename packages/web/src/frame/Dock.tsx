import { type Position } from '@crow-ladder/core';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import { looked, useApp, useSend } from '../app/state.ts';
import { beginHere } from '../ui/focus.ts';
import { Popup } from '../ui/Popup.tsx';

interface DockProps {
  readonly positions: readonly Position[];
  readonly names: readonly string[];
  readonly known: ReadonlySet<number>;
  readonly front: number | null;
  readonly onStep: (by: 1 | -1) => void;
  readonly onChoose: (index: number) => void;
}

/** On a narrow screen: what is used while playing, within reach of the thumb. */
export function Dock({ positions, names, known, front, onStep, onChoose }: DockProps) {
  const send = useSend();
  const whole = useApp((s) => s.view.whole);
  const [open, setOpen] = useState(false);
  return (
    <div role="group" aria-label="Positions" className="dock">
      <button type="button" className="button" aria-label="Position below" onClick={() => onStep(-1)}>
        <ChevronDown size={22} aria-hidden />
      </button>
      <Popup
        name="Positions"
        label={`Positions, in front ${front === null ? 'none' : names[front]}`}
        open={open}
        onOpenChange={setOpen}
        buttonClass="button min-w-0 grow justify-center"
        body={
          <ul className="max-h-[50vh] overflow-auto">
            {positions.map((p) => (
              <li key={p.index}>
                <button
                  type="button"
                  className="button button-quiet w-full"
                  ref={p.index === front ? beginHere : undefined}
                  aria-pressed={p.index === front}
                  onClick={() => {
                    onChoose(p.index);
                    setOpen(false);
                  }}
                >
                  {names[p.index]}
                  <span className="ml-auto">
                    frets {p.lowFret} to {p.highFret}
                    {known.has(p.index) && ', known'}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        }
      >
        <span className="truncate">{front === null ? 'No position' : names[front]}</span>
      </Popup>
      <button type="button" className="button" aria-label="Position above" onClick={() => onStep(1)}>
        <ChevronUp size={22} aria-hidden />
      </button>
      <button
        type="button"
        className="button"
        aria-pressed={whole}
        onClick={() => send(looked({ whole: !whole, zoom: null }))}
      >
        Whole neck
      </button>
    </div>
  );
}
