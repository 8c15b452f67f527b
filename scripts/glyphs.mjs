// Makes src/core/links/notices/pages/glyphTable.ts anew: how wide the shipped typefaces set each character, measured in a browser.
// node scripts/glyphs.mjs
import { readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { root } from './run.mjs';

const FAMILIES = { hyperlegible: 'next', mono: 'mono' };
/** Latin with its accents, and the marks that text is set with. */
const CHARACTERS = [
	...Array.from({ length: 0x7f - 0x20 }, (_, n) => 0x20 + n),
	...Array.from({ length: 0x180 - 0xa0 }, (_, n) => 0xa0 + n),
	...[0x2009, 0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2026, 0x20ac, 0x2212]
];
const fontFile = (name, part) =>
	resolve(
		root,
		`node_modules/@fontsource-variable/atkinson-hyperlegible-${name}/files/atkinson-hyperlegible-${name}-${part}-wght-normal.woff2`
	);

const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage();
const measured = {};
for (const [family, name] of Object.entries(FAMILIES)) {
	const fonts = ['latin', 'latin-ext'].map((part) => readFileSync(fontFile(name, part)).toString('base64'));
	measured[family] = await page.evaluate(
		async ({ fonts, characters, family }) => {
			for (const font of fonts) {
				const face = new FontFace(family, `url(data:font/woff2;base64,${font})`, { weight: '200 800' });
				document.fonts.add(await face.load());
			}
			const context = document.createElement('canvas').getContext('2d');
			const widths = (weight) => {
				context.font = `${weight} 1000px ${family}`;
				return characters.map((code) => Math.round(context.measureText(String.fromCharCode(code)).width));
			};
			context.font = `400 1000px ${family}`;
			const capital = Math.round(context.measureText('H').actualBoundingBoxAscent);
			return { plain: widths(400), bold: widths(700), capital };
		},
		// The wider range first: of two faces that hold a character the later one is taken.
		{ fonts: fonts.toReversed(), characters: CHARACTERS, family }
	);
}
await browser.close();
const rows = (list) =>
	Array.from(
		{ length: Math.ceil(list.length / 24) },
		(_, n) => `\t\t\t${list.slice(n * 24, n * 24 + 24).join(', ')}`
	).join(',\n');
writeFileSync(
	resolve(root, 'src/core/links/notices/pages/glyphTable.ts'),
	`/** Made by scripts/glyphs.mjs from the shipped typefaces; do not edit. Widths in thousandths of the font's size, by \`GLYPHS\`. */
export const GLYPHS = String.fromCharCode(
${rows(CHARACTERS)}
);
/** Widths at weights 400 and 700, and the height of a capital H, in thousandths. */
export const GLYPH_WIDTHS = {
${Object.entries(measured)
	.map(
		([family, { plain, bold, capital }]) =>
			`\t${family}: {\n\t\tcapital: ${capital},\n\t\tplain: [\n${rows(plain)}\n\t\t],\n\t\tbold: [\n${rows(bold)}\n\t\t]\n\t}`
	)
	.join(',\n')}
} as const;
`
);
