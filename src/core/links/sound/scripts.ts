import waitForSoundScript from './wait-for-sound.sh?raw';
import { scriptLines } from '../../files/script';

/** Waits until the kernel lists a card and udev has let the group in to it, which comes a moment later. Source: Linux 6.1, sound/core/init.c, "id". */
export const WAIT_FOR_SOUND = scriptLines(waitForSoundScript);
