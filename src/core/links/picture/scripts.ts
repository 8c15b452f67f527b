import waitForScreenScript from './switching/wait-for-screen.sh?raw';
import showCardScript from './edges/show-card.sh?raw';
import screenScript from './switching/screen.sh?raw';
import shiftScript from './edges/shift.lua?raw';
import { scriptLines, withHead } from '../../files/script';
import ramdiskHookScript from './modes/ramdisk-hook.sh?raw';

/** Waits until a screen is there, so that the player begins with a picture. */
export const WAIT_FOR_SCREEN = scriptLines(waitForScreenScript);

/** Puts what the kernel needs before the root is there into the initial RAM disk. Source: initramfs-tools(7), HOOK SCRIPTS. */
export const ramdiskHook = (path: string): string[] => withHead(ramdiskHookScript, [`file=${path}`]);

/** One test card on the endpoint's own screen until a key is pressed, then the player again. */
export const SHOW_CARD = scriptLines(showCardScript);

/** The screen by the hour. Source: cec-ctl(1); FB_BLANK_POWERDOWN is 4: the kernel's include/uapi/linux/fb.h. */
export const SCREEN_HOURS = scriptLines(screenScript);

/** Moves stills about by three pixels of 1000, another way each minute. Source: mpv(1), --video-pan-x; its Lua scripting. */
export const SHIFT_STILLS = scriptLines(shiftScript);
