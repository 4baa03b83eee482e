import { Switch } from '../../ui/Switch.tsx';

/** What is done with what is heard. */
export interface HowHeard {
  /** Whether rounds are judged by it. */
  readonly judges: boolean;
  /** Whether the notes sound along. */
  readonly guide: boolean;
  /** Whether the next note comes when this one was right, with no clock. */
  readonly waits: boolean;
}

/** Chooses what is done with what is heard. */
export const Listened = ({ of, onOf }: { readonly of: HowHeard; readonly onOf: (of: HowHeard) => void }) => (
  <>
    <Switch on={of.waits} onChange={(waits) => onOf({ ...of, waits })}>
      Wait for me: the next note comes when this one was right
    </Switch>
    {!of.waits && (
      <>
        <Switch on={of.judges} onChange={(judges) => onOf({ ...of, judges })}>
          Rounds are judged by what was heard
        </Switch>
        <Switch on={of.guide} onChange={(guide) => onOf({ ...of, guide })}>
          The notes sound along
        </Switch>
      </>
    )}
  </>
);
