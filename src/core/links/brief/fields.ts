import type { Fields } from '../../manifest';
import type { BriefSettings } from './settings';

export default {
	name: { label: 'Name', words: 'of the endpoint rename title' },
	kind: { label: 'Kind of endpoint', words: 'music film photographs notices recorder second screen' },
	purpose: { label: 'What it is for, in your words', words: 'purpose' },
	room: { label: 'Room', words: 'place where' },
	soundWithinSec: { label: 'Sound after power-on within', words: 'boot time seconds start fast' },
	comesBackAlone: { label: 'Comes back alone after a power cut', words: 'restart unattended' },
	video: { label: 'Hardest film it must show smoothly', words: 'video codec resolution' }
} satisfies Fields<BriefSettings>;
