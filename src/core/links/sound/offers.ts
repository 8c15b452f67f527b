import type { Change } from '../../changes';
import type { PlayedMedia, SoundShape } from '../../parts/media';

declare module '../../facts' {
	interface Facts {
		/** The name that the endpoint's kernel gives the converter; "" while it is not known, absent without sound. */
		readonly cardId?: string;
		/** Several programs can sound at once. */
		readonly soundShared?: boolean;
		/** The one rate at which everything leaves; null: as each source has it. */
		readonly soundRateHz?: number | null;
	}
}
declare module '../../changes' {
	interface Changes {
		shareSound(): Change;
	}
}
declare module '../../claims' {
	interface ClaimTypes {
		/** Something to be heard; null: nobody knows how its samples are made. */
		sound: { readonly shape: SoundShape | null };
	}
}

declare module '../../engines/machine/signals' {
	interface Signals {
		'sound-card-added': string;
	}
	interface Offers {
		/** Opens an ALSA device by name for samples of this kind; a string says why it could not. */
		openSound?(
			deviceName: string,
			wanted: PlayedMedia & Shown & { readonly gainDb: number; readonly forcedRateHz: number | null },
			onLost: () => void
		): { close(): void } | string;
	}
}

declare module '../../link/step' {
	interface Conditions {
		'converter named': true;
		'amplifier down': true;
		'amplifier on': true;
		heard: true;
	}
}
