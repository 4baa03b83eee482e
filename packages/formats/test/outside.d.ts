declare module 'midifile' {
  class MidiFile {
    constructor(bytes: Uint8Array);
    getTrackEvents(track: number): readonly unknown[];
  }
  export = MidiFile;
}
declare module 'verovio' {
  const verovio: {
    readonly module: { onRuntimeInitialized?: () => void };
    readonly LOG_OFF: number;
    readonly enableLog: (level: number, module: unknown) => void;
    readonly toolkit: new () => {
      setOptions(options: Record<string, unknown>): void;
      loadData(text: string): boolean | number;
      renderToMIDI(): string;
      renderToSVG(page: number): string;
    };
  };
  export = verovio;
}
