import { claimsOn, type Claim } from '../../claims';
import type { Context, Finding } from '../../link';
import type { Plan } from '../../plan/plan';

export function assessNetwork(plan: Plan, context: Context, claims: readonly Claim[]): Finding[] {
	const { network } = plan;
	const findings: Finding[] = [];
	const board = context.part('board', plan.parts.board);
	const streams = claimsOn(claims, 'path');
	const go = (way: 'wired' | 'radio') => ({
		label: way === 'wired' ? 'Use the cable' : 'Use the radio network',
		apply: (p: Plan) => ({ ...p, network: { ...p.network, way } })
	});
	if (network.way === 'none' && streams.length)
		findings.push({
			id: 'network.streams-without',
			level: 'stop',
			title: streams.length === 1 ? 'A stream, but no network' : `${streams.length} streams, but no network`,
			why: `${streams
				.map((claim) => claim.what)
				.slice(0, 3)
				.join(', ')} cannot be fetched. Join a network, or play only what is on the card.`,
			setting: 'network.way',
			fixes: [go('wired'), ...(board?.radio ? [go('radio')] : [])]
		});
	if (network.way === 'radio' && board && !board.radio)
		findings.push({
			id: 'network.no-radio',
			level: 'stop',
			title: 'This board has no radio',
			why: `${board.name} joins by cable only. Use the cable, or choose a board with radio.`,
			setting: 'network.way',
			fixes: [go('wired')]
		});
	if (network.way === 'wired' && board && !board.wired)
		findings.push({
			id: 'network.no-socket',
			level: 'stop',
			title: 'This board has no network socket',
			why: `${board.name} joins by radio only.`,
			setting: 'network.way',
			fixes: board.radio ? [go('radio')] : []
		});
	if (network.way === 'radio' && network.ssid === '')
		findings.push({
			id: 'network.no-ssid',
			level: 'stop',
			title: 'Which radio network?',
			why: 'Type its name exactly as your phone shows it: capitals and spaces count.',
			setting: 'network.ssid',
			fixes: []
		});
	if (network.way === 'radio' && network.countryCode === '')
		findings.push({
			id: 'network.no-country',
			level: 'caution',
			title: 'The radio does not know its country',
			why: 'Some boards keep their radio off until the country is set, and others may use channels that are not allowed where you are.',
			setting: 'network.countryCode',
			fixes: []
		});
	const twin = context.otherHostNames.find((other) => other.hostName === network.hostName);
	if (twin)
		findings.push({
			id: 'network.same-name',
			level: 'stop',
			title: `${twin.name} has this host name too`,
			why: 'Two endpoints of one name hide each other on the network.',
			setting: 'network.hostName',
			fixes: [
				{
					label: `Name it ${free(network.hostName, context)}`,
					apply: (p) => ({ ...p, network: { ...p.network, hostName: free(network.hostName, context) } })
				}
			]
		});
	return findings;
}

function free(name: string, context: Context): string {
	const taken = new Set(context.otherHostNames.map((other) => other.hostName));
	for (let n = 2; ; n++) if (!taken.has(`${name}-${n}`)) return `${name}-${n}`;
}
