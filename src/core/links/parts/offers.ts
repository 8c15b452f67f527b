import type { Change } from '../../changes';
import type { PartPlace, PartsSettings } from './settings';

declare module '../../facts' {
	interface Facts {
		/** Ids of the chosen parts, by place, and the rest as a list. */
		readonly parts: PartsSettings;
	}
}
declare module '../../changes' {
	interface Changes {
		choosePart(place: PartPlace, id: string | null): Change;
		/** One more, or several, of a part that has no place of its own. */
		addPart(id: string, count?: number): Change;
		/** Another part in place of one, wherever it stands; one `to` of null takes it out. */
		replacePart(from: string, to: string | null): Change;
	}
}

declare module '../../link/step' {
	interface Conditions {
		earthed: true;
		joined: true;
	}
}
