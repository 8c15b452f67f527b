import type { Change } from '../changes';

/** The plan with this name for its output, kept with the output that it was told for. */
export const nameCard =
	({ cardId, deviceNumber }: { readonly cardId: string; readonly deviceNumber?: number | null }): Change =>
	(plan) => ({
		...plan,
		sound: {
			...plan.sound,
			cardId,
			deviceNumber: deviceNumber ?? plan.sound.deviceNumber,
			cardFor: cardId === '' ? '' : (plan.parts.converter ?? '')
		}
	});

/** The name was told for an output that the endpoint no longer plays by. */
export const isOfAnother = (
	{ cardId, cardFor }: { readonly cardId: string; readonly cardFor: string },
	converter: string | null
): boolean => cardId !== '' && cardFor !== '' && cardFor !== converter;
