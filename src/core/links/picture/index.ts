/**
 * The picture: a mode that everything on the way takes, edges that are all there, text that can be read.
 * Standards: VESA E-EDID and CTA-861 for the screen's own word, CVT, GTF and DMT for modes. Start at `way.ts` and `modes.ts`.
 */
import { changing } from '../../changes';
import { showsPicture } from '../../link/wish';
import type { Link } from '../../link';
import { pictureClaims } from './claims';
import { pictureFigures } from './figures';
import { PICTURE_FAULTS } from './faults';
import { calmPicture, pictureSettings, type PictureSettings } from './settings';
import { eyeTrack } from './track';
import { drawnScreen } from './way';
import './offers';

/** The link from frames to the eye. */
export const picture: Link<'picture', PictureSettings> = {
	id: 'picture',
	title: 'Picture',
	settings: pictureSettings,
	version: 3,
	migrations: {
		1: (saved) => ({ darkWhileResting: false, phonePassword: false, ...saved }),
		2: (saved) => ({ angleDeg: 0, ...saved })
	},
	empty: ({ kind }) => ({ ...calmPicture, used: showsPicture(kind), draws: kind === 'film' ? 'gpu' : 'plain' }),
	use: { is: ({ used }) => used, set: (settings, used) => ({ ...settings, used }) },
	key: 'e',
	place: {
		column: 'out',
		row: 0,
		wires: [{ from: 'parts', carries: 'signal' }],
		end: { sense: 'eye', figure: 'seen', words: 'pixels to use', without: 'choose a screen' }
	},
	publish: (settings) => {
		const { mode, turn, writesEdid, stillSec, shifts, controls, offBy, hours, darkWhileResting } = settings;
		return {
			picture: {
				...{ mode, turn, writesEdid, stillSec, shifts, controls, offBy, hours, darkWhileResting },
				screen: (context) => drawnScreen(settings, context)
			}
		};
	},
	changes: {
		showPicture: () => changing<PictureSettings>('picture')({ used: true }),
		keepControls: (actions) =>
			changing<PictureSettings>('picture')((all) => ({
				...all,
				controls: all.controls.filter(({ action }) => actions.includes(action))
			}))
	},
	faults: PICTURE_FAULTS,
	tracks: [eyeTrack],
	claims: pictureClaims,
	figures: pictureFigures
};
