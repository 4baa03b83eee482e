import './app/style.css';

// The program begins piece by piece, so that none of them holds the browser up for long; all of them are fetched at once (vite.config.ts).
const pause = (): Promise<void> => new Promise((go) => setTimeout(go));

await import('./begin/keeping.ts');
await pause();
await import('./begin/drawing.ts');
await pause();
await import('./begin/counting.ts');
await pause();
const { draw, prepared } = await import('./begin.tsx');
await pause();
const store = await prepared();
await pause();
draw(store);
