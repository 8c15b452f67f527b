/** To open a file; to connect to a stream and fill the first buffer. Typical. */
export const FILE_MS = 60;
export const STREAM_MS = 900;
