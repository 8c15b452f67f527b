import type { Context, Finding } from '../../link';
import type { NoticesSettings } from './settings';

type Judge = (settings: NoticesSettings, context: Context) => Finding[];
let judge: Judge | null = null;

/**
 * Judging pages needs readers of feeds, which are too large for the first view. They are handed in here:
 * by `writers.ts` where files are written, else when the first view stands.
 */
export const handIn = (its: Judge): void => void (judge = its);

/** The judge; null: not loaded yet. */
export const judgeOfPages = (): Judge | null => judge;
