// npm run trial: holds the README's "Add a link to the chain" against the truth. In a copy of the sources a link is added exactly by it,
// and nothing else is touched; then types, lint, the unit tests that know of all links, the build and a visit by a browser must pass.
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { chromium } from '@playwright/test';
import { ensureChromium, LAUNCH } from './chromium.mjs';
import { ensurePackages } from './ensure.mjs';
import { capture, root } from './run.mjs';

const copy = resolve(root, '.cache/trial');

/** What somebody would write by hand for a link that says where the papers of an endpoint lie. */
const FILES = {
	'src/core/links/papers/settings.ts': `import { z } from 'zod';
import { lineText } from '../../basics/text';

/** Where guarantee and bills lie, and for how long they are kept. */
export const papersSettings = z.object({
	place: lineText(80),
	years: z.number().int().min(0).max(30)
});
/** The papers' slice of a plan. */
export type PapersSettings = z.infer<typeof papersSettings>;
`,
	'src/core/links/papers/offers.ts': `export {};

declare module '../../facts' {
	interface Facts {
		/** Where its papers lie. */
		readonly papersAt: string;
	}
}
declare module '../../link/step' {
	interface Conditions {
		'papers kept': true;
	}
}
`,
	'src/core/links/papers/index.ts': `/** The papers: where guarantee and bills lie. */
import type { Link } from '../../link';
import { papersSettings, type PapersSettings } from './settings';
import './offers';

/** The link that knows where the papers lie. */
export const papers: Link<'papers', PapersSettings> = {
	id: 'papers',
	title: 'Papers',
	settings: papersSettings,
	version: 1,
	empty: () => ({ place: '', years: 2 }),
	key: 'j',
	place: { column: 'world', row: 9, wires: [{ to: 'brief', carries: 'rule' }] },
	publish: ({ place }) => ({ papersAt: place }),
	figures: ({ place, years }) => [
		{
			id: 'kept',
			setting: 'papers.years',
			label: 'Kept for',
			text: \`\${years} years\`,
			value: years,
			sure: 'exact',
			from: place === '' ? 'You set it.' : \`You set it; they lie in \${place}.\`,
			telling: true
		}
	]
};
`,
	'src/core/links/papers/fields.ts': `import type { Fields } from '../../manifest';
import type { PapersSettings } from './settings';

export default {
	place: { label: 'Where the papers lie', words: 'guarantee bill receipt drawer' },
	years: { label: 'Kept for' }
} satisfies Fields<PapersSettings>;
`,
	'src/core/links/papers/findings.ts': `import type { Judge } from '../../manifest';
import type { PapersSettings } from './settings';

export default (({ place }) =>
	place === ''
		? [
				{
					id: 'papers.nowhere',
					level: 'note',
					title: 'Nobody knows where the papers lie',
					why: 'Without the bill no guarantee holds. Say where you put it.',
					setting: 'papers.place',
					fixes: [{ label: 'In the drawer of the desk', apply: (plan) => ({ ...plan, papers: { ...plan.papers, place: 'the drawer of the desk' } }) }]
				}
			]
		: []) satisfies Judge<PapersSettings>;
`,
	'src/core/links/papers/writes.ts': `import { lines, rootPath, textFile } from '../../files/cardFile';
import type { Writes } from '../../manifest';
import type { PapersSettings } from './settings';

export default {
	files: ({ place }) =>
		place === ''
			? []
			: [textFile(rootPath('/usr/local/share/yphos-papers.txt'), 'Where its papers lie.', lines('papers.place', place))],
	steps: () => [{ id: 'keep', phase: 'gather', do: 'Put the bills where you will find them.', makes: ['papers kept'] }]
} satisfies Writes<PapersSettings>;
`,
	'src/core/links/papers/words.ts': `import type { Words } from '../../engines/machine';

/** The papers' events in words, by code. */
export const PAPERS_WORDS = {
	there: ({ place }: { place: string }) => \`The card says where its papers lie: \${place}\`
} as const satisfies Words;

export default PAPERS_WORDS;
`,
	'src/core/links/papers/rehearse.ts': `import { tellerFor, type Machine } from '../../engines/machine';
import { PAPERS_WORDS } from './words';

/** Says what the card says. */
export default function rehearsePapers(machine: Machine): void {
	const tell = tellerFor(machine, 'papers', PAPERS_WORDS);
	machine.on('userspace', () => {
		const place = machine.disk.read('/usr/local/share/yphos-papers.txt');
		if (place !== null) tell.event('there', 'info', { place: place.trim() });
	});
}
`,
	'src/lib/worktops/papers/PapersSettings.svelte': `<script lang="ts">
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { NumberField, TextField } from '$lib/fields';

	const view = useEndpoint();
</script>

<TextField path="papers.place" value={view.plan.papers.place} />
<NumberField path="papers.years" unit="years" value={view.plan.papers.years} />
`,
	'src/lib/worktops/papers/worktop.ts': `import type { Worktop } from '../worktop';
import PapersSettings from './PapersSettings.svelte';

const worktop: Worktop = { settings: PapersSettings };
export default worktop;
`
};
/** The one line outside the link's own folders, and its import. */
const LINES = [
	[
		'src/core/chain.ts',
		"import { parts } from './links/parts';",
		"import { papers } from './links/papers';\nimport { parts } from './links/parts';"
	],
	['src/core/chain.ts', '\tdelivery\n] as const;', '\tdelivery,\n\tpapers\n] as const;']
];
/** Unit tests that go through all links. */
const TESTS = [
	'src/core/links/links.test.ts',
	'src/core/manifest.test.ts',
	'src/core/plan',
	'src/lib/shell',
	'src/lib/store',
	'src/core/engines/runSheet.test.ts',
	'src/core/engines/engines.test.ts'
];

