/** From its start to its first question for a file, ms. Typical. */
export const PLAYER_START_MS = 700;
/** A try that comes to nothing, the pause before the next (RestartSec=2), and its start. */
export const RETRY_MS = 500 + 2000 + PLAYER_START_MS;
