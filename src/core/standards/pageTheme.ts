import { z } from 'zod';

const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is written as # and six digits, such as #0f231d.');

/** Typefaces that ship with the app, and so with the card set. */
export const FONTS = ['hyperlegible', 'mono'] as const;

/** How the venue's notices look. */
export const noticeTheme = z.object({
	/** Behind everything. */
	ground: colour,
	/** Behind each zone. */
	panel: colour,
	ink: colour,
	/** Headings, curves, what matters most. */
	accent: colour,
	font: z.enum(FONTS),
	/** Free on all sides, of the shorter side, %. */
	marginPercent: z.number().min(0).max(15),
	/** Between zones, of the shorter side, %. */
	gapPercent: z.number().min(0).max(5)
});
/** The same, as a type. */
export type NoticeTheme = z.infer<typeof noticeTheme>;

/** What a venue begins with. */
export const CALM_THEME: NoticeTheme = {
	ground: '#10231d',
	panel: '#1c3a31',
	ink: '#f4f0e4',
	accent: '#9fe0c8',
	font: 'hyperlegible',
	marginPercent: 3,
	gapPercent: 1.5
};
/** Themes of our own to begin with. */
export const THEMES: readonly { readonly title: string; readonly theme: NoticeTheme }[] = [
	{ title: 'Deep water', theme: CALM_THEME },
	{
		title: 'Paper',
		theme: { ...CALM_THEME, ground: '#f4f0e4', panel: '#fffdf6', ink: '#14231d', accent: '#0b5a47' }
	},
	{
		title: 'Night watch',
		theme: { ...CALM_THEME, ground: '#000000', panel: '#151515', ink: '#ffffff', accent: '#ffd166' }
	}
];

/** One channel of sRGB as light. Source: WCAG 2.2, relative luminance; IEC 61966-2-1. */
const light = (byte: number): number => {
	const share = byte / 255;
	return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};
const channels = (hex: string): [number, number, number] => [
	parseInt(hex.slice(1, 3), 16),
	parseInt(hex.slice(3, 5), 16),
	parseInt(hex.slice(5, 7), 16)
];
/** Relative luminance of "#rrggbb", 0 to 1. Source: WCAG 2.2, definitions. */
export function luminance(hex: string): number {
	const [r, g, b] = channels(hex);
	return 0.2126 * light(r) + 0.7152 * light(g) + 0.0722 * light(b);
}
/** Contrast of two colours, 1 to 21. Source: WCAG 2.2, contrast ratio. */
export function contrast(a: string, b: string): number {
	const [x, y] = [luminance(a), luminance(b)];
	return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
}

/** Pages are read from afar, in passing, through reflections: as much as for body text under the stricter rule. Source: WCAG 2.2, 1.4.6. */
export const LEAST_CONTRAST = 7;

/** The nearest to a colour, towards white or black, that has the contrast on all of these grounds; null: neither has. */
export function towardsContrast(hex: string, grounds: readonly string[], least: number): string | null {
	const enough = (one: string): boolean => grounds.every((ground) => contrast(one, ground) >= least);
	const from = channels(hex);
	for (let step = 0; step <= 20; step++)
		for (const end of [255, 0]) {
			const mixed = `#${from
				.map((byte) =>
					Math.round(byte + ((end - byte) * step) / 20)
						.toString(16)
						.padStart(2, '0')
				)
				.join('')}`;
			if (enough(mixed)) return mixed;
		}
	return null;
}
