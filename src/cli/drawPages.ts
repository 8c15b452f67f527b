import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import type { CardFile } from '$core/link/file';
import { DRAWS, PAGE_PATH } from '$core/links/notices/places';
import type { Pictures } from '$core/links/notices/drawn/pictures';
import { rootPath } from '$core/files/cardFile';
import { Refusal, writeCardFiles } from './files';

/** A browser that takes commands through a pipe, and answers. Source: Chrome DevTools Protocol, --remote-debugging-pipe. */
interface Browser {
	ask(method: string, params?: object, sessionId?: string): Promise<Record<string, unknown>>;
	end(): Promise<void>;
}

function startBrowser(program: string, profile: string): Browser {
	const child = spawn(
		program,
		[
			...[
				'--headless',
				'--remote-debugging-pipe',
				'--no-first-run',
				'--disable-background-networking',
				'--disable-gpu'
			],
			...['--disable-component-update', '--disable-sync', '--allow-file-access-from-files', '--hide-scrollbars'],
			// Where the administrator runs it, it begins no other way; it opens nothing but files of ours.
			...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
			`--user-data-dir=${profile}`
		],
		{ stdio: ['ignore', 'ignore', 'ignore', 'pipe', 'pipe'] }
	);
	const [commands, answers] = [child.stdio[3], child.stdio[4]] as [NodeJS.WritableStream, NodeJS.ReadableStream];
	const waiting = new Map<number, { done(result: Record<string, unknown>): void; failed(why: Error): void }>();
	let last = 0;
	const failAll = (why: string): void => {
		for (const { failed } of waiting.values()) failed(new Refusal(why));
		waiting.clear();
	};
	child.on('error', () =>
		failAll(
			`The pages of this endpoint are shown as pictures, and ${program} draws them: it cannot be started. Install chromium, or name another with --browser PROGRAM.`
		)
	);
	child.on('exit', () => failAll(`${program} ended before the pages were drawn. Try again.`));
	commands.on('error', () => undefined);
	let rest = '';
	answers.on('data', (piece: Buffer) => {
		const texts = (rest + piece.toString('utf8')).split('\0');
		rest = texts.pop()!;
		for (const text of texts) {
			const answer = JSON.parse(text) as { id?: number; result?: Record<string, unknown>; error?: { message: string } };
			const one = waiting.get(answer.id ?? -1);
			if (!one) continue;
			waiting.delete(answer.id!);
			if (answer.error) one.failed(new Refusal(`${program}: ${answer.error.message}`));
			else one.done(answer.result ?? {});
		}
	});
	return {
		ask: (method, params = {}, sessionId) =>
			new Promise((done, failed) => {
				const id = ++last;
				waiting.set(id, { done, failed });
				commands.write(`${JSON.stringify({ id, method, params, ...(sessionId ? { sessionId } : {}) })}\0`);
			}),
		end: () =>
			new Promise((done) => {
				if (child.exitCode !== null || child.pid === undefined) return done();
				child.once('exit', () => done());
				child.kill();
			})
	};
}

/** Until the page stands as its address asks, and has been painted. */
const drawnAs = (hash: string): string =>
	`new Promise((done) => { const look = () => document.documentElement.dataset.drawn === ${JSON.stringify(hash)}
		? requestAnimationFrame(() => requestAnimationFrame(() => done(true))) : setTimeout(look, 10); look(); })`;

const MOST_TRIES = 20;

/** Draws the pictures of pages with a browser. `pageSet`: the same endpoint's card set with its pages as a browser shows them. */
export async function drawPages(
	{ show, drawings }: Pictures,
	pageSet: readonly CardFile[],
	program: string,
	say: (text: string) => void
): Promise<Map<string, Uint8Array>> {
	const dir = mkdtempSync(join(tmpdir(), 'yphos-pages-'));
	const home = rootPath('/opt/yphos');
	const drawn = new Map<string, Uint8Array>();
	mkdirSync(join(dir, 'profile'));
	const browser = startBrowser(program, join(dir, 'profile'));
	try {
		writeCardFiles(
			join(dir, 'set'),
			pageSet.filter(({ path }) => path.startsWith(`${home}/`))
		);
		const { targetId } = await browser.ask('Target.createTarget', { url: 'about:blank' });
		const { sessionId } = (await browser.ask('Target.attachToTarget', { targetId, flatten: true })) as {
			sessionId: string;
		};
		const { widthPx: width, heightPx: height } = show.screen;
		await browser.ask(
			'Emulation.setDeviceMetricsOverride',
			{ width, height, deviceScaleFactor: 1, mobile: false },
			sessionId
		);
		await browser.ask('Page.enable', {}, sessionId);
		const url = pathToFileURL(join(dir, 'set', rootPath(PAGE_PATH)));
		for (const { name, page, utcMs, without } of drawings) {
			const asked = { [DRAWS.page]: page.id, [DRAWS.utcMs]: String(utcMs), [DRAWS.without]: without.join(',') };
			// Only what follows the # changes: the page stays, and draws anew.
			url.hash = new URLSearchParams(asked).toString();
			await browser.ask('Page.navigate', { url: url.href }, sessionId);
			let stands = false;
			// What was asked of the page before, which goes, is never answered.
			for (let tries = 0; !stands && tries < MOST_TRIES; tries++) {
				const asked = { expression: drawnAs(url.hash), awaitPromise: true };
				const { result } = await browser.ask('Runtime.evaluate', asked, sessionId).catch(() => ({ result: null }));
				stands = (result as { value?: unknown } | null)?.value === true;
			}
			if (!stands) throw new Refusal(`${program} does not show the page ${page.title || page.id}. Try again.`);
			const { data } = await browser.ask('Page.captureScreenshot', { format: 'png' }, sessionId);
			drawn.set(name, new Uint8Array(Buffer.from(String(data), 'base64')));
			if (drawn.size % 100 === 0) say(`${drawn.size} of ${drawings.length} pages drawn`);
		}
		return drawn;
	} finally {
		await browser.end();
		// Its children may write for a while after it; what is left then is the machine's own to clear, and the pages are drawn.
		await rm(dir, { recursive: true, force: true, maxRetries: 20, retryDelay: 50 }).catch(() => undefined);
	}
}
