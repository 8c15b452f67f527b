import { kernelLineOf } from '../../formats/boot/kernelLine';
import { readEdid, type Edid } from '../../formats/edid';
import { linesOf } from '../../formats/lines';
import { formatSeconds } from '../../basics/format';
import { tellerFor, type Machine, type Teller } from '../../engines/machine';
import type { PlayedPicture } from '../../parts/media';
import type { VideoTiming } from '../../standards/videoTiming';
import type { BenchScreen } from './bench';
import {
	DRIVERS_TV,
	kernelModes,
	ladderTiming,
	playerChoice,
	videoArgumentFor,
	whyNotTaken,
	type KernelModes
} from './modes/display';
import type { ScreenWish, Shown } from '../../engines/machine/signals';
import type { Seen } from './seen';
import { modeInWords } from './modes/written';
import { edidOf } from './way';
import { rehearseKeys } from './controls/rehearseKeys';
import { rehearsePhone } from './controls/rehearsePhone';
import { seenBy } from './seenBy';
import { SetPower } from './switching/setPower';
import { PICTURE_FAULTS } from './faults';
import { OTHER_SCREEN } from './otherScreen';
import { PICTURE_WORDS } from './words';

/** From the kernel's hand-over to the driver of the display, ms. Typical. */
const DRIVER_MS = 400;
/** The display of the endpoint: its connector as the kernel finds it, who draws on it, and what somebody before the set sees. */
export default function rehearsePicture(machine: Machine): void {
	const display = new Display(machine);
	display.live();
	display.show();
	rehearsePhone(machine);
	rehearseKeys(machine);
	machine.offers.openScreen = (unit, wish) => display.open(unit, wish);
}

/** A player that holds the screen. */
interface Holder {
	readonly wish: ScreenWish;
	readonly timing: VideoTiming;
	shown: (Shown & { readonly picture: PlayedPicture; readonly byCircuit: boolean }) | 'nothing' | null;
}

class Display {
	readonly tell: Teller<typeof PICTURE_WORDS>;
	#holder: Holder | null = null;
	#ready = false;
	#blanked = false;
	/** Since when the set has had a signal that it takes. */
	#litAtMs: number | null = null;
	#said = new Set<string>();
	/** The set's own power. */
	readonly power: SetPower;

