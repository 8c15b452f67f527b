/** Waits for a screen before the player starts. */
export const WAIT_PATH = '/opt/yphos/bin/wait-for-screen.sh';
/** Shows a test card. */
export const SHOW_CARD_PATH = '/opt/yphos/bin/show-card.sh';
/** Moves what stands still. */
export const SHIFT_PATH = '/opt/yphos/player/shift.lua';
/** Where test cards lie on the endpoint. */
export const CARDS_DIR = '/opt/yphos/cards';
/** Where the player listens for commands. */
export const PLAYER_SOCKET = '/var/lib/yphos/player.sock';
/** The unit that hears the keys. */
export const KEYS_UNIT = 'yphos-keys.service';
/** Does what is asked for. */
export const CONTROL_PATH = '/opt/yphos/bin/control.sh';
/** Where the page is: above 1024, so that nothing that serves it needs to be root. */
export const PHONE_PORT = 8080;
/** Answers a phone that knocks; and does what was asked for. */
export const PHONE_UNITS = ['yphos-phone.socket', 'yphos-asked.path'] as const;
