import maySoundScript from './may-sound.sh?raw';
import { scriptLines } from '../../files/script';

/** The same rule as `isQuiet`, for the endpoint; a test holds the two together. */
export const MAY_SOUND = scriptLines(maySoundScript);
