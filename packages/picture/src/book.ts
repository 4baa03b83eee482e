import { type Ink } from './printed.ts';

/** Sizes of paper, in mm. */
export const PAPERS = {
  a4: { name: 'A4', width: 210, height: 297 },
  letter: { name: 'letter', width: 215.9, height: 279.4 },
} as const;
export type PaperId = keyof typeof PAPERS;

/** Something on a sheet: where it begins, in mm, and how large its units are. */
export interface Laid {
  readonly x: number;
  readonly y: number;
  /** Mm to a unit of its inks. */
  readonly scale: number;
  readonly inks: readonly Ink[];
}
/** One page. */
export type Sheet = readonly Laid[];

/** Pages in order, with what they are called where something begins. */
export interface Book {
  readonly title: string;
  readonly paper: PaperId;
  /** What is otherwise than it was asked for. */
  readonly remarks: readonly string[];
  readonly sheets: readonly Sheet[];
  /** What begins on which page, from 1. */
  readonly outline: readonly { readonly title: string; readonly page: number }[];
}
