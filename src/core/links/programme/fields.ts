import type { Fields } from '../../manifest';
import type { ProgrammeSettings } from './settings';

export default {
	startAtBoot: { label: 'Start at boot', words: 'autoplay automatically' },
	loop: { label: 'At the end of the list', words: 'repeat loop once' },
	shuffle: { label: 'Shuffle', words: 'random order' },
	whenGone: { label: 'While a stream is gone', words: 'stream offline fallback stand in' },
	lookSec: { label: 'A stream that is gone is tried again every', words: 'retry stream' },
	atChange: { label: 'When a rule begins or ends', words: 'finish item cut break off schedule change' },
	rules: { label: 'Rules: what is on when', words: 'schedule weekday opening hours sunrise holiday calendar' },
	otherwise: { label: 'While no rule holds', words: 'default fallback' },
	lists: { label: 'Playlists', words: 'playlist selection' },
	quiet: { label: 'Quiet hours', words: 'schedule silence night timer times' }
} satisfies Fields<ProgrammeSettings>;
