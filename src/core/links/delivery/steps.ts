import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { CONTENT_DIR } from '../../files/content';
import { RENEW_UNIT, SWITCH_PATH } from './places';
import { isWeb, type DeliverySettings } from './settings';

/** A set is packed, put in place, fetched once under the eyes of whoever built it, and taken back. */
export function deliverySteps(settings: DeliverySettings, { facts }: Context): Step[] {
	const where = isWeb(settings) ? settings.from : `the folder ${settings.from}`;
	const byHand = facts.keeper !== '';
	return [
		...(settings.publicKey
			? [
					{
						id: 'delivery-key',
						phase: 'gather' as const,
						do: 'Keep the signing key where only you can read it, and once more on a stick in a drawer. It is asked for whenever you pack new content, and stands neither in the workshop nor on the card.',
						expect: 'Two copies of the file yphos-signing-key.pem.'
					}
				]
			: []),
		{
			id: 'delivery-put',
			phase: 'prepare',
			do: `Before the card is in the board, pack the content as it is (Delivery, or yphos pack), and put all of it into ${where}: the folder "files" first, manifest.txt${settings.publicKey ? ' and its signature' : ''} last. Whatever lies there when the endpoint looks for the first time, two minutes after its start, takes the place of what the card brings, though it be older.`,
			expect: 'Files have names of 64 letters and digits: those that are there already need not be copied again.'
		},
		...(byHand
			? [
					{
						id: 'delivery-try',
						phase: 'check' as const,
						needs: ['applied' as const, 'logged in' as const],
						do: 'Let the endpoint look for it now, and read what it says. Change a page, pack and put it there once more, and look again.',
						command: `sudo systemctl start ${RENEW_UNIT}.service; journalctl -u ${RENEW_UNIT} -n 5 -o cat; readlink ${CONTENT_DIR}/now`,
						expect:
							'At first nothing, for it shows that already; then "the new set is shown". A line that ends with "what is shown stays" says what was wrong with it.'
					},
					{
						id: 'delivery-back',
						phase: 'live' as const,
						do: 'The set before stays on the endpoint. To show it again:',
						command: `sudo ${SWITCH_PATH} back`,
						expect: 'What was shown before. It stays until a newer set comes.'
					}
				]
			: [])
	];
}
