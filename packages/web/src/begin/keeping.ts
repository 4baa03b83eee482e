// What keeps, a piece in which the program begins (main.ts): this, and all that it needs.
export { configureStore } from '@reduxjs/toolkit';
