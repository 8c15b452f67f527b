/** Waits for a screen before the player starts. */
export const WAIT_PATH = '/opt/yphos/bin/wait-for-screen.sh';
/** Shows a test card. */
export const SHOW_CARD_PATH = '/opt/yphos/bin/show-card.sh';
/** Moves what stands still. */
export const SHIFT_PATH = '/opt/yphos/player/shift.lua';
/** Where test cards lie on the endpoint. */
export const CARDS_DIR = '/opt/yphos/cards';
