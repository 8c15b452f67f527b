import type { Fields } from '../../manifest';
import type { DeliverySettings } from './settings';

export default {
	from: { label: 'New content from', words: 'fetch update pages remote web folder share stick' },
	times: { label: 'Looked for at', words: 'update interval nightly timer' },
	publicKey: { label: 'Signing key', words: 'signature signed believe' },
	era: { label: 'Order of sets', words: 'era number anew clock ahead newer' }
} satisfies Fields<DeliverySettings>;
