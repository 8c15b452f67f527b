import type { Wish } from '../../link/wish';
import type { VideoShape } from '../../parts/schema';

declare module '../../facts' {
	interface Facts {
		readonly endpointName: string;
		readonly wish: Wish;
		/** The hardest film that it must show; null: none. */
		readonly film: VideoShape | null;
		readonly comesBackAlone: boolean;
	}
}
