/** Playlists: M3U, M3U8, PLS, XSPF and OPML in; M3U8, XSPF and OPML out. Start at `readPlaylist`. Links take each format from its own file: XML weighs. */
export { readPlaylist } from './read';
export { readM3u, writeM3u, writeM3uLines } from './m3u';
export { readOpml, writeOpml } from './opml';
export { readPreset, withPreset, type Preset } from './preset';
export { readPls } from './pls';
export { readXspf, writeXspf, pathToUri } from './xspf';
export { decodeText, isStream, oneLine, type Playlist, type PlaylistEntry } from './playlist';
