/** Does the way to it carry what it needs, and fast enough to be felt as at once? */
import { claimsOn, type Claim } from '../../claims';
import { formatBps, withUnit } from '../../basics/format';
import type { Context } from '../../link/context';
import type { Finding, Fix } from '../../link/finding';
import { computeNeed, latencyMs, pathOf } from './need';
import { networkWays } from '../../parts/networkOf';
import { patch } from './patch';
import type { NetworkSettings } from './settings';

/** A hand that moves a pointer feels more than this. Source: ITU-T G.1010, interactive games and screens, 200 ms at most; a tenth of it is felt. */
const FELT_MS = 50;

/** Whether what a second screen shows lags so far behind that it is felt. */
export function assessLatency(settings: NetworkSettings, context: Context): Finding[] {
	const { worst } = latencyMs(settings);
	if (context.facts.wish !== 'second-screen' || worst <= FELT_MS) return [];
	return [
		{
			id: 'network.late-answers',
			level: 'caution',
			title: `A second screen that answers after up to ${withUnit(worst, 0, 'ms')}`,
			why: `More than ${FELT_MS}\u2009ms are felt when a pointer moves. A cable answers within one.`,
			setting: 'network.way',
			fixes: networkWays(context)?.wiredMbps != null ? [patch('Use Ethernet', { way: 'wired' })] : []
		}
	];
}

/** Below half of the path nothing is noticed; above all of it something stutters. */
export function assessCapacity(settings: NetworkSettings, context: Context, claims: readonly Claim[]): Finding[] {
	const path = pathOf(settings, context);
	const need = computeNeed(claims);
	if (!path || need.busiestBps === 0) return [];
	const shares = claimsOn(claims, 'path').filter((claim) => claim.writes);
	const radio = settings.way === 'radio';
	const toWire: Fix[] =
		radio && networkWays(context)?.wiredMbps != null ? [patch('Use Ethernet', { way: 'wired' })] : [];
	const findings: Finding[] = [];
	if (need.busiestBps > path.realBps)
		findings.push({
			id: 'network.too-slow',
			level: 'stop',
			title: `The ${radio ? 'Wi-Fi' : 'cable'} gives ${formatBps(path.realBps)}, ${formatBps(need.busiestBps)} are needed`,
			why: `${need.who} would stutter. ${radio ? 'Move the endpoint or the access point, use the upper band, or lay a cable.' : 'A faster socket is needed.'}`,
			setting: radio ? 'network.radio' : 'network.way',
			fixes: toWire
		});
	else if (need.busiestBps > path.realBps / 2)
		findings.push({
			id: 'network.thin',
			level: 'caution',
			title: `Only ${withUnit(((path.realBps - need.busiestBps) / path.realBps) * 100, 0, '%')} of the path is left`,
			why: `${need.who} takes ${formatBps(need.busiestBps)} of ${formatBps(path.realBps)}. A neighbour\u2019s evening is enough to make it stutter.`,
			setting: radio ? 'network.radio' : 'network.way',
			fixes: toWire
		});
	if (radio && shares.length)
		findings.push({
			id: 'network.record-by-radio',
			level: 'caution',
			title: 'A recording goes to a share by Wi-Fi',
			why: `${formatBps(Math.max(...shares.map((claim) => claim.bitsPerSec)))} must arrive without a gap of more than some seconds, and a gap in a recording stays for ever. ${formatBps(path.realBps)} are there on average, not always.`,
			setting: 'network.way',
			fixes: toWire
		});
	return findings;
}
