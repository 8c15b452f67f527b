import { changing } from '../../changes';
import type { Fix } from '../../link/finding';
import type { PictureSettings } from './settings';

/** A change of the picture's settings. */
export const change = changing<PictureSettings>('picture');
/** A fix that sets some of them. */
export const fix = (label: string, set: Partial<PictureSettings>): Fix => ({ label, apply: change(set) });
