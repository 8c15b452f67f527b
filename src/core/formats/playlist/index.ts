/** Playlists: M3U, M3U8, PLS and XSPF in; M3U8 and XSPF out. Start at `readPlaylist`. Links take each format from its own file: XML weighs. */
export { readPlaylist } from './read';
export { readM3u, writeM3u, writeM3uLines } from './m3u';
export { readPls } from './pls';
export { readXspf, writeXspf, pathToUri } from './xspf';
export { decodeText, isStream, oneLine, type Playlist, type PlaylistEntry } from './playlist';
