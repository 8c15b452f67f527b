import type { Claim } from '../../claims';

type PowerClaim = Extract<Claim, { on: 'power' }>;

/** One USB device, and which sockets feed it. */
export interface UsbPlace {
	readonly what: string;
	readonly amperes: number;
	readonly surgeA: number;
	readonly at: 'board' | 'plain hub' | 'powered hub';
}

/** USB gives 5 V. Source: USB 2.0, 7.2.2. */
const USB_V = 5;

/**
 * Which device sits where, as a careful person would plug them: the hungriest into a hub with its own supply, the rest into
 * the board, and what finds no socket there into a plain hub, whose devices share one socket of the board.
 */
export function placeUsb(
	claims: readonly PowerClaim[],
	sockets: number,
	hubs: readonly { ports: number; powered: boolean }[]
): UsbPlace[] {
	const devices = claims
		.filter((claim) => claim.via === 'usb')
		.flatMap((claim) =>
			Array.from({ length: claim.count }, () => ({
				what: claim.what,
				amperes: claim.peakW / USB_V,
				surgeA: claim.surgeW / USB_V
			}))
		)
		.sort((a, b) => b.amperes - a.amperes);
	let fed = hubs.filter(({ powered }) => powered).reduce((sum, { ports }) => sum + ports, 0);
	const hasPlainHub = hubs.some(({ powered }) => !powered);
	// Each hub takes a socket itself.
	let free = sockets - hubs.length;
	return devices.map((device) => {
		if (fed > 0) {
			fed--;
			return { ...device, at: 'powered hub' };
		}
		if (free > 0 || !hasPlainHub) {
			free--;
			return { ...device, at: 'board' };
		}
		return { ...device, at: 'plain hub' };
	});
}

/** What hangs on the board's USB sockets, A. */
export interface UsbLoad {
	readonly totalA: number;
	/** The most that one socket of the board must give. */
	readonly busiestA: number;
	readonly devices: number;
}

/** Sums what each socket gives; a hub with its own supply takes nothing from the board. */
export function computeUsbLoad(places: readonly UsbPlace[]): UsbLoad {
	const onBoard = places.filter(({ at }) => at === 'board').map(({ amperes }) => amperes);
	const onPlainHub = places.filter(({ at }) => at === 'plain hub').reduce((sum, { amperes }) => sum + amperes, 0);
	return {
		totalA: onBoard.reduce((sum, a) => sum + a, 0) + onPlainHub,
		busiestA: Math.max(0, ...onBoard, onPlainHub),
		devices: places.length
	};
}
