import type { Context } from '../../link/context';
import type { Step } from '../../link/step';
import { pageUrl } from './addresses';
import { UPDATES, updatesNightly } from './updates';
import type { NetworkSettings } from './settings';

/** Minutes from power to a name on the network at a first start. Typical; packages are fetched meanwhile. */
const FIRST_START_MIN = 6;

/** Three schools for the first start, then finding it, then logging in. */
export function networkSteps(network: NetworkSettings, context: Context): Step[] {
	if (network.way === 'none')
		return [
			...(network.school === 'files' ? [] : schoolSteps(network, context)),
			{
				id: 'log-in',
				phase: 'first start',
				needs: ['powered', 'found'],
				makes: ['logged in'],
				do: `At its own screen and keyboard, log in as ${network.user ? `${network.user}, with the password that you gave when the set was written` : 'the image\u2019s own user'}.`,
				expect: `A prompt that names ${network.hostName}. Before it, lines that end with "done" when apply.sh has run by itself.`
			}
		];
	return [
		...schoolSteps(network, context),
		...routerSteps(network),
		...findSteps(network),
		...loginSteps(network),
		...pageSteps(network, context),
		...updateSteps(network, context)
	];
}

function schoolSteps(network: NetworkSettings, context: Context): Step[] {
	if (network.school === 'files' && context.facts.system !== 'plain')
		return [
			{
				id: 'own-files',
				phase: 'prepare',
				needs: ['card compared'],
				makes: ['set on card'],
				do: `Put the card in again if the computer has let go of it. Open the card\u2019s first partition, and fill in the image\u2019s own text files for the first start, which its instructions name: host name ${network.hostName}${network.way === 'radio' ? `, Wi-Fi network "${network.ssid}", country ${network.countryCode || 'of yours'}, and its password` : ''}${network.login === 'none' ? '' : ', and login from afar'}.`,
				expect: 'They are saved as plain text, under exactly the names that the instructions give: no second ending.',
				...(network.way === 'radio'
					? {
							caution:
								'A password lies there in clear. See after the first start that the image has taken it away; if not, do it.'
						}
					: {})
			}
		];
	if (network.school === 'hotspot')
		return [
			{
				id: 'hotspot-join',
				phase: 'first start',
				needs: ['powered'],
				do: 'Wait two minutes. The endpoint opens a Wi-Fi network of its own, named in its image\u2019s instructions; join it with your phone.',
				expect: 'The phone warns that there is no internet: stay with it, and switch mobile data off.'
			},
			{
				id: 'hotspot-page',
				phase: 'first start',
				do: `Open the page that its instructions name, mostly the router\u2019s address that the phone shows. Choose ${network.ssid ? `"${network.ssid}"` : 'your Wi-Fi network'} and type its password.`,
				expect: 'The endpoint\u2019s own network goes away within a minute.',
				caution: 'Until then anybody near can join it. Do this first of all, and do not leave it standing.'
			},
			{
				id: 'hotspot-back',
				phase: 'first start',
				makes: ['found'],
				do: 'Join your usual network again with the phone.',
				expect: 'The endpoint is now on the same network.'
			}
		];
	if (network.school === 'screen')
		return [
			{
				id: 'screen-join',
				phase: 'assemble',
				needs: ['boxed', 'on header'],
				makes: ['joined'],
				do: 'Join a screen and a keyboard before power comes; both go back when all is done.',
				expect: 'Text, then questions: language, keyboard, user, password, network.'
			},
			{
				id: 'screen-answers',
				phase: 'first start',
				needs: ['powered'],
				makes: ['found'],
				do: `Answer: keyboard ${network.keyboard}, language ${network.locale}, user ${network.user || 'of your choice'}, host name ${network.hostName}${network.ssid ? `, Wi-Fi network "${network.ssid}"` : ''}.`,
				expect: 'It ends at a prompt, or at its own page.',
				caution: 'Never keep the user and password that an image brings. They are the first that strangers try.'
			}
		];
	return [];
}

/** Both schools: by itself, or by whoever looks after it. */
const updateSteps = (settings: NetworkSettings, context: Context): Step[] => [
	updatesNightly(settings)
		? {
				id: 'updates-look',
				phase: 'live',
				do: 'Once a month, see that updates came, and restart it: a new kernel counts from then.',
				command: `systemctl status ${UPDATES}.service; sudo systemctl reboot`,
				expect: 'Its last run succeeded; it comes back as before.'
			}
		: {
				id: 'updates-by-hand',
				phase: 'live',
				do: 'Once a month, bring it up to date when nobody listens, and play one title afterwards.',
				command: `sudo ${context.facts.root === 'overlay' ? 'overlayroot-chroot ' : ''}sh -c 'apt-get update && apt-get upgrade'; sudo systemctl reboot`,
				expect: 'It lists what is new and asks once. It comes back as before.'
			}
];

function routerSteps(network: NetworkSettings): Step[] {
	return network.address.kind === 'reserved' && network.address.ip
		? [
				{
					id: 'reserve',
					phase: 'first start',
					needs: ['powered'],
					makes: ['found'],
					do: `In the router, reserve ${network.address.ip} for the device named ${network.hostName}, by its hardware address; then restart the endpoint.`,
					expect: 'The router\u2019s list shows it at that address.'
				}
			]
		: [];
}

function findSteps(network: NetworkSettings): Step[] {
	const fixed = network.address.kind !== 'free' && network.address.ip !== '';
	return [
		{
			id: 'find-it',
			phase: 'first start',
			needs: ['powered', 'found'],
			makes: ['found'],
			do: `Look for ${network.hostName} in your router\u2019s list of devices; or ask for it by name. When the name is not found, use the number.`,
			command: `ping -c 3 ${fixed ? network.address.ip : `${network.hostName}.local`}`,
			expect: `It answers within ${FIRST_START_MIN} minutes of the first power-on, later within one. Worry after twice as long: then look whether its light still flickers, and whether the network\u2019s name and country are right.`,
			reading: 'its address'
		}
	];
}

function loginSteps(network: NetworkSettings): Step[] {
	if (!network.user || network.login === 'none') return [];
	return [
		{
			id: 'log-in',
			phase: 'first start',
			needs: ['powered', 'found'],
			makes: ['logged in'],
			do: `Log in once, ${network.login === 'key' ? 'with your key' : 'with the password that you gave when the set was written'}.`,
			command: `ssh ${network.user}@${network.hostName}.local`,
			expect: `A prompt that names ${network.hostName}. At the first time it shows a fingerprint: compare it when a screen is at hand.`
		}
	];
}

function pageSteps(settings: NetworkSettings, context: Context): Step[] {
	return settings.pages.map((page, n): Step => ({
		id: `page-${n}`,
		phase: 'check',
		do: `Open ${page.what} in a browser on the same network: ${pageUrl(settings, page)}${page.password ? ', and give it a password that is nowhere else' : ''}.`,
		expect: page.tls
			? 'The browser warns once, because the endpoint vouches for itself.'
			: `The page of ${context.facts.endpointName} at ${context.venue.name}.`
	}));
}
