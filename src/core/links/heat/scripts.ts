import fanScript from './fan.sh?raw';
import { scriptLines } from '../../files/script';

/** Turns a fan on and off, or sets its speed, by the board's own temperature. The rehearsal knows the same rule. */
export const FAN = scriptLines(fanScript);
