// What draws, a piece in which the program begins (main.ts): this, and all that it needs.
export { createRoot } from 'react-dom/client';
