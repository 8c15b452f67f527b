import partsScript from './parts.lua?raw';
import { scriptLines } from './script';

/** The script that plays of an entry what stands behind its place. */
export const PARTS_PATH = '/opt/yphos/player/parts.lua';

/**
 * For a single file the player takes where it begins and ends; softer through what it does with ReplayGain, since the volume may be
 * turned by hand meanwhile. Source: mpv(1), LUA SCRIPTING: on_load, file-local-options; --replaygain-preamp where a file has its gain,
 * --replaygain-fallback where not.
 */
export const PARTS = scriptLines(partsScript);
