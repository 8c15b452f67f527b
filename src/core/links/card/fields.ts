import type { Fields } from '../../manifest';
import type { CardSettings } from './settings';

export default {
	system: { label: 'Kind of image', words: 'operating system distribution os' },
	prepare: { label: 'Before writing', words: 'format card' },
	root: { label: 'Root', words: 'read-only overlay file system' },
	ends: { label: 'Switched off by', words: 'power off shutdown cut' },
	logsInMemory: { label: 'Keep the log in memory only', words: 'journal logs wear' },
	secretsLeave: {
		label: 'Take passwords off the first partition once they are in place',
		words: 'secrets keys FAT boot delete'
	},
	mendAtStart: { label: 'Mend the card at the start without asking', words: 'fsck check file system' },
	watchdog: { label: 'Restart by itself when it hangs', words: 'watchdog crash' },
	reservePercent: { label: 'Keep free', words: 'reserve spare wear' },
	swapMb: { label: 'Swap', words: 'memory' },
	dailyMb: { label: 'Little writes each day', words: 'wear endurance' },
	bootStyle: { label: 'How the board starts its kernel', words: 'boot cmdline extlinux config.txt' },
	bootText: { label: 'Text of the kernel’s arguments', words: 'cmdline extlinux' },
	firstPartition: { label: 'Where the system shows the first partition', words: 'boot firmware mount' }
} satisfies Fields<CardSettings>;
