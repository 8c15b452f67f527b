import type { Machine } from '../../../engines/machine';

/** How long cec-ctl takes over the slow wire of CEC, ms. Source: HDMI 1.4b, CEC: some 25 ms a byte, and answers are waited for. */
const CEC_MS = 300;
/** Lines of the header as gpioset is told of them. */
const LINE = /^(\d+)=([01])$/;

/** As cec-ctl prints them: no set is there; the first input of a set. Source: HDMI 1.4b, 8.7. */
const NOWHERE = 'f.f.f.f';
const BEHIND_TV = '1.0.0.0';

/** Why a set is dark although its signal is there. */
export type SetOff = 'by-cec' | 'by-socket' | 'after-cut';

/** The set's own power: its mains, which may hang on a switched socket, and what it does when they return. */
export class SetPower {
	/** null: it is on. */
	off: SetOff | null = null;
	/** Somebody chose another input, and nobody has called the set back since. */
	isOnOtherInput = false;
	#hadPower = false;

	constructor(
		readonly machine: Machine,
		/** Told too whether the set came or went for the board. */
		readonly changed: (isPlug: boolean) => void
	) {
		machine.programs.set('/usr/bin/cec-ctl', (process) => {
			const { screen } = machine.bench;
			const args = process.argv;
			const device = args.includes('-d') ? Number(args[args.indexOf('-d') + 1]) : 0;
			// HDMI-A-1 has the first adapter, and the set hangs on one connector only.
			if (!screen?.hearsCec || !screen.connector.endsWith(`-${device + 1}`)) {
				process.err(`Failed to open /dev/cec${device}: No such file or directory\n`);
				return process.after(CEC_MS, () => process.exit(1));
			}
			process.after(CEC_MS, () => {
				const address = this.hasNoMains ? NOWHERE : BEHIND_TV;
				if (args.includes('--playback'))
					process.out(`\tDriver Name                : vc4_hdmi\n\tPhysical Address           : ${address}\n`);
				if (args.includes('--standby')) this.#set('by-cec');
				else if (args.includes('--image-view-on') && this.off !== 'by-socket') this.#set(null);
				const asked = args.includes('--active-source')
					? args.find((arg) => arg.startsWith('phys-addr='))?.slice('phys-addr='.length)
					: undefined;
				if (asked === BEHIND_TV) this.#showsUs();
				process.exit(0);
			});
		});
		machine.programs.set('/usr/bin/gpioset', (process) => {
			const lines = process.argv.flatMap((arg) => LINE.exec(arg) ?? []);
			const own = machine.bench.screen?.socketLine ?? null;
			if (own === null || Number(lines[1]) !== own || lines[2] !== '1') {
				machine.unknown(`${process.argv.join(' ')}: no socket hangs on that line`);
				return;
			}
			this.#set(this.#whenMainsReturn());
			process.onKill(() => this.#set('by-socket'));
		});
		machine.on('fault', ({ name, on }) => {
			if (name === 'screen-wrong-input') this.isOnOtherInput = on;
		});
		machine.on('mains-on', () => {
			// Somebody switched it on for the first time; after that it is by itself.
			const { screen } = machine.bench;
			this.off = screen?.socketLine != null ? 'by-socket' : this.#hadPower ? this.#whenMainsReturn() : null;
			this.#hadPower = true;
		});
	}

	/** Nothing feeds it: it is not even there for the kernel. */
	get hasNoMains(): boolean {
		return this.off === 'by-socket';
	}

	#whenMainsReturn(): SetOff | null {
		return this.machine.bench.screen?.afterCut === 'stays-off' ? 'after-cut' : null;
	}

	#showsUs(): void {
		if (!this.isOnOtherInput) return;
		this.isOnOtherInput = false;
		this.changed(false);
	}

	#set(off: SetOff | null): void {
		if (off === this.off) return;
		this.off = off;
		this.changed(true);
	}
}
