import { signatureBy, tellerFor, toStream, type Machine, type WebAnswer } from '../../engines/machine';
import { cardBytes } from '../../files/cardBytes';
import { lines, textFile } from '../../files/cardFile';
import { CONTENT_NOW } from '../../files/content';
import type { CardFile } from '../../link/file';
import { DELIVERY_FAULTS } from './faults';
import { packContent, type Pack } from './pack';
import { DELIVERY_WORDS } from './words';

type FaultName = keyof typeof DELIVERY_FAULTS;
const isOurs = (name: string): name is FaultName => Object.hasOwn(DELIVERY_FAULTS, name);
const SAYS = { 'set-spoilt': 'spoilt', 'set-forged': 'forged', 'set-dead': 'dead', 'set-endless': 'endless' } as const;
const GONE: WebAnswer = { code: 22, why: 'The requested URL returned error: 404' };
const BROKEN: WebAnswer = { code: 18, why: 'transfer closed with outstanding read data remaining', afterMs: 60_000 };

/** What stands at the address: the content of the card itself, packed once more, and what may befall it. */
export default function rehearseDelivery(machine: Machine): void {
	const { delivery } = machine.bench;
	const tell = tellerFor(machine, 'delivery', DELIVERY_WORDS);
	let pack: Pack | null = null;
	let served = 0;
	machine.on('fault', ({ name, on }) => {
		if (!isOurs(name)) return;
		if (on && delivery) {
			pack = packContent(newContent(machine, name === 'set-dead'), {
				hostName: delivery.packedFor,
				number: Math.floor(machine.nowUtcMs / 1000),
				era: delivery.era
			});
			served = 0;
			tell.event('set-there', 'fault', { address: delivery.address });
		}
		if (name === 'set-breaks-off' && !on) tell.event('comes-back', 'fault');
		else if (on && name in SAYS) tell.event(SAYS[name as keyof typeof SAYS], 'fault');
	});
	function answer(name: string): WebAnswer {
		if (!delivery || !pack) return GONE;
		if (machine.activeFaults.has('set-endless')) return { text: '', bytes: null, endless: true };
		if (name === 'manifest.txt') return { text: pack.manifest, bytes: null };
		if (name === 'manifest.txt.sig') {
			const signer = machine.activeFaults.has('set-forged') ? 'somebody else' : delivery.signedBy;
			return signer === '' ? GONE : { text: signatureBy(signer, pack.manifest), bytes: null };
		}
		const found = pack.files.find(({ digest }) => name === `files/${digest}`);
		if (!found) return GONE;
		served++;
		if (machine.activeFaults.has('set-breaks-off') && served > 1) {
			if (served === 2) tell.event('breaks-off', 'bad');
			return BROKEN;
		}
		if (machine.activeFaults.has('set-spoilt')) return { text: 'spoilt\n', bytes: null };
		return 'lines' in found.file
			? { text: found.file.lines.map(({ text }) => `${text}\n`).join(''), bytes: null }
			: { text: '', bytes: cardBytes(found.file) };
	}
	const nameOf = (address: string): string | null =>
		delivery && address.startsWith(`${delivery.address}/`) ? address.slice(delivery.address.length + 1) : null;
	machine.web.push((address) => {
		const name = nameOf(address);
		return name === null ? null : answer(name);
	});
	// A folder of a share or a stick is read as files are.
	if (delivery?.address.startsWith('/'))
		machine.disk.mounts.push({
			prefix: delivery.address,
			read(path) {
				const name = nameOf(path);
				const given = name === null ? GONE : answer(name);
				return 'why' in given
					? null
					: given.bytes
						? toStream(given.bytes)
						: given.endless
							? 'x'.repeat(2_000_000)
							: given.text;
			},
			list: () => []
		});
	let shown: string | undefined;
	machine.world.onChange(() => {
		const now = machine.disk.links.get(CONTENT_NOW);
		if (now === shown || now === undefined) return;
		const set = /\/sets\/\d+-(\d+)$/.exec(now)?.[1];
		if (set !== undefined) tell.event('shows-set', 'info', { set });
		else if (shown !== undefined) tell.event('shows-card', 'info');
		shown = now;
	});
}

/** The same pages and lists with a word more, so that there is something new; `dead`: without what makes them play. */
function newContent({ card }: Machine, dead: boolean): CardFile[] {
	return [...card].map(([path, { text, bytes }]): CardFile => {
		const isPage = path.endsWith('/notices/index.html');
		if (bytes && !isPage && !path.endsWith('.m3u8')) return { path, mode: '0644', why: '', bytes, setting: 'delivery' };
		const old = bytes ? new TextDecoder().decode(bytes) : text;
		let its = old;
		if (isPage) its = dead ? old.replace(/<script src=.*\n/, '') : old.replace('<title>', '<title>New: ');
		else if (path.endsWith('.m3u8')) its = dead ? '#EXTM3U\n' : `${old}# new\n`;
		return textFile(path, '', lines('delivery', ...its.replace(/\n$/, '').split('\n')));
	});
}
