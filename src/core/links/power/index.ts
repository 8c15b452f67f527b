/**
 * Power: what all the parts draw, from the wall through supply and lead to the board and its USB sockets.
 * Ohm's law; IEC 60028 for copper, ASTM B258 for gauges, IEC 60127 for fuses. Start at `powerPath.ts`.
 */
import type { Link } from '../../link';
import { powerFigures } from './figures';
import { POWER_FAULTS } from './faults';
import { powerTrack } from './track';
import { powerSettings, type PowerSettings } from './settings';
import './offers';

/** The link from the wall to the board's 5 V. */
export const power: Link<'power', PowerSettings> = {
	id: 'power',
	title: 'Power',
	settings: powerSettings,
	version: 1,
	empty: () => ({ contactMilliohm: 40, onHoursPerDay: 24, shutdownSec: 20, inlet: null }),
	key: 'o',
	place: { column: 'world', row: 0, wires: [{ to: 'parts', carries: 'power' }] },
	faults: POWER_FAULTS,
	tracks: [powerTrack],
	publish: ({ onHoursPerDay }) => ({ onHoursPerDay }),
	figures: powerFigures
};
