import FFT from 'fft.js';

/** Magnitudes of a piece of sound, bin by bin from 0 Hz to half the rate; the same array each time. */
export type Spectrum = (samples: Float32Array, from: number, length: number) => Float32Array;

/**
 * How to take the spectrum of pieces of sound: what lies from `from` on, `length` samples (at most `size`), seen through a Hann window and
 * filled up to `size`, a power of two. A steady tone of amplitude 1 reads 1. What lies outside of the samples is silence.
 *
 * @example spectrumOf(1024)(new Float32Array(1024), 0, 1024).length // 513
 */
export function spectrumOf(size: number): Spectrum {
  const fft = new FFT(size);
  const windows = new Map<number, Float32Array>();
  const input = new Float32Array(size);
  const out = fft.createComplexArray() as number[];
  const magnitudes = new Float32Array(size / 2 + 1);
  const windowOf = (length: number): Float32Array => {
    let it = windows.get(length);
    if (!it) {
      // Half a tone's amplitude stands in each half of a spectrum, and the window takes half of it.
      it = Float32Array.from(
        { length },
        (_, i) => (2 / length) * (1 - Math.cos((2 * Math.PI * (i + 0.5)) / length)),
      );
      windows.set(length, it);
    }
    return it;
  };
  return (samples, from, length) => {
    const window = windowOf(length);
    input.fill(0);
    const last = Math.min(length, samples.length - from);
    for (let i = Math.max(0, -from); i < last; i++) input[i] = samples[from + i]! * window[i]!;
    fft.realTransform(out, input);
    for (let k = 0; k < magnitudes.length; k++) {
      const [re, im] = [out[2 * k]!, out[2 * k + 1]!];
      magnitudes[k] = Math.sqrt(re * re + im * im);
    }
    return magnitudes;
  };
}
