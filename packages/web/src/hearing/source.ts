import { FAULTLESS, type Faults } from '@crow-ladder/core/listening';

/** What is listened to: a guitar by a microphone, or a stand-in made of numbers. */
export type Source =
  | {
      readonly kind: 'microphone';
      /** The browser's id of it; empty is the usual one. */ readonly device: string;
      readonly channel: number;
    }
  | { readonly kind: 'standIn'; readonly faults: Faults };

/** What can be listened to, by its kind. */
export const SOURCES = [
  { id: 'microphone', name: 'my guitar, by a microphone' },
  { id: 'standIn', name: 'a stand-in, to try it' },
] as const satisfies readonly { readonly id: Source['kind']; readonly name: string }[];

export const MICROPHONE: Source = { kind: 'microphone', device: '', channel: 0 };
/** A stand-in as good as a good player. */
export const STAND_IN: Source = { kind: 'standIn', faults: { ...FAULTLESS, jitter: 6 } };

/** Why nothing can be heard, with what to do. */
export type Deaf = 'plain' | 'refused' | 'none' | 'gone' | 'failed';
export const DEAF: Readonly<Record<Deaf, string>> = {
  plain:
    'At a plain address browsers give no microphone. Open Crow Ladder on the machine that it runs on, or by an address that begins with https. The stand-in plays here too.',
  refused:
    'The browser does not let this page use the microphone. Allow it beside the address, and choose the microphone again.',
  none: 'No microphone was found. Plug one in, or the guitar by its interface, and choose the microphone again.',
  gone: 'The microphone went away. Plug it in again, and choose it again.',
  failed: 'The microphone could not be opened: another program may hold it. Close that, and choose it again.',
};

/** A microphone that is open. */
export interface Microphone {
  readonly stream: MediaStream;
  readonly label: string;
  readonly close: () => void;
}

/** What a failure to open one means. */
function whyOf(error: unknown): Deaf {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  if (name === 'NotFoundError' || name === 'OverconstrainedError') return 'none';
  return 'failed';
}

/** Opens a microphone as it is, without what browsers do to a voice; `onGone` is told when it goes. */
export async function openMicrophone(device: string, onGone: () => void): Promise<Microphone | Deaf> {
  // Of a plain address there are no media devices, whatever the types say.
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices) return 'plain';
  try {
    const stream = await devices.getUserMedia({
      audio: {
        echoCancellation: false,
        noiseSuppression: false,
        autoGainControl: false,
        ...(device && { deviceId: { exact: device } }),
      },
    });
    const track = stream.getAudioTracks()[0]!;
    track.addEventListener('ended', onGone);
    return {
      stream,
      label: track.label,
      close: () => {
        track.removeEventListener('ended', onGone);
        for (const it of stream.getTracks()) it.stop();
      },
    };
  } catch (error) {
    return whyOf(error);
  }
}

/** What is listened to now. */
export type Heeded =
  | { readonly kind: 'microphone'; readonly microphone: Microphone; readonly channel: number }
  | Extract<Source, { kind: 'standIn' }>;
