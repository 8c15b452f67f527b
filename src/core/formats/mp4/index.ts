/** MP4 and MOV: what a film file says of itself. Source: ISO/IEC 14496-12. Start at `read.ts`. */
export { framesPerSec, readMp4, type Mp4, type Mp4Track } from './read';
