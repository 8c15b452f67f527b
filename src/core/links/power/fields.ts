import type { Fields } from '../../manifest';
import type { PowerSettings } from './settings';

export default {
	onHoursPerDay: { label: 'Switched on each day', words: 'hours energy cost' },
	contactMilliohm: { label: 'Contacts of the plugs, together', words: 'plugs on the way contact resistance' },
	shutdownSec: { label: 'A shutdown takes', words: 'time for shutdown ups battery' },
	inlet: { label: 'Mains inlet of your own', words: 'fuse mains 230' }
} satisfies Fields<PowerSettings>;
