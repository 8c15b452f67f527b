import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { contextFor } from '../engines/context';
import { write } from '../engines/write';
import { BACK_WORD, BY_HAND_MIN, BY_HAND_PATH } from '../files/byHand';
import { ASK_PATH, OF_DAYS, PHONE_DIR, PLAYER_UNIT } from '../files/cardFile';
import { CONTENT_NOW, CONTENT_TRYING } from '../files/content';
import { writers } from '../writers';
import { takeScript } from './card/send';
import { MISSED_PATH, MOST_MISSED } from './notices/kiosk/alive';
import { FEEDS_LIST } from './notices/feeds/fetching';
import { LONGEST_FEED } from './notices/feeds/schema';
import { FEEDS_DIR, PAGE_DIR, SHOWN_DIR } from './notices/places';
import { CARDS_DIR, CONTROL_PATH, PLAYER_SOCKET } from './picture/places';
import { RULES_PATH, SUN_PATH } from './programme/rules/onAirScript';
import { STATE_DIR } from './programme/service';
import { LISTS_DIR } from './sources/lists/rules';
import { PLAYED_ENDINGS } from './sources/lists/played';

const script = (path: string): string => readFileSync(resolve(import.meta.dirname, path), 'utf8');
const anyCase = (ending: string): string =>
	`*.${[...ending].map((c) => (/[a-z]/.test(c) ? `[${c.toUpperCase()}${c}]` : c)).join('')}`;

describe('a script that stands in a file', () => {
	it.each([
		['card/take.sh', [CONTENT_NOW, PLAYER_UNIT]],
		['card/verify-begin.sh', [PLAYER_UNIT]],
		['notices/feeds/fetch-feeds.sh', [FEEDS_LIST, FEEDS_DIR, ASK_PATH, ` ${LONGEST_FEED} `]],
		['notices/kiosk/page-alive.sh', [CONTENT_TRYING, PLAYER_UNIT, MISSED_PATH, `-lt ${MOST_MISSED} `]],
		['notices/drawn/pages-now.sh', [`:-${PAGE_DIR}}`, `:-${SHOWN_DIR}}`]],
		['picture/controls/asked.sh', [CONTROL_PATH]],
		[
			'picture/controls/control.sh',
			[PLAYER_SOCKET, PLAYER_UNIT, BY_HAND_PATH, `+ ${BY_HAND_MIN * 60}`, `${BACK_WORD})`]
		],
		['picture/controls/phone.sh', [`page=${PHONE_DIR}/page.html`]],
		['picture/switching/screen.sh', [PLAYER_UNIT]],
		['picture/edges/show-card.sh', [PLAYER_UNIT, `cards=${CARDS_DIR}\n`]],
		['programme/rules/may-play.sh', [`:-${STATE_DIR}}`]],
		['programme/rules/on-air.sh', [RULES_PATH, SUN_PATH, `:-${STATE_DIR}}`, `'${OF_DAYS}'`]],
		['programme/rules/take-on-air.sh', [`:-${STATE_DIR}}`]],
		['sources/lists/choose.sh', [`:-${LISTS_DIR}}`, `\t${PLAYED_ENDINGS.map(anyCase).join(' | ')})`]],
		['sources/lists/take-lists.sh', [`:-${LISTS_DIR}}`, PLAYER_UNIT]]
	])('%s names what the rest of the workbench names', (path, facts) => {
		for (const fact of facts) expect(script(path)).toContain(fact);
	});
});

/** Scripts of all the demo's card sets, and of those with what none of them has; each text once. */
function written(): Map<string, string> {
	const out = new Map([['take.sh', takeScript('/boot/firmware')]]);
	for (const { id, plan } of demoWorkshop.endpoints)
		for (const more of [false, true]) {
			const changed = structuredClone(plan);
			if (more) {
				changed.picture.phonePassword = changed.notices.showByPhone = true;
				changed.programme.atChange = changed.programme.atChange === 'cut' ? 'finish' : 'cut';
				Object.assign(changed.network, { user: 'keeper', login: 'both' });
			}
			const secrets = { userPasswordCrypt: '$6$salt$hash', phonePassword: 'eight at the least' };
			for (const file of write(writers, changed, contextFor(chain, demoWorkshop, id), secrets)) {
				const text = 'lines' in file ? file.lines.map((line) => line.text).join('\n') : '';
				if (/^#!\/bin\/(?:ba)?sh\n/.test(text))
					out.set(`${id} ${more} ${file.path}`.replaceAll(/\W+/g, '-'), `${text}\n`);
			}
		}
	return new Map([...new Map([...out].map(([name, text]) => [text, name]))].map(([text, name]) => [name, text]));
}

const LINTS = spawnSync('shellcheck', ['--version']).status === 0;
/** What is so on purpose, for all. Each script says of its own where it stands. */
const MEANT = [
	'SC1091', // what it takes in stands on the endpoint
	'SC2154', // set where the head says it, or before
	'SC2034' // for those that come after
];

describe.runIf(LINTS)('a script as it goes on the card', () => {
	it('is one in which shellcheck finds nothing to warn of', () => {
		const dir = mkdtempSync(join(tmpdir(), 'yphos-scripts-'));
		try {
			const names = [...written()].map(([name, text]) => {
				writeFileSync(join(dir, name), text);
				return name;
			});
			expect(names.length).toBeGreaterThan(20);
			const { stdout } = spawnSync(
				'shellcheck',
				['--severity=warning', '--format=gcc', `--exclude=${MEANT.join(',')}`, ...names],
				{ cwd: dir, encoding: 'utf8' }
			);
			expect(stdout).toBe('');
		} finally {
			rmSync(dir, { recursive: true });
		}
	});
});
