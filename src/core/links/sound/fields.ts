import type { Fields } from '../../manifest';
import type { SoundSettings } from './settings';

export default {
	cardId: { label: 'Card name', words: 'alsa device aplay hw' },
	deviceNumber: { label: 'Device', words: 'alsa number' },
	overlay: { label: 'Overlay of the add-on board', words: 'dtoverlay hat device tree config.txt' },
	door: { label: 'Audio device (ALSA)', words: 'hw iec958 hdmi digital spdif' },
	travel: { label: 'Sample rate', words: 'bit perfect resample shared dmix' },
	fixedRateHz: { label: 'Fixed rate', words: '44.1 48 khz' },
	volumeAt: { label: 'Volume control', words: 'loudness mixer' },
	volumeDb: { label: 'Volume', words: 'loudness level quieter louder' },
	mixerName: { label: 'The converter’s control', words: 'amixer volume' },
	wiring: { label: 'Speakers on one channel', words: 'parallel series impedance ohm' },
	place: { label: 'Where one listens', words: 'room outdoors acoustics' },
	furnishing: { label: 'Surfaces of the room', words: 'reverberation rt60 acoustics' },
	roomM3: { label: 'Volume of the room', words: 'acoustics size' },
	reverbSec: { label: 'Reverberation time RT60', words: 'acoustics echo' },
	distanceM: { label: 'Distance to the listener', words: 'metres' },
	loudestDb: { label: 'Maximum level', words: 'loud hearing limit decibel' }
} satisfies Fields<SoundSettings>;
