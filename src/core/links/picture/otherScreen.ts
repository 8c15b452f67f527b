import type { BenchScreen } from './bench';

/** What stands in for the set: an old monitor that says nothing of itself. */
export const OTHER_SCREEN: Omit<BenchScreen, 'connector'> = {
	name: 'Another monitor',
	edid: '',
	ranges: { hMinKhz: 30, hMaxKhz: 50, vMinHz: 50, vMaxHz: 62 },
	afterCut: 'comes-on',
	hearsCec: false,
	socketLine: null,
	fixed: null,
	wayMhz: 80,
	outputMhz: 2000,
	cuts: { left: 0, right: 0, top: 0, bottom: 0 },
	hangsDeg: 0,
	wakesMs: 2000,
	bitsPerColour: 8
};
