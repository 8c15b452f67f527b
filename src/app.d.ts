declare module '*?raw' {
	const text: string;
	export default text;
}
/** The player page, bundled by scripts/player.mjs. */
declare module 'virtual:player' {
	export const PLAYER_SCRIPT: string;
	export const PLAYER_STYLE: string;
	export const PLAYER_FONTS: readonly { readonly file: string; readonly base64: string }[];
}
/** Its digest alone, for who only wants to know it again. */
declare module 'virtual:player-digest' {
	export const PLAYER_SHA256: string;
}
