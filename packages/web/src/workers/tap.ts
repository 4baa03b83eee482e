/** What of an audio worklet's world is used here; its types come with no library. */
declare const currentFrame: number;
declare const registerProcessor: (name: string, processor: unknown) => void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** Where samples are handed on to, and from which channel of the source; or that nothing listens any more. */
type TapAsked = { readonly to: MessagePort; readonly channel: number } | 'end';

/** So many samples are handed on together: some 10 ms. */
const TOGETHER = 512;

/** Hands what comes in on to whoever listens at the port that it is sent, with the frame at which it begins; it computes nothing. */
class Tap extends AudioWorkletProcessor {
  private to: MessagePort | null = null;
  private block = new Float32Array(TOGETHER);
  private filled = 0;
  private first = 0;
  private channel = 0;
  private going = true;

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<TapAsked>) => {
      if (data === 'end') {
        this.going = false;
        return;
      }
      this.to = data.to;
      this.channel = data.channel;
    };
  }

  process(inputs: readonly (readonly Float32Array[])[]): boolean {
    const input = inputs[0] ?? [];
    const samples = input[Math.min(this.channel, input.length - 1)];
    // A source that is gone sounds as silence.
    const many = samples?.length ?? 128;
    if (this.filled === 0) this.first = currentFrame;
    if (samples) this.block.set(samples, this.filled);
    this.filled += many;
    if (this.filled < TOGETHER) return this.going;
    this.to?.postMessage({ first: this.first, samples: this.block }, [this.block.buffer]);
    this.block = new Float32Array(TOGETHER);
    this.filled = 0;
    return this.going;
  }
}
registerProcessor('tap', Tap);
