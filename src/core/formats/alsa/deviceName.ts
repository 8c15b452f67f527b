/**
 * ALSA device names with named arguments: hw:CARD=Field24,DEV=0.
 * Cards go by their id, never by their number: numbers change with the order in which devices are found.
 */
interface AlsaDeviceName {
	readonly plugin: string;
	readonly cardId: string | null;
	readonly deviceNumber: number;
}

/** The kernel's own rule for a card id: letters, digits, "_" and "-", at most 15. Source: sound/core/init.c, copy_valid_id_string. */
export const CARD_ID = /^[A-Za-z0-9_-]{1,15}$/;

/** "hw:CARD=name,DEV=0". Source: alsa-lib 1.2.8, alsa.conf. */
export const writeDeviceName = (plugin: string, cardId: string, deviceNumber: number): string =>
	`${plugin}:CARD=${cardId},DEV=${deviceNumber}`;

/** The parts of a PCM name; what it does not say is the default. Source: alsa-lib 1.2.8, alsa.conf. */
export function readDeviceName(name: string): AlsaDeviceName {
	const [plugin, rest = ''] = name.split(/:(.*)/s) as [string, string?];
	const args = Object.fromEntries(
		rest
			.split(',')
			.filter(Boolean)
			.map((part, index) =>
				part.includes('=') ? (part.split('=', 2) as [string, string]) : [['CARD', 'DEV', 'SUBDEV'][index]!, part]
			)
	);
	return { plugin, cardId: args.CARD ?? null, deviceNumber: /^\d{1,3}$/.test(args.DEV ?? '') ? Number(args.DEV) : 0 };
}
