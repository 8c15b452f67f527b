/** Installed with all that a package brings along, on an image without a desktop, bytes. Source: Installed-Size in Debian 12, amd64, without recommended packages. */
const LARGE: Readonly<Record<string, number>> = {
	mpv: 472e6,
	// Beyond what the player brings, which is always there.
	chromium: 442e6,
	'fonts-noto-core': 44e6,
	'fonts-noto-cjk': 93e6,
	'fonts-noto-color-emoji': 11e6
};
const SMALL_BYTES = 8e6;

/** Lists of the archive, which stay. Measured on a real start. */
export const PACKAGE_LISTS_BYTES = 50e6;

/** Room that a package of the card set takes, bytes. */
export const packageBytes = (name: string): number => LARGE[name] ?? SMALL_BYTES;
