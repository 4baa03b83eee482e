export { createRoot } from 'react-dom/client';
