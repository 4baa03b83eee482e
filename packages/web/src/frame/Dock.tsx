import { type Position } from '@crow-ladder/core';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { beginHere } from '../ui/focus.ts';
import { Popup } from '../ui/Popup.tsx';

interface DockProps {
  readonly positions: readonly Position[];
  readonly names: readonly string[];
  readonly known: ReadonlySet<number>;
  readonly front: number | null;
  readonly onStep: (by: 1 | -1) => void;
  readonly onChoose: (index: number) => void;
  /** How the neck is drawn. */
  readonly corner: ReactNode;
  /** The task in front, and whether its sheet is open. */
  readonly task: string;
  readonly sheet: boolean;
  readonly onSheet: (open: boolean) => void;
  /** Where the task puts what it has in place of the positions. */
  readonly slot: (place: HTMLElement | null) => void;
}

/** On a narrow screen: what is used while playing, within reach of the thumb. */
export function Dock({
  positions,
  names,
  known,
  front,
  onStep,
  onChoose,
  corner,
  task,
  sheet,
  onSheet,
  slot,
}: DockProps) {
  const [open, setOpen] = useState(false);
  return (
    <div className="dock">
      <div ref={slot} className="dock-slot" />
      <div role="group" aria-label="Positions" className="dock-positions">
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
        {corner}
      </div>
      <button
        type="button"
        className="button button-strong"
        aria-label={task}
        aria-expanded={sheet}
        aria-controls="sheet"
        onClick={() => onSheet(!sheet)}
      >
        <span className="dock-task">{task}</span>{' '}
        {sheet ? <ChevronDown size={18} aria-hidden /> : <ChevronUp size={18} aria-hidden />}
      </button>
    </div>
  );
}
