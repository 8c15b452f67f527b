import { NOT_THE_SET } from '../../../files/sandbox';
import type { Claim } from '../../../claims';
import { PLAYER_UNIT } from '../../../files/cardFile';
import { contentAt } from '../../../files/content';
import type { Facts } from '../../../facts';
import type { Context } from '../../../link/context';
import { PAGE_PATH, READS_FEEDS } from '../places';
import type { NoticesSettings } from '../settings';

/** What a compositor for one program and a browser are called, and what they lack on a bare system. Tried on a real start. */
export const KIOSK_PACKAGES = ['cage', 'chromium', 'seatd', 'xwayland'] as const;
/** The compositor. */
export const CAGE = '/usr/bin/cage';
/** The browser. */
export const BROWSER = '/usr/bin/chromium';
/** Of the unit: the browser keeps all that it writes here, in memory, so that no power cut can spoil it. */
export const RUN_DIR = '/run/yphos-player';

/**
 * The browser without a network, without a word to the public, and without waiting for a hand. Files of its own folder it may read:
 * feeds lie on the disk. Sources: Chromium's switches in content/public/common/content_switches.cc and its kin; tried on a real start.
 */
export const BROWSER_OPTIONS = [
	'--kiosk',
	'--ozone-platform=wayland',
	'--disable-gpu',
	'--no-first-run',
	'--noerrdialogs',
	'--hide-scrollbars',
	'--disable-background-networking',
	'--disable-component-update',
	'--disable-sync',
	'--disable-pinch',
	'--overscroll-history-navigation=0',
	// A slow board may take longer than the usual 15 s to start its parts; without it the page stays white for ever.
	'--ipc-connection-timeout=600',
	'--password-store=basic',
	'--allow-file-access-from-files',
	'--autoplay-policy=no-user-gesture-required',
	// What the page says of itself goes to the service's log.
	'--enable-logging=stderr',
	`--user-data-dir=${RUN_DIR}/chromium`
];

/** cage turns what is drawn a quarter counter-clockwise for each -r. Source: cage(1). */
export const cageTurns = (turn: number): number => ((360 - turn) % 360) / 90;

/** Compositor, browser and page in one command. */
export const kioskWords = (turn: number, facts: Facts): string[] => [
	CAGE,
	'-d',
	...Array.from({ length: cageTurns(turn) }, () => '-r'),
	'--',
	BROWSER,
	...BROWSER_OPTIONS,
	`file://${contentAt(facts, PAGE_PATH)}${READS_FEEDS}`
];

/** The browser as the player's service: begun with the board, begun again when it ends. */
export function kioskClaims({ fonts }: NoticesSettings, { facts }: Context): Claim[] {
	const own = { from: 'notices', what: 'pages', setting: 'notices' } as const;
	return [
		...KIOSK_PACKAGES.map((name): Claim => ({ ...own, on: 'package', name })),
		...fonts.map((name): Claim => ({ ...own, on: 'package', name, setting: 'notices.fonts' })),
		{
			...own,
			on: 'service',
			unit: PLAYER_UNIT,
			why: 'Shows the pages, and begins them again whenever the browser ends.',
			described: { text: `Shows the pages of ${facts.endpointName}`, setting: 'brief.name' },
			exec: {
				words: kioskWords(facts.picture?.turn ?? 0, facts),
				setting: facts.picture?.turn ? 'picture.turn' : 'notices'
			},
			home: 'yphos-player',
			restart: { when: 'always', setting: 'notices' },
			...(facts.programme?.startAtBoot ? { boots: 'programme.startAtBoot' } : {}),
			also: {
				unit: ['Conflicts=getty@tty1.service', 'After=getty@tty1.service'],
				service: [
					'RuntimeDirectory=yphos-player',
					'RuntimeDirectoryMode=0700',
					`Environment=XDG_RUNTIME_DIR=${RUN_DIR} LIBSEAT_BACKEND=seatd WLR_RENDERER=pixman WLR_LIBINPUT_NO_DEVICES=1`,
					// Told to stop, the compositor ends by its own alarm.
					'SuccessExitStatus=SIGABRT'
				],
				guards: [
					'NoNewPrivileges=yes',
					NOT_THE_SET,
					'ProtectHome=yes',
					'LockPersonality=yes',
					'# No network: all that it shows lies on the disk.',
					'IPAddressDeny=any'
				]
			}
		},
		{ ...own, on: 'unit', name: 'seatd.service' },
		// Its socket is of the group that the picture's link asks for.
		{ ...own, on: 'start', of: PLAYER_UNIT, after: 'seatd.service', wants: true },
		{
			...own,
			on: 'check',
			label: 'the page says that it is alive',
			// A browser may need a minute for its first page.
			command: `timeout 150 sh -c "until journalctl --quiet --unit ${PLAYER_UNIT} --since -180s --output cat | grep -q yphos-page; do sleep 5; done"`,
			whilePlaying: true
		}
	];
}
