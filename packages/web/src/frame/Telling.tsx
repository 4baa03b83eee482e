import { type Settings } from '@crow-ladder/contract';
import { useEffect, useRef } from 'react';
import { told } from '../app/notice.ts';
import { type View, useSend } from '../app/state.ts';
import { subjectsOf } from '../model/history.ts';
import { type Model } from '../model/model.ts';
import { LABEL_NAMES } from '../ui/labels.ts';

interface TellingProps {
  readonly model: Model;
  readonly view: View;
  readonly labels: Settings['labels'];
  /** What the neck shows in place of the chart. */
  readonly instead: string | null;
  /** The end of the ladder that was reached last; another object each time. */
  readonly end: { readonly text: string } | null;
}

/** What a key held down changes is told once it rests. */
const REST_MS = 300;

/** What the page shows, each subject in words; of several that change at once all are told, in this order. */
function subjects({ model, view, labels, instead }: TellingProps): readonly string[] {
  return [
    ...Object.values(subjectsOf(model)),
    instead ? `the neck shows ${instead}, not applied` : 'the neck shows the chart',
    `marks say ${LABEL_NAMES[labels]}`,
    view.rootsOnly ? 'roots alone' : 'all notes',
    view.zoom ? `frets ${view.zoom[0]} to ${view.zoom[1]} shown` : 'the whole neck shown',
  ];
}

/** Tells those who cannot see it what a key or a control changed. */
export function Telling(props: TellingProps) {
  const send = useSend();
  const { end } = props;
  const now = subjects(props);
  const last = useRef(now);
  const lastEnd = useRef(end);
  const text = now.join('\n');
  useEffect(() => {
    const timer = setTimeout(() => {
      const after = text.split('\n');
      const changed = after.filter((said, i) => said !== last.current[i]);
      if (end && end !== lastEnd.current) changed.push(end.text);
      last.current = after;
      lastEnd.current = end;
      if (changed.length) send(told(`${changed.join('; ')}.`));
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [text, end, send]);
  return null;
}
