export { configureStore } from '@reduxjs/toolkit';
