import type { Fields } from '../../manifest';
import type { ReceivingSettings } from './settings';

export default {
	bluetooth: { label: 'By Bluetooth, from phones', words: 'receive sink a2dp phone' },
	name: { label: 'Called, on a phone', words: 'announced name bluetooth' },
	pairing: { label: 'Who may pair', words: 'bluetooth pin phones guests' },
	beginsPercent: { label: 'Volume when a phone connects', words: 'initial volume bluetooth' },
	farthestM: { label: 'Farthest place', words: 'range bluetooth distance' },
	walls: { label: 'Walls between', words: 'range bluetooth' },
	server: { label: 'By the sound server, from computers with Linux', words: 'pulseaudio pipewire network sink' },
	rtp: { label: 'By RTP, from anything with ffmpeg', words: 'network stream receive' },
	rtpPort: { label: 'Port for RTP', words: 'udp' },
	bufferMs: { label: 'Kept ready', words: 'buffer latency delay' },
	meanwhile: { label: 'The list meanwhile', words: 'duck pause mix while somebody sends' },
	quietToo: { label: 'Quiet hours hold for this too', words: 'silence night phones' }
} satisfies Fields<ReceivingSettings>;
