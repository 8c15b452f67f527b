import { z } from 'zod';
import { calculation, orInvalid, type Calculations } from '../../basics/calculation';
import { derivePsk } from './psk';

export default {
	psk: calculation(z.object({ ssid: z.string(), passphrase: z.string() }), ({ ssid, passphrase }) =>
		orInvalid(derivePsk(ssid, passphrase), (pskHex) => ({ pskHex }))
	)
} satisfies Calculations;
