/** The plugs and sockets by which parts meet, in the words a person would use, with the standard that rules the shape. */
export const PLUGS = {
	'usb-a': { words: 'USB-A', source: 'USB 2.0, clause 6' },
	'usb-b': { words: 'USB-B', source: 'USB 2.0, clause 6' },
	'usb-c': { words: 'USB-C', source: 'IEC 62680-1-3' },
	'micro-usb': { words: 'Micro-USB', source: 'USB Micro-USB cables and connectors 1.01' },
	barrel: { words: 'round 5.5 mm power plug', source: 'by custom, 5.5 × 2.1 mm' },
	'mains-c8': { words: 'two-pole mains inlet', source: 'IEC 60320-1, C8' },
	'mains-c14': { words: 'earthed mains inlet', source: 'IEC 60320-1, C14' },
	'mains-wall': { words: 'wall socket', source: 'the plug of your country' },
	display: { words: 'HDMI', source: 'CTA-861, type A' },
	'display-mini': { words: 'mini HDMI', source: 'CTA-861, type C' },
	'display-micro': { words: 'micro HDMI', source: 'CTA-861, type D' },
	dvi: { words: 'DVI', source: 'DVI 1.0, clause 5' },
	vga: { words: 'VGA', source: 'by custom, DE-15' },
	composite: { words: 'yellow video socket', source: 'IEC 60574-4' },
	'flat-display': { words: 'flat display cable', source: 'the board maker\u2019s' },
	'jack-3': { words: '3.5 mm stereo jack', source: 'IEC 60603-11' },
	'jack-4': { words: '3.5 mm four-pole jack', source: 'by custom; its poles differ between makers' },
	'rca-pair': { words: 'red and white audio sockets', source: 'IEC 60574-4' },
	xlr: { words: 'balanced three-pole (XLR)', source: 'IEC 61076-2-103' },
	coax: { words: 'coaxial digital', source: 'IEC 60958-3' },
	optical: { words: 'optical digital', source: 'IEC 60874-17' },
	'speaker-wire': { words: 'speaker terminals', source: 'by custom' },
	network: { words: 'Ethernet socket', source: 'IEC 60603-7' },
	aerial: { words: 'push-on aerial plug', source: 'IEC 61169-2' },
	f: { words: 'screw-on aerial plug (F)', source: 'IEC 61169-24' },
	mcx: { words: 'tiny snap-on aerial plug (MCX)', source: 'IEC 61169-36' },
	header: { words: '40-pin header', source: 'standards/header40' },
	'fan-header': { words: 'small fan socket', source: 'the board maker\u2019s' }
} as const;
/** The name of a kind of plug. */
export type Plug = keyof typeof PLUGS;
/** All names of plugs, as the schema takes them. */
export const PLUG_IDS = Object.keys(PLUGS) as [Plug, ...Plug[]];

/** What a lead or a socket can carry. */
export const CARGO = ['power', 'picture', 'sound', 'touch', 'data', 'aerial'] as const;
/** One of the things that a lead can carry. */
export type Cargo = (typeof CARGO)[number];

/** One end of a lead, or the place on a part where it goes. */
export interface End {
	readonly plug: Plug;
	/** True for the end that goes in. */
	readonly male: boolean;
}

/** Two ends meet when they are of one kind and one goes into the other. */
export const meets = (a: End, b: End): boolean => a.plug === b.plug && a.male !== b.male;
