import type { Fields } from '../../manifest';
import type { SourcesSettings } from './settings';

export default {
	items: { label: 'The list', words: 'playlist tracks stations streams files radio' },
	listTitle: { label: 'Title of the list', words: 'playlist name' },
	waitForNetwork: { label: 'Wait for the network before playing', words: 'stream boot' },
	bufferSec: { label: 'Gathered before a stream begins', words: 'buffer cache dropouts stutter' },
	pauses: { label: 'How often streams stand still', words: 'jitter dropouts measured' },
	stores: { label: 'Shares and sticks', words: 'smb nfs samba windows file server nas usb drive mount password' },
	rules: { label: 'Rules', words: 'choose folders library newest index' },
	chooseAt: { label: 'Chosen anew at', words: 'index again time rules' },
	carry: { label: 'How files get to the endpoint', words: 'copy media upload sftp' }
} satisfies Fields<SourcesSettings>;
