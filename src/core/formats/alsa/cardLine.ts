import { CARD_ID } from './deviceName';

/**
 * The card in a line that somebody copied whole: of `aplay -l` ("card 1: Id [Name], device 0: …"), of /proc/asound/cards
 * (" 1 [Id       ]: …"), or a device's name ("hw:CARD=Id,DEV=0"). Null when it is none of them. The words of `aplay` follow the language.
 */
export function cardInLine(text: string): { readonly cardId: string; readonly deviceNumber: number | null } | null {
	const line = text.slice(0, 400).trim();
	const listed = /^\S+ \d+: (\S+) \[[^\]]*\](?:, \S+ (\d+):)?/.exec(line);
	const kernel = /^\d+ \[(\S+) *\]/.exec(line);
	const device = /^\w+:(?:CARD=)?([\w-]+)(?:,(?:DEV=)?(\d+))?$/.exec(line);
	const [, cardId, number] = listed ?? kernel ?? device ?? [];
	if (!cardId || !CARD_ID.test(cardId)) return null;
	return { cardId, deviceNumber: number === undefined ? null : Number(number) };
}