let failed = 0;
/**
 * @param {string} name
 * @param {{ code: number, out?: string, err?: string }} done
 */
function step(name, { code, out = '', err = '' }) {
	console.log(`${code === 0 ? 'passed' : 'FAILED'}: ${name}`);
	if (code === 0) return;
	failed++;
	console.log((out + err).split('\n').slice(-60).join('\n'));
}
/** @param {string} name @param {readonly string[]} args @param {object} [env] */
const inCopy = (name, args, env = {}) =>
	capture(resolve(root, 'node_modules/.bin', name), args, { cwd: copy, env: { ...process.env, ...env } });

ensurePackages();
ensureChromium();
rmSync(copy, { recursive: true, force: true });
const sources = capture('git', ['ls-files', '-z', '--cached', '--others', '--exclude-standard']).out.split('\0');
for (const path of sources.filter((known) => known !== '' && !known.startsWith('docs/screenshots/'))) {
	mkdirSync(dirname(resolve(copy, path)), { recursive: true });
	try {
		cpSync(resolve(root, path), resolve(copy, path));
	} catch {
		// It is taken out of the sources, and git does not know yet.
	}
}
symlinkSync(resolve(root, 'node_modules'), resolve(copy, 'node_modules'));
for (const [path, text] of Object.entries(FILES)) {
	mkdirSync(dirname(resolve(copy, path)), { recursive: true });
	writeFileSync(resolve(copy, path), text);
}
for (const [path, before, after] of LINES) {
	const text = readFileSync(resolve(copy, path), 'utf8');
	if (!text.includes(before)) throw new Error(`${path} has no ${before}`);
	writeFileSync(resolve(copy, path), text.replace(before, after));
}

const made = Object.keys(FILES);
console.log(`A link of ${made.length} files, and ${LINES.length} lines outside its folders.`);
step('its shape is noted down', inCopy('vitest', ['run', 'src/core/plan/shapes.test.ts'], { WRITE_SHAPES: '1' }));
step(
	'its files are as the formatter has them',
	inCopy('prettier', ['--write', '--log-level', 'warn', ...made, 'src/core/plan/fixtures/shapes.json'])
);
step('types', [inCopy('svelte-kit', ['sync']), inCopy('svelte-check', ['--fail-on-warnings'])].at(-1));
step('lint', inCopy('eslint', [...made, 'src/core/chain.ts']));
step('unit tests', inCopy('vitest', ['run', ...TESTS]));
step(
	'build',
	[inCopy('vite', ['build']), capture(process.execPath, ['scripts/entry.mjs'], { cwd: copy })].find(
		({ code }) => code !== 0
	) ?? { code: 0 }
);
if (failed === 0) await visit();
console.log(`${failed} failed`);
process.exit(failed ? 1 : 0);

/** Opens it, uses it, and hears of it in the rehearsal. */
async function visit() {
	const PORT = 4178;
	const server = spawn(process.execPath, ['build/index.js', '--port', String(PORT)], { cwd: copy, stdio: 'ignore' });
	for (let tries = 0; tries < 100; tries++) {
		if (
			await fetch(`http://127.0.0.1:${PORT}/`).then(
				({ ok }) => ok,
				() => false
			)
		)
			break;
		await new Promise((resolved) => setTimeout(resolved, 200));
	}
	const browser = await chromium.launch(LAUNCH);
	try {
		const page = await browser.newPage();
		const address = `http://127.0.0.1:${PORT}/endpoint/bunkhouse-lounge`;
		await page.goto(`${address}/plan/papers`);
		await page.getByRole('button', { name: 'In the drawer of the desk' }).click();
		await page.locator('#setting-papers\\.place input').waitFor();
		await page.waitForFunction(() =>
			[...document.querySelectorAll('input')].some(({ value }) => value === 'the drawer of the desk')
		);
		await page.getByRole('navigation', { name: 'The chain' }).getByText('Papers').waitFor();
		await page.goto(`${address}/run-sheet`);
		await page.getByText('Put the bills where you will find them.').waitFor();
		await page.goto(`${address}/files`);
		await page.getByText('yphos-papers.txt').first().waitFor();
		await page.goto(`${address}/rehearsal`);
		await page.locator('[data-verdict][aria-busy=false]').waitFor();
		await page.getByRole('button', { name: 'Play' }).waitFor();
		await page.keyboard.press('Escape');
		step('a visit by a browser', { code: 0 });
	} catch (error) {
		step('a visit by a browser', { code: 1, err: String(error) });
	} finally {
		await browser.close();
		server.kill();
	}
}