	constructor(readonly machine: Machine) {
		this.tell = tellerFor(machine, 'picture', PICTURE_WORDS);
		this.power = new SetPower(machine, (isPlug) => {
			if (isPlug && this.#ready) this.#hotplug();
			if (machine.powered) this.#look();
		});
	}

	get screen(): BenchScreen | null {
		const { screen } = this.machine.bench;
		return screen && this.machine.activeFaults.has('other-screen')
			? { ...OTHER_SCREEN, connector: screen.connector }
			: screen;
	}

	live(): void {
		const { machine } = this;
		machine.on('userspace', () => {
			this.#holder = null;
			this.#ready = false;
			this.#blanked = false;
			this.#litAtMs = null;
			this.#said.clear();
			machine.after(DRIVER_MS, () => this.#driverLoads());
		});
		machine.on('mains-off', () => (this.#holder = null));
		machine.on('fault', ({ name, on }) => {
			if (!(name in PICTURE_FAULTS) || name === 'phone-shut-down') return;
			if (!this.machine.bench.screen) return;
			const there = name === 'screen-wrong-input' ? !on : !on || name === 'other-screen';
			this.tell.event(there ? 'screen-on' : 'screen-gone', 'fault');
			if (!machine.powered || !this.#ready) return;
			if (!on || name === 'other-screen') this.#hotplug();
			this.#look();
		});
	}

	/** The connector's state, for scripts that wait for it. */
	show(): void {
		const { disk } = this.machine;
		const folder = (): string => `card0-${this.screen?.connector ?? 'HDMI-A-1'}`;
		disk.mounts.push({
			prefix: '/sys/class/drm',
			read: (path) => {
				if (!this.#ready) return null;
				if (path === `/sys/class/drm/${folder()}/status`)
					return `${this.#isConnected() ? 'connected' : 'disconnected'}\n`;
				if (path !== `/sys/class/drm/${folder()}/edid`) return null;
				this.machine.unknown('the EDID as the kernel gives it on');
				return '';
			},
			list: (path) =>
				!this.#ready ? [] : path === '/sys/class/drm' ? [folder()] : path.endsWith(folder()) ? ['edid', 'status'] : []
		});
		disk.mounts.push({
			prefix: '/sys/class/graphics/fb0',
			read: (path) => (path.endsWith('/blank') && this.#ready ? (this.#blanked ? '4\n' : '0\n') : null),
			list: (path) => (path === '/sys/class/graphics/fb0' && this.#ready ? ['blank'] : []),
			write: (_path, text) => {
				// Who draws keeps the output on. Source: Linux 6.1, drm_fb_helper_blank().
				if (this.#holder) return 'Device or resource busy';
				this.#blanked = text.trim() !== '0';
				this.#look();
				return null;
			}
		});
	}

	get #words(): string[] {
		return kernelLineOf((path) => this.machine.card.get(path)?.text);
	}

	#isLit(): boolean {
		const { activeFaults } = this.machine;
		return (
			this.screen !== null &&
			!this.power.hasNoMains &&
			!activeFaults.has('screen-late') &&
			!activeFaults.has('screen-lead-out')
		);
	}

	#isConnected(): boolean {
		const screen = this.screen;
		// Nobody can ask a yellow socket whether a set is there: its state is unknown, and the player takes only what is connected. Source: Linux 6.1, vc4_vec.c; mpv 0.35, drm_common.c.
		const asks = screen?.connector.startsWith('Composite-') !== true;
		return (
			screen !== null && ((asks && this.#isLit()) || videoArgumentFor(this.#words, screen.connector)?.forced === true)
		);
	}

	/** The screen's own word as the kernel has it: a file in its place, what it says itself, or nothing. */
	#edid(screen: BenchScreen): Edid | null {
		for (const word of this.#words) {
			const asked = /^drm\.edid_firmware=(?:([A-Za-z0-9-]+):)?(\S+)$/.exec(word);
			if (!asked || (asked[1] && asked[1] !== screen.connector)) continue;
			const file = asked[2]!;
			const bytes = this.machine.disk.get(`/usr/lib/firmware/${file}`)?.bytes;
			if (!bytes) {
				this.#once('edid-missing', () => this.tell.event('edid-missing', 'bad', { file }));
				continue;
			}
			const edid = readEdid(bytes);
			// The kernel takes a file only whole and with its sums right. Source: Linux 6.1, drm_edid_load.c.
			if (
				edid.ok &&
				edid.value.blockChecksumOk.every(Boolean) &&
				bytes.length === 128 * (1 + edid.value.extensionBlocks)
			) {
				this.#once('edid-forced', () => this.tell.event('edid-forced', 'info', { file: `/lib/firmware/${file}` }));
				return edid.value;
			}
			this.#once('edid-bad', () => this.tell.event('edid-bad', 'bad', { file: `/lib/firmware/${file}` }));
		}
		return this.#isLit() && !this.machine.activeFaults.has('edid-late') ? edidOf(screen.edid) : null;
	}

	#once(key: string, say: () => void): void {
		if (this.#said.has(key)) return;
		this.#said.add(key);
		say();
	}

	#modes(screen: BenchScreen): KernelModes {
		const ladder = ladderTiming(this.machine.card.get('boot/yphos/ladder.dts')?.text ?? '');
		const only = screen.connector.startsWith('Composite-') ? DRIVERS_TV : (screen.fixed ?? ladder);
		if (only) {
			this.machine.assumed.add(`what brings up ${screen.connector} is in place`);
			return { modes: [only], preferred: only, console: only };
		}
		const edid = this.#edid(screen);
		if (!edid) this.#once('edid-none', () => this.tell.event('edid-none', 'info'));
		return kernelModes(edid, videoArgumentFor(this.#words, screen.connector), screen.outputMhz);
	}

	#driverLoads(): void {
		this.#ready = true;
		this.machine.modules.add('drm');
		this.machine.world.changed();
		const screen = this.screen;
		if (!screen) return this.tell.state('eye', 'unused', 'no-screen');
		if (!this.#isLit() && this.#isConnected()) this.tell.event('forced-on', 'info', { connector: screen.connector });
		this.#look();
	}

	/** A screen came: what waits for it is told, by a rule of the card set. Source: udev(7); Linux 6.1, drm_sysfs_hotplug_event(). */
	#hotplug(): void {
		this.machine.world.changed();
		const { disk, systemd } = this.machine;
		for (const [path, file] of disk.files) {
			if (!/^\/etc\/udev\/rules\.d\/.*\.rules$/.test(path)) continue;
			for (const line of linesOf(file.text)) {
				const unit =
					/SUBSYSTEM=="drm".*ENV\{HOTPLUG\}=="1".*RUN\+="\/usr\/bin\/systemctl(?: --no-block)? try-restart ([\w@.-]+)"/.exec(
						line
					)?.[1];
				if (unit === undefined || !systemd.isActive(unit)) continue;
				systemd.stop(unit);
				this.machine.after(100, () => systemd.start(unit));
			}
		}
	}

	open(unit: string | null, wish: ScreenWish): ReturnType<NonNullable<Machine['offers']['openScreen']>> {
		const { machine } = this;
		const refused = machine.systemd.mayUse(unit, 'video', 'char-drm');
		if (refused) return refused;
		if (!this.#ready) return 'the display\u2019s driver is not there yet';
		const screen = this.screen;
		if (!screen) return 'there is no screen';
		if (wish.connector !== null && wish.connector !== '' && wish.connector !== screen.connector)
			return `there is no connector ${wish.connector}; the screen is on ${screen.connector}`;
		if (!this.#isConnected()) return 'no screen is connected';
		const timing = playerChoice(wish.mode, this.#modes(screen));
		if (typeof timing === 'string') return timing;
		const holder: Holder = { wish, timing, shown: null };
		this.#holder = holder;
		this.tell.event('opened', 'info', { mode: modeInWords(timing) });
		return {
			show: (what, picture, byCircuit) => {
				if (this.#holder !== holder) return;
				holder.shown = { ...what, picture, byCircuit };
				this.#look();
			},
			blank: () => {
				if (this.#holder !== holder) return;
				holder.shown = 'nothing';
				this.#look();
			},
			close: () => {
				if (this.#holder !== holder) return;
				this.#holder = null;
				this.#look();
			}
		};
	}

	/** What somebody before the set sees now. */
	#look(): void {
		const { tell, machine } = this;
		const screen = this.screen;
		if (!screen) return tell.state('eye', 'unused', 'no-screen');
		if (this.power.off !== null) {
			this.#litAtMs = null;
			return this.power.off === 'after-cut'
				? this.#dark('after-cut')
				: tell.state('eye', 'resting', this.power.off === 'by-cec' ? 'by-cec' : 'by-socket');
		}
		if (!this.#isLit()) return this.#dark(machine.activeFaults.has('screen-lead-out') ? 'lead-out' : 'screen-asleep');
		if (this.power.isOnOtherInput) return this.#dark('wrong-input');
		const holder = this.#holder;
		if (!holder && this.#blanked) {
			this.#litAtMs = null;
			return tell.state('eye', 'resting', 'no-signal');
		}
		const timing = holder?.timing ?? this.#modes(screen).console;
		if (!timing) return this.#dark('no-signal');
		const mode = modeInWords(timing);
		const why = whyNotTaken(screen, timing);
		if (why !== null) {
			this.#once(`not-taken ${mode}`, () => tell.event('not-taken', 'bad', { mode, why }));
			this.#litAtMs = null;
			return tell.state('eye', 'wrong', 'not-taken', { mode, why });
		}
		const since = this.#litAtMs ?? machine.clock.nowMs;
		this.#litAtMs = since;
		const wakesInMs = since + screen.wakesMs - machine.clock.nowMs;
		if (wakesInMs > 0) {
			this.#once(`wakes ${since}`, () =>
				machine.after(wakesInMs, () => {
					if (this.#litAtMs === since) this.#look();
				})
			);
			return tell.state('eye', 'dark', 'wakes', { seconds: formatSeconds(screen.wakesMs) });
		}
		if (!holder?.shown) return tell.state('eye', 'console', 'console-why');
		if (holder.shown === 'nothing') return tell.state('eye', 'resting', 'nothing-on');
		this.#showing(screen, holder, holder.shown);
	}

	#dark(code: 'lead-out' | 'after-cut' | 'screen-asleep' | 'wrong-input' | 'no-signal'): void {
		this.#litAtMs = null;
		this.tell.state('eye', 'dark', code);
	}

	#showing(screen: BenchScreen, { wish, timing }: Holder, shown: Exclude<Holder['shown'], 'nothing' | null>): void {
		const { tell } = this;
		const seen = this.#seenBefore(screen, wish, timing, shown);
		// Pictures in turn come round thousands of times a day.
		this.#once(`shows ${shown.id}`, () => tell.event('shows', 'info', { title: shown.title, mode: seen.mode, seen }));
		tell.mark('eye', shown.id, seen);
		const wrong =
			seen.cutPercent >= 0.5
				? (['cut', { percent: `${seen.cutPercent.toFixed(1)}\u2009%` }] as const)
				: this.#leavesEdgesTwice(screen, wish)
					? (['twice', {}] as const)
					: seen.turnedDeg !== 0
						? (['turned', { degrees: seen.turnedDeg }] as const)
						: seen.shownFps !== null && seen.wantedFps !== null && seen.shownFps < seen.wantedFps - 0.5
							? (['drops', { shown: seen.shownFps.toFixed(0), wanted: String(seen.wantedFps) }] as const)
							: seen.slipsPerSec > 0
								? (['uneven', { fps: String(seen.wantedFps), hz: seen.refreshHz.toFixed(2) }] as const)
								: null;
		if (!wrong) return tell.state('eye', 'picture', 'whole');
		const [code, data] = wrong;
		this.#once(`${code} ${shown.id}`, () => tell.event(code, 'bad', data as never));
		tell.state('eye', 'wrong', code, data as never);
	}

	#leavesEdgesTwice({ connector }: BenchScreen, { margins }: ScreenWish): boolean {
		const isAny = (sides: ScreenWish['margins'] | undefined): boolean =>
			Object.values(sides ?? {}).some((side) => side > 0);
		return isAny(margins) && isAny(videoArgumentFor(this.#words, connector)?.margins);
	}

	/** What was worked out for a picture, and from what: in turn they come round thousands of times a day. */
	readonly #known = new Map<string, { readonly from: readonly unknown[]; readonly seen: Seen }>();

	#seenBefore(
		screen: BenchScreen,
		wish: ScreenWish,
		timing: VideoTiming,
		shown: Exclude<Holder['shown'], 'nothing' | null>
	): Seen {
		const from = [screen, wish, timing, shown.picture, shown.byCircuit, this.machine.world.version];
		const known = this.#known.get(shown.id);
		if (known?.from.every((value, n) => value === from[n])) return known.seen;
		const seen = seenBy(this.machine, { screen, wish, timing, shown, kernelWords: this.#words });
		this.#known.set(shown.id, { from, seen });
		return seen;
	}
}
