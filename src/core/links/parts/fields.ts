import type { Fields } from '../../manifest';
import type { PartsSettings } from './settings';

export default {
	supply: { label: 'Power supply', words: 'charger adapter amperes volts' },
	lead: { label: 'Power cable', words: 'usb lead' },
	card: { label: 'Memory card', words: 'sd card' },
	converter: { label: 'Output', words: 'dac converter sound card hdmi usb header' },
	amplifier: { label: 'Amplifier', words: 'amp watts' },
	speakers: { label: 'Speakers', words: 'loudspeaker headphones' },
	case: { label: 'Case', words: 'box enclosure' },
	cooler: { label: 'Heatsink', words: 'cooler cooling' },
	also: { label: 'Further parts', words: 'add part hub fan lead adapter drive' },
	screen: { label: 'Screen', words: 'monitor television tv display projector' }
} satisfies Fields<PartsSettings>;
