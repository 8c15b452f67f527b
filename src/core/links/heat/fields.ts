import type { Fields } from '../../manifest';
import type { HeatSettings } from './settings';

export default {
	place: { label: 'Where it stands', words: 'cupboard sun behind temperature' },
	roomC: { label: 'The room at its warmest', words: 'ambient temperature summer' },
	fanOnC: { label: 'Fan, full at', words: 'fan cooling temperature' },
	fanOffC: { label: 'Fan, off at', words: 'fan cooling temperature' },
	readings: { label: 'Temperature readings', words: 'measured throttling' }
} satisfies Fields<HeatSettings>;
