import { string } from 'yup';
import './locale.ts';

/** A shape that the player knows: the scale's id and core's `shapeOf`, with a space between. */
export const shapeSchema = string()
  .strict()
  .max(400, 'This is no shape that can be known.')
  .matches(/^\S+ [\d: /]+$/, 'This is no shape that can be known.')
  .required('Say which shape.');
