import { register } from 'tsx/esm/api';

// A worker does not read TypeScript by itself, as the process does that began it.
register();
await import('./worker.ts');
