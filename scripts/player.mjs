// The player page as card sets carry it: src/player bundled into one script, with its style sheet and typefaces, as a module that
// imports nothing: `virtual:player`.
import { createHash } from 'node:crypto';
import { readFileSync, readdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { build } from 'vite';

const root = resolve(import.meta.dirname, '..');
const PLAYER = resolve(root, 'src/player');
const FONTS = [
	['Atkinson Hyperlegible Next Variable', 'next', 'normal'],
	['Atkinson Hyperlegible Next Variable', 'next', 'italic'],
	['Atkinson Hyperlegible Mono Variable', 'mono', 'normal']
];
/** The typefaces may go along wherever their licence goes with them. Source: SIL Open Font License 1.1, 2). */
const LICENCE = {
	file: 'LICENSE.txt',
	base64: readFileSync(resolve(root, 'node_modules/@fontsource-variable/atkinson-hyperlegible-next/LICENSE')).toString(
		'base64'
	)
};
/** Which characters are in which file. Source: the package's own style sheet. */
const PARTS = {
	latin:
		'U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215, U+FEFF, U+FFFD',
	'latin-ext':
		'U+0100-02BA, U+02BD-02C5, U+02C7-02CC, U+02CE-02D7, U+02DD-02FF, U+1E00-1E9F, U+1EF2-1EFF, U+2020, U+20A0-20AB, U+20AD-20C0, U+2113, U+2C60-2C7F, U+A720-A7FF'
};

/** Made once in a run. @type {Promise<string> | null} */
let made = null;
const script = () => (made ??= bundle());

async function bundle() {
	const built = await build({
		configFile: false,
		root,
		logLevel: 'silent',
		build: {
			write: false,
			target: 'chrome110',
			copyPublicDir: false,
			lib: { entry: resolve(PLAYER, 'main.ts'), formats: ['iife'], name: 'yphosPlayer' }
		}
	});
	const [first] = /** @type {import('vite').Rollup.RollupOutput[]} */ ([built].flat());
	return first?.output[0].code ?? '';
}

/** @returns {import('vite').Plugin} */
export const playerPage = () => ({
	name: 'player-page',
	resolveId: (id) => (id === 'virtual:player' || id === 'virtual:player-digest' ? `\0${id}` : null),
	async load(id) {
		if (id === '\0virtual:player-digest')
			return `export const PLAYER_SHA256 = '${createHash('sha256')
				.update(await script())
				.digest('hex')}';`;
		if (id !== '\0virtual:player') return null;
		for (const name of readdirSync(PLAYER)) this.addWatchFile(resolve(PLAYER, name));
		const fonts = FONTS.flatMap(([family, name, style]) =>
			Object.entries(PARTS).map(([part, range]) => {
				const file = `atkinson-hyperlegible-${name}-${part}-wght-${style}.woff2`;
				const path = resolve(root, `node_modules/@fontsource-variable/atkinson-hyperlegible-${name}/files/${file}`);
				return { family, style, range, file, base64: readFileSync(path).toString('base64') };
			})
		);
		const faces = fonts.map(
			({ family, style, range, file }) =>
				`@font-face{font-family:'${family}';font-style:${style};font-display:block;font-weight:200 800;src:url(fonts/${file}) format('woff2-variations');unicode-range:${range}}`
		);
		const style = `${faces.join('\n')}\n${readFileSync(resolve(PLAYER, 'player.css'), 'utf8')}`;
		return [
			`export const PLAYER_SCRIPT = ${JSON.stringify(await script())};`,
			`export const PLAYER_STYLE = ${JSON.stringify(style)};`,
			`export const PLAYER_FONTS = ${JSON.stringify([...fonts.map(({ file, base64 }) => ({ file, base64 })), LICENCE])};`
		].join('\n');
	}
});
