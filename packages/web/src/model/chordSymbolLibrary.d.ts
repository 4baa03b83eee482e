declare module 'chord-symbol/lib/chord-symbol-esm.js' {
  export { chordParserFactory } from 'chord-symbol';
}
