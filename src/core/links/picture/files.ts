import type { Claim } from '../../claims';
import { lines, rootPath, textFile } from '../../files/cardFile';
import type { CardFile, CardLine } from '../../link/file';
import type { Context } from '../../link/context';
import type { Secrets } from '../../secrets';
import { compareSheet } from './compare';
import { controlFiles } from './controls/controlFiles';
import { testCards } from './edges/cards';
import { CARDS_DIR, SHIFT_PATH, SHOW_CARD_PATH, WAIT_PATH } from './places';
import { ladderOverlay } from './modes/overlay';
import { phoneFiles } from './controls/phone';
import { ramdiskHook, SHIFT_STILLS, SHOW_CARD, WAIT_FOR_SCREEN } from './scripts';
import { switchFiles } from './switching/switchFiles';
import type { PictureSettings } from './settings';
import { matrixForContent } from './edges/touch';
import { EDID_PATH, ownEdid } from './modes/written';
import { pictureWay } from './way';

const RULES = '/etc/udev/rules.d/';

const script = (path: string, why: string, content: readonly string[], setting: CardLine['setting']): CardFile =>
	textFile(rootPath(path), why, lines(setting, ...content), '0755');

const shiftScript: CardFile = textFile(
	rootPath(SHIFT_PATH),
	'Moves what stands still by a few pixels, for the player.',
	lines('picture.shifts', ...SHIFT_STILLS)
);

/** What the picture puts on the card: its EDID, rules for screen and touch, hours, and test cards in exactly the chosen mode. */
export function pictureFiles(
	settings: PictureSettings,
	context: Context,
	_claims: readonly Claim[],
	secrets: Secrets
): CardFile[] {
	const way = pictureWay(settings, context);
	const edid = ownEdid(settings, context);
	return [
		script(WAIT_PATH, 'Lets the player start once a screen is there.', WAIT_FOR_SCREEN, 'picture.connector'),
		script(SHOW_CARD_PATH, 'Shows a test card on the endpoint\u2019s own screen.', SHOW_CARD, 'picture'),
		...(edid?.ok
			? [
					{
						path: rootPath(EDID_PATH),
						mode: '0644' as const,
						why: 'What the kernel takes for the screen\u2019s own EDID.',
						bytes: edid.value,
						setting: 'picture.writesEdid' as const
					},
					script(
						'/etc/initramfs-tools/hooks/yphos-edid',
						'Puts that EDID where a driver of the initial RAM disk finds it.',
						ramdiskHook(EDID_PATH),
						'picture.writesEdid'
					)
				]
			: []),
		...ruleFiles(settings, way.screen?.touch ?? false),
		...switchFiles(settings, context),
		...phoneFiles(settings, context.facts, secrets),
		...(settings.shifts ? [shiftScript] : []),
		...controlFiles(settings, context.facts),
		...(way.output === 'ladder' && way.chosen && way.adapter
			? [
					textFile(
						'boot/yphos/ladder.dts',
						'The output on the header as the device tree describes it, for boards whose maker brings no overlay; compiled on the board.',
						lines('picture.mode', ...ladderOverlay(way.chosen.timing, way.adapter.bitsPerColour))
					)
				]
			: []),
		...(way.output === 'ladder'
			? [
					textFile(
						'docs/compare-outputs.html',
						'A sheet for comparing the ladder with the digital output.',
						compareSheet(context.facts.endpointName, 'resistor ladder')
					)
				]
			: []),
		...(way.chosen
			? testCards(way.chosen.timing).map(({ name, why, png }): CardFile => ({
					path: rootPath(`${CARDS_DIR}/${name}.png`),
					mode: '0644',
					why,
					bytes: png(),
					setting: 'picture.mode'
				}))
			: [])
	];
}

function ruleFiles({ whenOff, turn }: PictureSettings, touch: boolean): CardFile[] {
	return [
		...(whenOff === 'restart'
			? [
					textFile(
						rootPath(`${RULES}60-yphos-screen.rules`),
						'Starts the player anew when a screen is switched on or plugged in.',
						lines(
							'picture.whenOff',
							'ACTION=="change", SUBSYSTEM=="drm", ENV{HOTPLUG}=="1", RUN+="/usr/bin/systemctl --no-block try-restart yphos-player.service"'
						)
					)
				]
			: []),
		...(touch && turn
			? [
					textFile(
						rootPath(`${RULES}61-yphos-touch.rules`),
						'Turns touches as the picture is turned.',
						lines(
							'picture.turn',
							`ACTION!="remove", SUBSYSTEM=="input", ENV{ID_INPUT_TOUCHSCREEN}=="1", ENV{LIBINPUT_CALIBRATION_MATRIX}="${matrixForContent(turn).join(' ')}"`
						)
					)
				]
			: [])
	];
}
